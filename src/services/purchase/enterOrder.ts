import { partQuantities } from '@/core/packs';
import { fromDecimal, toDecimal } from '@/core/quantity';
import { findItem, type SupplierRow } from '@/data/repositories/catalogue';
import { insertOrder, insertOrderLine, insertPart } from '@/data/repositories/orders';
import type { Tx } from '@/data/sql';
import type { Buying } from '../catalogue/buying';
import { expectedPrice } from './pricing';

/** Enters an empty draft with the supplier's terms; returns its id. */
export const enterOrder = (
  tx: Tx,
  { id: supplierId, currency, paymentTerms, deliveryTerms, address }: SupplierRow,
  entered: { readonly orderDate: string; readonly userId: number; readonly at: string },
): Promise<number> =>
  insertOrder(tx, { supplierId, currency, paymentTerms, deliveryTerms, supplierAddress: address, ...entered });

export type NewPart = {
  readonly locationId: number;
  /** Packs as decimal text. */
  readonly packQuantity: string;
  readonly trayLineId: number | null;
};

/** Enters a stock line with one delivery part per location, at the list price of its whole quantity.
 *  Returns pack and base quantity of each part as decimal text; their base quantities add up to the line's exactly.
 *  Errors: throws when the source's item is gone (a defect in the data). */
export async function enterStockLine(
  tx: Tx,
  at: { readonly orderId: number; readonly lineNo: number; readonly today: string; readonly wantedDate: string },
  buying: Buying,
  parts: readonly NewPart[],
): Promise<{ packQuantity: string; baseQuantity: string }[]> {
  const item = await findItem(tx, buying.source.itemId);
  if (!item) throw new Error(`source ${buying.source.id} without its item`);
  const packs = parts.map((p) => fromDecimal(p.packQuantity));
  const bases = partQuantities(packs, buying.content);
  const sum = (all: readonly number[]) => all.reduce((a, b) => a + b, 0);
  const lineId = await insertOrderLine(tx, {
    orderId: at.orderId,
    lineNo: at.lineNo,
    kind: 'stock',
    itemId: item.id,
    sourceId: buying.source.id,
    description: item.name,
    supplierItemNumber: buying.source.supplierItemNumber,
    packId: buying.source.packId,
    packName: buying.packName ?? item.unitName,
    contentNum: Number(buying.content.num),
    contentDen: Number(buying.content.den),
    packQuantity: toDecimal(sum(packs)),
    baseQuantity: toDecimal(sum(bases)),
    ...expectedPrice(buying, sum(packs), at.today),
  });
  const entered = [];
  for (const [i, { locationId, trayLineId }] of parts.entries()) {
    const quantities = { packQuantity: toDecimal(packs[i] as number), baseQuantity: toDecimal(bases[i] as number) };
    await insertPart(tx, { lineId, partNo: i + 1, locationId, ...quantities, wantedDate: at.wantedDate, trayLineId });
    entered.push(quantities);
  }
  return entered;
}
