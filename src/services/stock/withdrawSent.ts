import type { Actor } from '@/core/people';
import { recordChanges } from '@/data/repositories/bookkeeping';
import { setApproved, type TransferLineRow, type TransferRow } from '@/data/repositories/transfers';
import type { Tx } from '@/data/sql';
import { type Reopened, reopenNeed } from '../planning/reopenNeed';
import { releaseLines } from './openTransfer';

/** Takes a line that a decision put on a transfer, locked and not yet shipped, off it: what was promised is free again, and
 *  the need is open again if that decision still was its last. */
export async function withdrawSent(
  tx: Tx,
  actor: Actor,
  now: string,
  transfer: TransferRow,
  line: TransferLineRow,
): Promise<Reopened> {
  await releaseLines(tx, transfer, [line]);
  await setApproved(tx, line.id, '0', null);
  const reopened = await reopenNeed(tx, actor, now, line.decisionId);
  await recordChanges(tx, actor.userId, now, [
    {
      entity: 'transfer',
      entityId: transfer.id,
      action: 'line taken off',
      before: { line: line.lineNo, approved: line.approved },
    },
  ]);
  return reopened;
}
