import { landedPerUnit } from '@/core/landed';
import { fromDecimal } from '@/core/quantity';
import { type CostOrigin, proposedCost } from '@/core/sourcing';
import { decimalFraction, divideHalfUp } from '@/core/units';
import { readCompany } from '@/data/repositories/company';
import { readKnownCosts } from '@/data/repositories/costs';
import type { Tx } from '@/data/sql';
import { readExchange } from '../cost/exchange';

/** What a base unit is proposed to cost in some currency, where no list says: standard cost or last price, in the company's
 *  order. Null when neither is on file, or no rate of the currency is. */
export async function proposedPrice(
  tx: Tx,
  itemId: number,
  currency: string,
  today: string,
): Promise<{ readonly amount: string; readonly origin: CostOrigin } | null> {
  const company = await readCompany(tx);
  const [known] = await readKnownCosts(tx, [itemId]);
  const last =
    known && known.lastValue !== null && known.lastQuantity !== null
      ? landedPerUnit(known.lastValue, fromDecimal(known.lastQuantity), company.currency, 6)
      : null;
  const proposed = proposedCost({ standard: known?.standardCost ?? null, last }, company.costOrder);
  if (!proposed || currency === company.currency) return proposed;
  const rate = (await readExchange(tx, company.currency, today)).perUnit(currency);
  if (!rate) return null;
  const amount = decimalFraction(proposed.amount);
  const millionths = divideHalfUp(amount.num * rate.den * 1_000_000n, amount.den * rate.num);
  const digits = String(millionths).padStart(7, '0');
  return { amount: `${digits.slice(0, -6)}.${digits.slice(-6)}`, origin: proposed.origin };
}
