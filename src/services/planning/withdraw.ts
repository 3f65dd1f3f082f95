import type { Actor } from '@/core/people';
import { recordChanges } from '@/data/repositories/bookkeeping';
import { markDirty } from '@/data/repositories/marks';
import { type TrayLineRow, updateTrayLine } from '@/data/repositories/trays';
import type { Tx } from '@/data/sql';
import { type Reopened, reopenNeed } from './reopenNeed';

/** Takes a line, locked and in its tray, out of it: the decision is withdrawn and its need open again, if that decision
 *  still was the need's last. */
export async function withdraw(tx: Tx, actor: Actor, now: string, line: TrayLineRow): Promise<Reopened> {
  await updateTrayLine(tx, { ...line, state: 'taken_back' });
  const reopened = await reopenNeed(tx, actor, now, line.decisionId);
  await recordChanges(tx, actor.userId, now, [
    { entity: 'tray_line', entityId: line.id, action: 'taken back', before: { packQuantity: line.packQuantity } },
  ]);
  markDirty(tx, [line]);
  return reopened;
}
