import { type Actor, may } from '@/core/people';
import { err, ok, type Result } from '@/core/result';
import { checkTransfer, type TransferAction } from '@/core/stock';
import { lockAllocations } from '@/data/repositories/allocations';
import { lockLevels } from '@/data/repositories/levels';
import { markDirty } from '@/data/repositories/marks';
import { lockTransfer, readTransferLines, type TransferLineRow, type TransferRow } from '@/data/repositories/transfers';
import type { Tx } from '@/data/sql';
import type { Failure } from '../failure';
import { endAllocation } from './reserve';

export type OpenTransfer = { readonly transfer: TransferRow; readonly lines: readonly TransferLineRow[] };

/** Locks a transfer for a step that its state allows and that the person may take at one of its places.
 *  Errors: not_found, forbidden, changed_meanwhile (another version than was seen), transfer_not_in_this_state. */
export async function openTransfer(
  tx: Tx,
  actor: Actor,
  asked: { readonly transferId: number; readonly version: number | null },
  action: TransferAction,
  place: (t: TransferRow) => number,
): Promise<Result<OpenTransfer, Failure>> {
  const transfer = await lockTransfer(tx, asked.transferId);
  if (!transfer) return err({ kind: 'not_found', what: 'transfer' });
  const here = may(actor, 'stock.transfer', { locationIds: [place(transfer)] });
  if (!here.ok) return here;
  const state = checkTransfer(transfer.state, action);
  if (!state.ok) return state;
  if (asked.version !== null && transfer.version !== asked.version)
    return err({ kind: 'changed_meanwhile', what: 'transfer', who: null, now: null });
  return ok({ transfer, lines: await readTransferLines(tx, transfer.id) });
}

/** Gives back everything that is promised for these lines. */
export async function releaseLines(tx: Tx, transfer: TransferRow, lines: readonly TransferLineRow[]): Promise<void> {
  const pairs = lines.map((l) => ({ itemId: l.itemId, locationId: transfer.fromLocationId }));
  await lockLevels(tx, pairs);
  const promises = await lockAllocations(
    tx,
    lines.flatMap((l) => (l.allocationId === null ? [] : [l.allocationId])),
  );
  for (const a of promises) await endAllocation(tx, a, null);
  markTransfer(tx, transfer, lines);
}

/** What a transfer changes for the needs: its items where they leave and where they go. */
export function markTransfer(
  tx: Tx,
  transfer: Pick<TransferRow, 'fromLocationId' | 'toLocationId'>,
  lines: readonly { readonly itemId: number }[],
): void {
  markDirty(
    tx,
    lines.flatMap(({ itemId }) => [
      { itemId, locationId: transfer.fromLocationId },
      { itemId, locationId: transfer.toLocationId },
    ]),
  );
}
