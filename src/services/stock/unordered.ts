import { parsePrice } from '@/core/money';
import { packsIn } from '@/core/packs';
import { checkLineQuantity } from '@/core/purchase';
import { toDecimal } from '@/core/quantity';
import { err, ok, type Result } from '@/core/result';
import { recordChanges } from '@/data/repositories/bookkeeping';
import { findItem, readSuppliers } from '@/data/repositories/catalogue';
import { bumpOrder, readOrderLines, readParts } from '@/data/repositories/orders';
import type { Tx } from '@/data/sql';
import { type Failure, invalidField } from '../failure';
import { buyingFrom, enterStockLine, inPack } from '../purchase/enterOrder';
import type { LoadedOrder } from '../purchase/loadOrder';

/** Goods that came with a delivery without being on its order: base units and price per base unit as typed; '' = the price
 *  on file. */
export type Unordered = {
  readonly itemId: number;
  readonly quantity: string;
  readonly price: string;
  readonly freeOfCharge: boolean;
  /** Lots or serial numbers as typed. */
  readonly lots?: string;
};

/** Puts them on the order as lines of their own that expect just what came; returns a count for each.
 *  Errors: not_found; invalid_field unordered.<index>.quantity or .price, also when no price is on file. */
export async function enterUnordered(
  tx: Tx,
  at: { readonly userId: number; readonly now: string; readonly today: string; readonly day: string },
  { order, lines }: LoadedOrder,
  locationId: number,
  entries: readonly Unordered[],
): Promise<Result<{ partId: number; quantity: string; unit: 'base'; lots: string }[], Failure>> {
  if (entries.length === 0) return ok([]);
  const supplier = (await readSuppliers(tx)).find((s) => s.id === order.supplierId);
  if (!supplier) return err({ kind: 'not_found', what: 'supplier' });
  const last = Math.max(0, ...lines.map((l) => l.lineNo));
  for (const [i, entry] of entries.entries()) {
    const quantity = checkLineQuantity(entry.quantity);
    if (!quantity.ok) return err(invalidField(`unordered.${i}.quantity`, quantity.error));
    const price = entry.price.trim() === '' ? ok(null) : parsePrice(entry.price);
    if (!price.ok) return err(invalidField(`unordered.${i}.price`, price.error));
    const item = await findItem(tx, entry.itemId);
    if (!item) return err({ kind: 'not_found', what: 'item' });
    const buying = await buyingFrom(tx, at, supplier, item.id);
    const lineNo = last + i + 1;
    await enterStockLine(
      tx,
      { orderId: order.id, lineNo, today: at.today, wantedDate: at.day },
      inPack(buying, null),
      [{ locationId, packQuantity: toDecimal(quantity.value), trayLineId: null }],
      {
        overPacks: packsIn(quantity.value, buying.content),
        ...{ price: price.value, freeOfCharge: entry.freeOfCharge, unordered: true },
      },
    );
    await recordChanges(tx, at.userId, at.now, [
      { entity: 'order', entityId: order.id, action: `line ${lineNo}: came without being ordered`, after: item.name },
    ]);
  }
  await bumpOrder(tx, order.id);
  const entered = (await readOrderLines(tx, [order.id])).filter((l) => l.lineNo > last);
  const unpriced = entered.findIndex((l) => l.freeOfCharge === 0 && Number(l.priceAmount ?? 0) === 0);
  if (unpriced !== -1) {
    const { description } = entered[unpriced] as { description: string };
    return err(invalidField(`unordered.${unpriced}.price`, { kind: 'price_needed', item: description }));
  }
  const parts = await readParts(tx, [order.id]);
  return ok(
    entered.flatMap((l) =>
      parts
        .filter((p) => p.lineId === l.id)
        .map((p) => ({
          ...{ partId: p.id, quantity: p.baseQuantity, unit: 'base' as const },
          lots: entries[l.lineNo - last - 1]?.lots ?? '',
        })),
    ),
  );
}
