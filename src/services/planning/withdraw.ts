import type { Actor } from '@/core/people';
import { recordChanges } from '@/data/repositories/bookkeeping';
import { decideNeed, insertDecision, lockNeedsOf, markDirty } from '@/data/repositories/planning';
import { type TrayLineRow, updateTrayLine } from '@/data/repositories/trays';
import type { Tx } from '@/data/sql';
import { fingerprintOf } from './recompute';

export type Withdrawn = { readonly needId: number | null; readonly decisionId: number | null };

/** Takes a line, locked and in its tray, out of it: the decision is withdrawn and its need open again, if that decision
 *  still was the need's last. */
export async function withdraw(tx: Tx, actor: Actor, now: string, line: TrayLineRow): Promise<Withdrawn> {
  await updateTrayLine(tx, { ...line, state: 'taken_back' });
  const [need] = await lockNeedsOf(tx, [line]);
  let decisionId: number | null = null;
  if (need && need.lastDecisionId === line.decisionId) {
    decisionId = await insertDecision(tx, {
      needId: need.id,
      kind: 'take_back',
      fingerprint: need.fingerprint,
      shortage: need.shortage,
      sourceId: null,
      packId: null,
      packQuantity: '0',
      baseQuantity: '0',
      reckoning: 'null',
      userId: actor.userId,
      at: now,
    });
    await decideNeed(tx, need.id, 'open', decisionId, fingerprintOf({ ...need, lastDecisionId: decisionId }), now);
  }
  await recordChanges(tx, actor.userId, now, [
    { entity: 'tray_line', entityId: line.id, action: 'taken back', before: { packQuantity: line.packQuantity } },
  ]);
  markDirty(tx, [line]);
  return { needId: need?.id ?? null, decisionId };
}
