import { lineNet } from '@/core/money';
import { packsIn } from '@/core/packs';
import { fromDecimal, MICRO, type Quantity } from '@/core/quantity';
import { divideHalfUp } from '@/core/units';
import { readKnownCosts } from '@/data/repositories/costs';
import type { Tx } from '@/data/sql';
import { readBuying } from '../catalogue/buying';
import { readExchange } from '../cost/exchange';

/** What a quantity of each of these items is worth in the company's currency: at its supplier's price for that quantity, else
 *  at what it last cost; null where neither is known. Minor units. */
export async function unitWorth(
  tx: Tx,
  itemIds: readonly number[],
  currency: string,
  today: string,
): Promise<(itemId: number, quantity: Quantity) => number | null> {
  const book = await readBuying(tx, itemIds);
  const exchange = await readExchange(tx, currency, today);
  const costs = new Map((await readKnownCosts(tx, [...new Set(itemIds)])).map((c) => [c.itemId, c]));
  return (itemId, quantity) => {
    if (quantity <= 0) return 0;
    const buying = book.preferred.get(itemId);
    const price = buying?.priceAt(packsIn(quantity, buying.content), today) ?? null;
    const listed =
      buying && price
        ? exchange.toBase(lineNet(quantity, price, buying.source.currency), buying.source.currency)
        : null;
    if (listed !== null) return listed;
    const cost = costs.get(itemId);
    const last = cost?.lastQuantity ? fromDecimal(cost.lastQuantity) : 0;
    if (last <= 0 || cost?.lastValue == null) return null;
    return Number(divideHalfUp(BigInt(cost.lastValue) * BigInt(quantity), BigInt(last || MICRO)));
  };
}
