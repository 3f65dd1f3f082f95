import { convert, lineNet, type Price } from '@/core/money';
import { priceAt } from '@/core/sourcing';
import { fraction } from '@/core/units';
import type { NeedView } from '@/services/planning/needViews';

/** The list price of a need's source for a number of packs (millionths) on a day, breaks included; null without one. The
 *  order prices again, over all needs that come to stand on one line. */
export function priceOf(need: Pick<NeedView, 'prices'>, packs: number, on: string): Price | null {
  const step = priceAt(need.prices, packs, on);
  if (!step) return null;
  const { amount, perQuantity, content } = step;
  return { amount, perQuantity, packContent: fraction(BigInt(content.num), BigInt(content.den)) };
}

/** What a quantity comes to in the company's currency, in minor units; null where no rate of its supplier's is on file. */
export function netOf(
  need: Pick<NeedView, 'currency' | 'rate'>,
  base: number,
  price: Price,
  currency: string,
): number | null {
  const net = lineNet(base, price, need.currency);
  if (need.currency === currency) return net;
  return need.rate && convert(net, need.currency, fraction(BigInt(need.rate.num), BigInt(need.rate.den)), currency);
}
