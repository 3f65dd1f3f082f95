import { parseDate } from '@/core/calendar';
import { type Actor, may } from '@/core/people';
import { toDecimal } from '@/core/quantity';
import { err, ok, type Result } from '@/core/result';
import { recordChanges } from '@/data/repositories/bookkeeping';
import { readCompany } from '@/data/repositories/company';
import { markDirty } from '@/data/repositories/marks';
import { insertTransfer, insertTransferLines } from '@/data/repositories/transfers';
import { command, type Request } from '../command';
import { type Deps, todayOf } from '../deps';
import { type Failure, invalidField } from '../failure';
import { itemsInStock, quantitiesOf } from './enterLines';
import { nextTransferNumber } from './transferNumber';

export type RequestTransfer = {
  readonly fromLocationId: number;
  readonly toLocationId: number;
  readonly wantedDate: string;
  readonly note: string;
  readonly lines: readonly { readonly itemId: number; readonly quantity: string }[];
};

/** A place asks another for goods. Nothing is promised yet; what is asked for counts as planned where it is asked for, so
 *  that it is bought in time. Each item stands on one line.
 *  Errors: forbidden (for the place that asks), not_found, invalid_field lines.<index>|wantedDate, nothing_counted. */
export async function requestTransfer(
  deps: Deps,
  actor: Actor,
  request: Request<RequestTransfer>,
): Promise<Result<{ transferId: number; transfer: string }, Failure>> {
  const { fromLocationId, toLocationId, lines, note } = request.input;
  const allowed = may(actor, 'stock.transfer', { locationIds: [toLocationId] });
  if (!allowed.ok) return allowed;
  if (fromLocationId === toLocationId) return err({ kind: 'not_found', what: 'location' });
  const quantities = quantitiesOf(lines, 'positive');
  if (!quantities.ok) return quantities;
  return command(deps, actor, 'request-transfer', request, async (tx, now) => {
    const today = todayOf(deps, await readCompany(tx));
    const typed = request.input.wantedDate.trim();
    const wanted = typed === '' ? ok(null) : parseDate(typed, today);
    if (!wanted.ok) return err(invalidField('wantedDate', { kind: 'not_a_date', text: typed }));
    const itemIds = lines.map((l) => l.itemId);
    const ours = await itemsInStock(tx, [fromLocationId, toLocationId], itemIds);
    if (!ours.ok) return ours;
    const transfer = await nextTransferNumber(tx, today);
    const transferId = await insertTransfer(tx, {
      ...{ number: transfer, fromLocationId, toLocationId, state: 'requested', businessDate: today },
      ...{ wantedDate: wanted.value, note, userId: actor.userId, at: now },
    });
    await insertTransferLines(
      tx,
      transferId,
      lines.map((l, i) => ({
        ...{ itemId: l.itemId, asked: toDecimal(quantities.value[i] as number), approved: '0', shipped: '0' },
        ...{ shippedValue: 0, allocationId: null, decisionId: null },
      })),
    );
    await recordChanges(tx, actor.userId, now, [
      { entity: 'transfer', entityId: transferId, action: 'asked for', after: { transfer, lines: lines.length } },
    ]);
    markDirty(
      tx,
      itemIds.flatMap((itemId) => [
        { itemId, locationId: fromLocationId },
        { itemId, locationId: toLocationId },
      ]),
    );
    return ok({ transferId, transfer });
  });
}
