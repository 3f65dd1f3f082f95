import type { Quantity } from '@/core/quantity';
import { netRequirement } from './netRequirement';
import { type PositionParts, position } from './position';
import { type OrderRule, roundOrder, silences } from './roundOrder';
import { type MinMax, refillLevel } from './suggest';

export type TermLabel = 'refill_to_max' | 'refill_to_min' | 'on_hand' | 'blocked' | 'on_the_way' | 'in_trays' | 'owed';

/** One line of the sum, as on paper. `quantity` is printed unsigned beside its operator. */
export type Term = { readonly label: TermLabel; readonly operator: '+' | '-'; readonly quantity: Quantity };

export type StepLabel = 'supplier_minimum' | 'whole_packs';
export type Step = { readonly label: StepLabel; readonly quantity: Quantity; readonly added: Quantity };

/** How a suggested quantity came about: the terms add up to `toBuy`; each step then says what rounding made of it. */
export type Reckoning = {
  readonly terms: readonly Term[];
  readonly position: Quantity;
  readonly level: Quantity;
  readonly trigger: MinMax['trigger'];
  readonly toBuy: Quantity;
  readonly steps: readonly Step[];
  readonly quantity: Quantity;
  readonly packMicro: Quantity;
  readonly multiplePacks: number;
};

const term = (label: TermLabel, sign: 1 | -1, quantity: Quantity): Term => ({
  label,
  operator: sign * Math.sign(quantity || 1) > 0 ? '+' : '-',
  quantity: Math.abs(quantity),
});

/** The reckoning of a min/max need. The same functions as in the need run, so sum and stored figure cannot differ.
 *  Every term is there also when it is zero; what the interface leaves out is its own affair. */
export function reckon(parts: PositionParts, policy: MinMax, rule: OrderRule): Reckoning {
  const to = refillLevel(policy);
  const here = position(parts);
  const toBuy = netRequirement(here, policy.min, to, policy.trigger);
  const quantity = roundOrder(toBuy, rule, silences(here, policy.min, policy.trigger === 'at_or_below'));
  const steps: Step[] = [];
  const lifted = Math.max(toBuy, rule.minimum);
  if (toBuy > 0 && lifted > toBuy) steps.push({ label: 'supplier_minimum', quantity: lifted, added: lifted - toBuy });
  if (toBuy > 0 && rule.mode !== 'none') steps.push({ label: 'whole_packs', quantity, added: quantity - lifted });
  return {
    terms: [
      term(policy.refill === 'up_to_min' ? 'refill_to_min' : 'refill_to_max', 1, to),
      term('on_hand', -1, parts.onHand),
      term('blocked', 1, parts.blocked),
      term('on_the_way', -1, parts.onTheWay),
      term('in_trays', -1, parts.inTrays),
      term('owed', 1, parts.owed),
    ],
    position: here,
    level: policy.min,
    trigger: policy.trigger,
    toBuy,
    steps,
    quantity,
    packMicro: rule.packMicro,
    multiplePacks: rule.multiplePacks,
  };
}
