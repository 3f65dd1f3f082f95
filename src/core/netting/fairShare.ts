import type { Quantity } from '@/core/quantity';

/** A place that asks, with what it has and uses. Units: millionths. */
export type Claim = { readonly asked: Quantity; readonly stock: Quantity; readonly perDay: Quantity };

/** What each place gets when its source cannot send everything: step by step (a pack, a piece) to whoever has the fewest days
 *  of cover by then, nobody more than asked for; places without use come last and share evenly. What is less than a step stays.
 *  Errors: throws RangeError for a step of 0 or less.
 *  Source: common practice (fair-share allocation of a distribution network).
 *  @example 10 pieces for two that ask for 10 each, with 0 and 5 in stock, both 1 a day → 7 and 3 (7 and 8 days) */
export function fairShare(available: Quantity, claims: readonly Claim[], step: Quantity): Quantity[] {
  if (step <= 0) throw new RangeError('a step must be positive');
  const given = claims.map(() => 0);
  const cover = (i: number) => {
    const { stock, perDay } = claims[i] as Claim;
    return perDay > 0 ? (stock + (given[i] as number)) / perDay : Number.POSITIVE_INFINITY;
  };
  for (let left = available; ; ) {
    let next = -1;
    for (const [i, c] of claims.entries()) {
      if ((given[i] as number) >= c.asked) continue;
      const before = next === -1 ? 0 : cover(i) - cover(next) || (given[i] as number) - (given[next] as number);
      if (next === -1 || before < 0) next = i;
    }
    if (next === -1) return given;
    const piece = Math.min(step, (claims[next] as Claim).asked - (given[next] as number));
    if (piece > left) return given;
    given[next] = (given[next] as number) + piece;
    left -= piece;
  }
}
