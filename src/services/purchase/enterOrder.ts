import { partQuantities } from '@/core/packs';
import { fromDecimal, type Quantity, toDecimal } from '@/core/quantity';
import { divideHalfUp, type Fraction, fraction } from '@/core/units';
import { recordChanges } from '@/data/repositories/bookkeeping';
import { findItem, insertSource, type SupplierRow } from '@/data/repositories/catalogue';
import { insertOrder, insertOrderLine, insertPart } from '@/data/repositories/orders';
import type { Tx } from '@/data/sql';
import { type Buying, readBuying } from '../catalogue/buying';
import { expectedPrice } from './pricing';
import { proposedPrice } from './proposedPrice';

/** What a new order says besides its supplier's terms. */
export type OrderHead = {
  readonly locationId: number | null;
  readonly wantedDate: string | null;
  readonly contact: string;
  /** Where it is sent to, when that is not the supplier's own address. */
  readonly address: string;
};

/** Enters an empty draft with the supplier's terms; returns its id. */
export const enterOrder = (
  tx: Tx,
  { id: supplierId, currency, paymentTerms, deliveryTerms, shippingWay, orderText, address }: SupplierRow,
  {
    address: to = '',
    locationId = null,
    wantedDate = null,
    contact = '',
    ...entered
  }: {
    readonly orderDate: string;
    readonly userId: number;
    readonly at: string;
  } & Partial<OrderHead>,
): Promise<number> =>
  insertOrder(tx, {
    supplierId,
    currency,
    paymentTerms,
    deliveryTerms,
    shippingWay,
    orderText,
    supplierAddress: to || address,
    ...{ locationId, wantedDate, contact },
    ...entered,
  });

/** The price of a new line: the list's, else what is proposed in its place, with where that is from. */
async function priceToEnter(tx: Tx, buying: Buying, packs: number, today: string) {
  const expected = expectedPrice(buying, packs, today);
  const none = { ...expected, priceOrigin: null };
  if (expected.priceAmount !== null) return none;
  const proposed = await proposedPrice(tx, buying.source.itemId, buying.source.currency, today);
  if (!proposed) return none;
  const { amount: priceAmount, origin: priceOrigin } = proposed;
  // Proposed per base unit, in the order's currency.
  return { ...expected, priceAmount, pricePer: '1', priceContentNum: 1, priceContentDen: 1, priceOrigin };
}

/** How a supplier sells an item; what it has not sold us yet becomes something that it sells, by the base unit: what is
 *  missing can be said later. */
export async function buyingFrom(
  tx: Tx,
  by: { readonly userId: number; readonly now: string },
  supplier: Pick<SupplierRow, 'id' | 'code'>,
  itemId: number,
): Promise<Buying> {
  const sells = async () =>
    [...(await readBuying(tx, [itemId])).bySource.values()].find((b) => b.source.supplierId === supplier.id);
  const known = await sells();
  if (known) return known;
  await insertSource(tx, itemId, supplier.id);
  await recordChanges(tx, by.userId, by.now, [
    { entity: 'item', entityId: itemId, action: 'sources added', after: { supplier: supplier.code } },
  ]);
  const made = await sells();
  if (!made) throw new Error(`item ${itemId} has no source after it was given one`);
  return made;
}

/** The same source, ordered in another pack (null = by the base unit); its price list keeps the packs it is for, and its steps
 *  are looked up at what a quantity makes in them. */
export const inPack = (
  buying: Buying,
  pack: { readonly id: number; readonly name: string; readonly content: Fraction } | null,
): Buying => {
  const content = pack?.content ?? fraction(1n);
  const inOwn = (packs: Quantity): Quantity =>
    Number(divideHalfUp(BigInt(packs) * content.num * buying.content.den, content.den * buying.content.num));
  return {
    ...buying,
    packName: pack?.name ?? null,
    content,
    priceAt: (packs, on) => buying.priceAt(inOwn(packs), on),
    source: { ...buying.source, packId: pack?.id ?? null },
  };
};

/** What a line is entered with besides its list price. */
export type LineExtras = {
  /** Packs that the breaks are counted over; the line's own when nothing else is on the order. */
  readonly overPacks?: number;
  /** A price per pack that somebody typed. */
  readonly price?: string | null;
  readonly freeOfCharge?: boolean;
  readonly unordered?: boolean;
  readonly internalNote?: string;
};

export type NewPart = {
  readonly locationId: number;
  /** Packs as decimal text. */
  readonly packQuantity: string;
  readonly trayLineId: number | null;
};

const typedPrice = (priceAmount: string, { content }: Buying) => ({
  ...{ priceAmount, pricePer: '1', priceOrigin: null },
  ...{ priceContentNum: Number(content.num), priceContentDen: Number(content.den) },
});

/** Enters a stock line with one delivery part per location, at the list price of its whole quantity.
 *  Returns pack and base quantity of each part as decimal text; their base quantities add up to the line's exactly.
 *  Errors: throws when the source's item is gone (a defect in the data). */
export async function enterStockLine(
  tx: Tx,
  at: { readonly orderId: number; readonly lineNo: number; readonly today: string; readonly wantedDate: string },
  buying: Buying,
  parts: readonly NewPart[],
  extras: LineExtras = {},
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
    ...(await priceToEnter(tx, buying, extras.overPacks ?? sum(packs), at.today)),
    ...(extras.price ? typedPrice(extras.price, buying) : {}),
    edition: buying.source.edition,
    freeOfCharge: extras.freeOfCharge ? 1 : 0,
    unordered: extras.unordered ? 1 : 0,
    internalNote: extras.internalNote ?? '',
  });
  const entered = [];
  for (const [i, { locationId, trayLineId }] of parts.entries()) {
    const quantities = { packQuantity: toDecimal(packs[i] as number), baseQuantity: toDecimal(bases[i] as number) };
    await insertPart(tx, { lineId, partNo: i + 1, locationId, ...quantities, wantedDate: at.wantedDate, trayLineId });
    entered.push(quantities);
  }
  return entered;
}
