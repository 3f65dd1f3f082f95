import { checked, type Quantity } from '@/core/quantity';

/** A demand line that is bought for one to one: what was asked for, what lies ready for it, and what has been bought or is
 *  sent for it and is not here yet. In millionths of the base unit. */
export type PeggedDemand = { readonly asked: Quantity; readonly held: Quantity; readonly supply: Quantity };

export type PegBalance = {
  /** What nothing lies ready for. */
  readonly unfilled: Quantity;
  /** Of it, what its own supply covers: demand and supply that no position counts. */
  readonly pegged: Quantity;
  /** What nothing covers: exactly this is to be bought. */
  readonly rest: Quantity;
  /** Supply beyond the line (packs, a minimum): free for everybody. */
  readonly overshoot: Quantity;
};

/** A hard peg: a demand line and its own supply, one to one. unfilled = pegged + rest and supply = pegged + overshoot, so
 *  nothing is covered twice or forgotten. Source: calculations 3. */
export function balancePeg({ asked, held, supply }: PeggedDemand): PegBalance {
  const unfilled = Math.max(0, checked(asked - held));
  const pegged = Math.min(unfilled, supply);
  return { unfilled, pegged, rest: unfilled - pegged, overshoot: supply - pegged };
}
