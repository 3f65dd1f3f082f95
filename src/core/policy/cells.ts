import { entryText, parseQuantity, type Quantity, type QuantityFault } from '@/core/quantity';
import { err, ok, type Result } from '@/core/result';
import { type PolicyField, type PolicySetting, policyKinds } from './setting';

export type CellFault =
  | QuantityFault
  | { readonly kind: 'not_days'; readonly text: string }
  | { readonly kind: 'not_percent'; readonly text: string }
  | { readonly kind: 'not_a_choice'; readonly text: string };

const quantities: ReadonlySet<PolicyField> = new Set(['min', 'max', 'fixed', 'safety', 'displayMin', 'reserve']);
const choices: Readonly<Partial<Record<PolicyField, readonly string[]>>> = {
  kind: policyKinds,
  trigger: ['at_or_below', 'strictly_below'],
  refill: ['up_to_max', 'up_to_min'],
  rounding: ['up', 'nearest', 'none'],
  supply: ['supplier', 'place'],
  targetKind: ['cycle_service', 'fill_rate'],
  useStock: ['yes', 'no'],
  keepSafety: ['yes', 'no'],
};

/** A value of a setting as it stands in a cell; '' where nothing is said. Quantities as they are typed, shares in percent. */
export function cellText<F extends PolicyField>(field: F, value: PolicySetting[F]): string {
  if (value === null) return '';
  if (quantities.has(field)) return entryText(value as Quantity);
  if (field === 'targetThousandths') return String((value as number) / 10);
  return value === true ? 'yes' : value === false ? 'no' : String(value);
}

/** What a cell says; empty = nothing, follow the next wider level.
 *  Errors: those of parseQuantity; not_days (whole days from 1 to 999), not_percent (between 50 and 99.9), not_a_choice. */
export function readCell(field: PolicyField, typed: string): Result<PolicySetting[PolicyField], CellFault> {
  const text = typed.trim();
  if (text === '') return ok(null);
  if (quantities.has(field)) return parseQuantity(text);
  const words = choices[field];
  if (words) {
    if (!words.includes(text)) return err({ kind: 'not_a_choice', text });
    return ok((field === 'useStock' || field === 'keepSafety' ? text === 'yes' : text) as PolicySetting[PolicyField]);
  }
  if (field === 'targetThousandths') {
    const percent = /^\d{2}([.,]\d)?\s*%?$/.test(text) ? Number(text.replace(',', '.').replace('%', '')) : Number.NaN;
    return percent >= 50 && percent <= 99.9 ? ok(Math.round(percent * 10)) : err({ kind: 'not_percent', text });
  }
  const days = /^\d{1,9}$/.test(text) ? Number(text) : Number.NaN;
  const most = field === 'supplyPlace' ? 999_999_999 : 999;
  return days >= 1 && days <= most ? ok(days) : err({ kind: 'not_days', text });
}
