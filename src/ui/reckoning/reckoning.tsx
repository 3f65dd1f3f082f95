import type { ReactNode } from 'react';
import type { Reckoning as Sum, TermLabel } from '@/core/netting';
import { type Format, plural } from '../format';

const labels: Readonly<Record<TermLabel, string>> = {
  refill_to_max: 'Refill to maximum',
  refill_to_min: 'Refill to minimum',
  on_hand: 'On hand',
  blocked: 'Blocked',
  on_the_way: 'On the way',
  in_trays: 'In trays and drafts',
  owed: 'Owed by the horizon',
  planned: 'For places sent to from here',
  reorder_point: 'Reorder point',
  display_min: 'On display',
  lead_time_demand: 'Sold in the lead time',
  safety_stock: 'Safety stock',
  undershoot: 'Undershoot of a daily look',
  cover_demand: 'Cover beyond it',
  to_whole: 'Up to what can be sold',
  asked_in_window: 'Asked for until then',
  safety_floor: 'Safety stock',
  asked_one_to_one: 'Asked for on this line',
  lies_ready: 'Lies ready for it',
  bought_for_it: 'Bought for it, on the way',
  by_hand: 'Asked for by hand',
};

/** Terms that say what a level is made of: there even when something is 0. */
const always: readonly TermLabel[] = [
  'refill_to_max',
  'refill_to_min',
  'reorder_point',
  'on_hand',
  'on_the_way',
  'asked_one_to_one',
];

/** One line of a sum as on paper: operator, what it is and where it comes from, figure. */
export function SumLine({
  operator = '',
  label,
  origin,
  figure,
  result = false,
}: {
  operator?: string;
  label: ReactNode;
  origin?: ReactNode;
  figure: ReactNode;
  result?: boolean;
}) {
  return (
    <div className="grid grid-cols-[14px_1fr_auto] items-baseline gap-x-0 py-[2.5px]">
      <span className="text-muted" aria-hidden={operator === ''}>
        {operator}
      </span>
      <span>
        <span className={result ? 'font-semibold' : ''}>{label}</span>
        {origin && <span className="second block">{origin}</span>}
      </span>
      <span className={`figure min-w-16 font-semibold ${result ? 'border-t border-ink pt-0.5' : ''}`}>{figure}</span>
    </div>
  );
}

/** What is needed before packs round it: of a fixed quantity its multiples. */
export const neededOf = (sum: Sum): number =>
  sum.kind === 'fixed_quantity' ? (sum.steps.find((s) => s.label === 'fixed_multiples')?.quantity ?? 0) : sum.toBuy;

/** The sum behind a suggested quantity: terms that add up, then what rounding made of it. Blocked and owed show when
 *  they are not zero. */
export function ReckoningSum({
  sum,
  format,
  origins,
  unit,
  packName,
  sent = false,
  worth,
}: {
  sum: Sum;
  format: Format;
  origins: Partial<Record<TermLabel, ReactNode>>;
  unit: string;
  packName: string;
  /** Sent over from another of our places, not bought. */
  sent?: boolean;
  /** What a quantity costs at the price shown, as money; null without a price. */
  worth?: (quantity: number) => string | null;
}) {
  const terms = sum.terms.filter((t) => t.quantity !== 0 || always.includes(t.label));
  const rule = sum.trigger === 'at_or_below' ? 'at or below' : 'strictly below';
  const quiet = sum.quantity === 0;
  const nothing = sent ? 'Nothing to send' : 'Nothing to buy';
  const level =
    sum.kind === 'fixed_quantity' ? 'reorder point' : sum.kind === 'periodic' ? 'order-up-to level' : 'minimum';
  return (
    <>
      {terms.map((t, i) => (
        <SumLine
          key={t.label}
          operator={i === 0 ? '' : t.operator === '+' ? '+' : '−'}
          label={t.label === 'on_hand' && t.operator === '+' ? 'On hand, below zero' : labels[t.label]}
          origin={
            t.over && t.over.perDay > 0
              ? `${format.quantity(t.over.perDay)} a day × ${format.days(t.over.days)}`
              : origins[t.label]
          }
          figure={t.quantity === 0 ? '–' : format.quantity(t.quantity)}
        />
      ))}
      {quiet ? (
        <p className="second mt-1 pl-3.5">
          {sum.kind === 'per_demand'
            ? `${nothing}: the line is covered.`
            : sum.kind === 'lot_for_lot'
              ? `${nothing}: projected stock stays above ${format.quantity(sum.level)}.`
              : `${nothing}: position ${format.quantity(sum.position)} is above ${level} ${format.quantity(sum.level)}.`}
        </p>
      ) : (
        <>
          <SumLine
            label={sum.kind === 'fixed_quantity' ? 'Missing to the point' : sent ? 'To send' : 'To buy'}
            origin={
              sum.kind === 'per_demand'
                ? 'exactly the line, one to one'
                : sum.day !== null
                  ? `stock falls below ${format.quantity(sum.level)} ${sum.day === 0 ? 'today' : `in ${format.days(sum.day)}`}`
                  : `position ${format.quantity(sum.position)} is ${rule} ${level} ${format.quantity(sum.level)}`
            }
            figure={format.quantity(sum.toBuy)}
            result
          />
          {sum.steps.map((step) => (
            <SumLine
              key={step.label}
              label={
                step.label === 'fixed_multiples'
                  ? `Order quantity, ${step.times === 1 ? 'once' : `${step.times} times`}`
                  : step.label === 'supplier_minimum'
                    ? 'Supplier’s least quantity'
                    : sum.packMicro === 1_000_000
                      ? `Whole ${plural(unit, 2_000_000)}`
                      : `Whole ${plural(packName, 2_000_000)} of ${format.quantity(sum.packMicro)}`
              }
              origin={
                step.added === 0
                  ? 'fits exactly'
                  : [`${format.quantity(step.added)} ${plural(unit, step.added)} more than needed`, worth?.(step.added)]
                      .filter(Boolean)
                      .join(', ')
              }
              figure={format.quantity(step.quantity)}
            />
          ))}
        </>
      )}
    </>
  );
}
