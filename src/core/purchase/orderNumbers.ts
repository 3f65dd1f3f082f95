import type { BusinessDate } from '@/core/calendar';
import { err, ok, type Result } from '@/core/result';

/** How numbers of orders are made: letters and signs as they are, YYYY or YY and MM of the day of approval, one run of # for the running
 *  number, which has at least so many digits. It begins anew with each month where MM is there, with each year where only the year is. */
export type NumberPattern = string & { readonly __pattern: true };
export type NumberPatternFault = {
  readonly kind: 'not_a_number_pattern';
  readonly text: string;
  readonly because: 'no_run' | 'sign' | 'length' | 'month_alone';
};

export const USUAL_PATTERN = 'YYMM-####' as NumberPattern;

/** A pattern as typed. Errors: not_a_number_pattern: not exactly one run of #, a sign that no number has, more than 24 signs, or a month
 *  without its year (numbers would come again after a year).
 *  @example parseNumberPattern('PO-YY-#####') */
export function parseNumberPattern(typed: string): Result<NumberPattern, NumberPatternFault> {
  const text = typed.trim();
  const fault = (because: NumberPatternFault['because']) =>
    err({ kind: 'not_a_number_pattern' as const, text, because });
  if ((text.match(/#+/g) ?? []).length !== 1 || /#{10,}/.test(text)) return fault('no_run');
  if (!/^[A-Za-z0-9#/._-]+$/.test(text)) return fault('sign');
  if (text.length > 24) return fault('length');
  if (text.includes('MM') && !text.includes('YY')) return fault('month_alone');
  return ok(text as NumberPattern);
}

/** What the running number is counted within, for a day: a month, a year, or '' for all time.
 *  @example numberSeries(USUAL_PATTERN, '2026-11-23')  // '2611' */
export const numberSeries = (pattern: NumberPattern, day: BusinessDate): string =>
  pattern.includes('MM') ? day.slice(2, 4) + day.slice(5, 7) : pattern.includes('YY') ? day.slice(2, 4) : '';

/** The n-th number of its series. @example numberOf(USUAL_PATTERN, '2026-11-23', 47)  // '2611-0047' */
export const numberOf = (pattern: NumberPattern, day: BusinessDate, n: number): string =>
  pattern
    .replace(/YYYY|YY/g, (y) => (y.length === 4 ? day.slice(0, 4) : day.slice(2, 4)))
    .replaceAll('MM', day.slice(5, 7))
    .replace(/#+/, (run) => String(n).padStart(run.length, '0'));

/** Whether a number is of the pattern, whatever the day: such a one is drawn and can't be typed. */
export function isOfPattern(pattern: NumberPattern, number: string): boolean {
  const parts = pattern.split(/(YYYY|YY|MM|#+)/).map((p) => {
    if (p === 'YYYY') return '\\d{4}';
    if (p === 'YY' || p === 'MM') return '\\d{2}';
    return p.startsWith('#') ? `\\d{${p.length},}` : p.replace(/[./-]/g, '\\$&');
  });
  return new RegExp(`^${parts.join('')}$`).test(number);
}
