import type { Price } from '@/core/money';
import { priceAt } from '@/core/sourcing';
import { fraction } from '@/core/units';
import type { NeedView } from '@/services/planning/readNeeds';

/** The list price of a need's source for a number of packs (millionths) on a day, breaks included; null without one. The
 *  order prices again, over all needs that come to stand on one line. */
export function priceOf(need: Pick<NeedView, 'prices'>, packs: number, on: string): Price | null {
  const step = priceAt(need.prices, packs, on);
  if (!step) return null;
  const { amount, perQuantity, content } = step;
  return { amount, perQuantity, packContent: fraction(BigInt(content.num), BigInt(content.den)) };
}
