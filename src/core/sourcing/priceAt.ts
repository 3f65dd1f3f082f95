import { decimalFraction, divideHalfUp } from '@/core/units';

/** A price step of a source: `amount` for `perQuantity` packs, from `fromPacks` packs on (millionths), while valid. */
export type PriceStep = {
  readonly fromPacks: number;
  readonly validFrom: string;
  readonly validTo: string | null;
  readonly amount: string;
  readonly perQuantity: string;
  readonly packId: number | null;
};

/** The price in force at a quantity on a date: the step with the greatest `fromPacks` not above the quantity; of two valid
 *  ones at the same step the later list. Null when there is none: a missing price is never taken for zero.
 *  Source: common practice (all-units quantity break). */
export function priceAt<T extends PriceStep>(steps: readonly T[], packs: number, on: string): T | null {
  let best: T | null = null;
  for (const step of steps) {
    if (step.fromPacks > packs || step.validFrom > on || (step.validTo !== null && step.validTo < on)) continue;
    const better =
      best === null ||
      step.fromPacks > best.fromPacks ||
      (step.fromPacks === best.fromPacks && step.validFrom > best.validFrom);
    if (better) best = step;
  }
  return best;
}

/** A price amount less its discount, at six decimals, rounded half up.
 *  @example discounted('24.50', '12.5')  // '21.4375' */
export function discounted(amount: string, percent: string): string {
  const [a, p] = [decimalFraction(amount), decimalFraction(percent)];
  const net = divideHalfUp(a.num * (100n * p.den - p.num) * 1_000_000n, a.den * 100n * p.den);
  const digits = String(net).padStart(7, '0');
  return `${digits.slice(0, -6)}.${digits.slice(-6)}`.replace(/\.?0+$/, '');
}

export type RankedSource = { readonly id: number; readonly preference: number; readonly supplierActive: boolean };

/** The source a suggestion buys from: the most preferred one whose supplier is active, else the most preferred; null
 *  when the item has none. Ties go to the older source. */
export function preferredSource<T extends RankedSource>(sources: readonly T[]): T | null {
  const ranked = [...sources].sort(
    (a, b) => Number(b.supplierActive) - Number(a.supplierActive) || a.preference - b.preference || a.id - b.id,
  );
  return ranked[0] ?? null;
}
