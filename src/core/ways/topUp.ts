import type { Minor } from '@/core/money';

/** Something that could be bought now instead of later: whole packs of one item. Amounts are net, in minor units. */
export type EarlyBuy = {
  readonly key: string;
  readonly packAmount: Minor;
  /** Packs that will be needed anyway in the time looked at. */
  readonly mostPacks: number;
  /** Days until the first of them would be bought anyway, and days that a pack lasts. */
  readonly neededInDays: number;
  readonly packLastsDays: number;
};

export type TopUp = {
  readonly buys: readonly {
    readonly key: string;
    readonly packs: number;
    readonly amount: Minor;
    readonly holding: number;
  }[];
  /** What the tray has more by it. */
  readonly amount: Minor;
  /** What holding them until they are needed costs. */
  readonly holding: number;
  readonly saving: Minor;
  /** Saving less holding: worth it above 0. */
  readonly gain: number;
  readonly worthIt: boolean;
};

const DAYS_A_YEAR = 365;

/** What holding one more pack costs, the n-th of its item counted from 0: it is needed once those before it are used up. */
const holdingOf = (c: EarlyBuy, n: number, rate: number): number =>
  (c.packAmount * rate * (c.neededInDays + n * c.packLastsDays)) / DAYS_A_YEAR;

/** The cheapest way found to bring a tray up to an amount by buying early: packs by the holding cost of what they add, then
 *  those that turn out not to be needed are put back, the dearest first. Null when all candidates together do not reach it.
 *  Units: minor units of one currency; `rate` = carrying cost of a year as a share (0.2 = 20 %).
 *  Never dearer than the best by more than the holding of one pack (a covering knapsack, filled greedily).
 *  Source: calculations 6; common practice (forward buying to reach a minimum or free freight). */
export function topUp(missing: Minor, saving: Minor, candidates: readonly EarlyBuy[], rate: number): TopUp | null {
  const packs = candidates.flatMap((c, i) =>
    Array.from({ length: c.packAmount > 0 ? c.mostPacks : 0 }, (_, n) => ({
      ...{ i, n, amount: c.packAmount, holding: holdingOf(c, n, rate) },
    })),
  );
  packs.sort((a, b) => a.holding / a.amount - b.holding / b.amount || a.i - b.i || a.n - b.n);
  const taken = candidates.map(() => 0);
  let amount = 0;
  for (const p of packs) {
    if (amount >= missing) break;
    taken[p.i] = (taken[p.i] as number) + 1;
    amount += p.amount;
  }
  if (amount < missing) return null;
  // The last pack of an item is the one that waits longest: only those can be put back.
  for (;;) {
    const over = amount - missing;
    const loose = candidates
      .map((c, i) => ({ i, amount: c.packAmount, holding: holdingOf(c, (taken[i] as number) - 1, rate) }))
      .filter(({ i, amount: a }) => (taken[i] as number) > 0 && a <= over)
      .sort((a, b) => b.holding - a.holding || a.i - b.i)[0];
    if (!loose) break;
    taken[loose.i] = (taken[loose.i] as number) - 1;
    amount -= loose.amount;
  }
  const buys = candidates.flatMap((c, i) => {
    const n = taken[i] as number;
    if (n === 0) return [];
    const holding = Array.from({ length: n }, (_, k) => holdingOf(c, k, rate)).reduce((a, h) => a + h, 0);
    return [{ key: c.key, packs: n, amount: n * c.packAmount, holding }];
  });
  const holding = buys.reduce((a, b) => a + b.holding, 0);
  return { buys, amount, holding, saving, gain: saving - holding, worthIt: saving > holding };
}
