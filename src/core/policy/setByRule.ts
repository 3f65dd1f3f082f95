import { roundToStep } from '@/core/packs';
import { MICRO, type Quantity } from '@/core/quantity';

/** A rule that sets a minimum or maximum for many at once: so many days of average demand, the advised minimum, a factor on
 *  what is there, or the minimum and so many days or packs more. Rounded up to packs, or to whole base units. */
export type SetRule = {
  readonly column: 'min' | 'max';
  readonly basis: 'days_of_demand' | 'advised' | 'factor' | 'min_plus_days' | 'min_plus_packs';
  /** Days, packs, or a factor; not used by the advised minimum. */
  readonly amount: number;
  readonly round: 'packs' | 'units';
};

export type RuleFigures = {
  readonly perDay: Quantity;
  readonly advised: Quantity | null;
  readonly min: Quantity | null;
  readonly max: Quantity | null;
  readonly packMicro: Quantity;
  /** The finest step in which the item is sold. */
  readonly unitMicro: Quantity;
};

/** The value a rule gives for one pair; null where its basis is not there (no demand, no advice, no minimum): such a cell is
 *  left as it is. Rounded up.
 *  @example "min = 10 days of average demand, rounded up to packs": 2.1 a day, bags of 10 → 21 → 30 */
export function setByRule(rule: SetRule, f: RuleFigures): Quantity | null {
  const step = rule.round === 'packs' ? f.packMicro : f.unitMicro;
  const up = (q: number) => (q <= 0 ? 0 : roundToStep(Math.ceil(q - 1e-6), Math.max(1, step), 'up'));
  const days = (q: Quantity) => q * rule.amount;
  switch (rule.basis) {
    case 'days_of_demand':
      return f.perDay > 0 ? up(days(f.perDay)) : null;
    case 'advised':
      return f.advised === null ? null : up(f.advised);
    case 'factor': {
      const now = f[rule.column];
      return now === null ? null : up((now * Math.round(rule.amount * MICRO)) / MICRO);
    }
    case 'min_plus_days':
      return f.min === null || f.perDay <= 0 ? null : up(f.min + days(f.perDay));
    case 'min_plus_packs':
      return f.min === null ? null : up(f.min + rule.amount * f.packMicro);
  }
}
