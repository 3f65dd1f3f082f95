import { differences, type LineDifference, type SaidLine } from '@/core/purchase';
import { fromDecimal, toDecimal } from '@/core/quantity';
import { type AmendmentRow, readSaid } from '@/data/repositories/orderLife';
import type { OrderLineRow, PartRow } from '@/data/repositories/orders';
import type { Tx } from '@/data/sql';

/** What an order says to its supplier, from its rows; what came without being ordered says nothing. */
export const saidOf = (lines: readonly OrderLineRow[], parts: readonly PartRow[]): SaidLine[] =>
  lines
    .filter((l) => l.unordered === 0)
    .map((l) => ({
      ...{ lineId: l.id, lineNo: l.lineNo, description: l.description, packName: l.packName },
      price: l.priceAmount === null ? null : toDecimal(fromDecimal(l.priceAmount)),
      freeOfCharge: l.freeOfCharge === 1,
      discount: toDecimal(fromDecimal(l.discountPercent)),
      parts: parts
        .filter((p) => p.lineId === l.id)
        .map((p) => ({
          ...{ partId: p.id, packs: fromDecimal(p.packQuantity), date: p.wantedDate, placeId: p.locationId },
        })),
    }));

/** Reads what was said; prices compare as plain decimals. */
export const parseSaid = (json: string): SaidLine[] =>
  (JSON.parse(json) as (Omit<SaidLine, 'discount'> & Partial<SaidLine>)[]).map((l) => ({
    ...l,
    discount: l.discount ?? '0',
    price: l.price === null ? null : toDecimal(fromDecimal(l.price)),
  }));

/** What an order says otherwise than its supplier was last told; nothing while it was told nothing. */
export async function toldOtherwise(
  tx: Tx,
  orderId: number,
  lines: readonly OrderLineRow[],
  parts: readonly PartRow[],
): Promise<LineDifference[]> {
  const said = (await readSaid(tx, orderId))?.said ?? null;
  return said === null ? [] : differences(parseSaid(said), saidOf(lines, parts));
}

export type AmendmentView = Omit<AmendmentRow, 'differences'> & { readonly differences: readonly LineDifference[] };

export const amendmentView = (a: AmendmentRow): AmendmentView => ({
  ...a,
  differences: JSON.parse(a.differences) as LineDifference[],
});
