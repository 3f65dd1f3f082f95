import { allocate, type Minor } from '@/core/money';
import { err, ok, type Result } from '@/core/result';
import { decimalFraction, fraction } from '@/core/units';

/** Where the cost of a line goes: an account, the department or project that it is for ('' = none), and its share in percent. */
export type CostShare = { readonly account: string; readonly department: string; readonly percent: string };
export type CostShareFault =
  | { readonly kind: 'no_account'; readonly text: string }
  | { readonly kind: 'shares_not_whole'; readonly sum: string };

/** Accounts with their shares as typed: parts parted by commas, each an account, words for the department or project, and a
 *  percentage; of a single one it may be left away. The shares add up to 100.
 *  Errors: no_account (a part that does not begin with one), shares_not_whole.
 *  @example parseCostShares('3400')                        // [{ account: '3400', department: '', percent: '100' }]
 *  @example parseCostShares('3400 60, 4930 window 40 %')   // two shares */
export function parseCostShares(typed: string): Result<CostShare[], CostShareFault> {
  const parts = typed.split(/[,;]/).flatMap((t) => t.trim() || []);
  const shares: CostShare[] = [];
  for (const part of parts) {
    const m = /^(\d[\w.-]{0,19})(?:\s+(.*?))??(?:\s+(\d{1,3}(?:\.\d{1,3})?)\s*%?)?$/.exec(part);
    if (!m) return err({ kind: 'no_account', text: part });
    const percent = m[3] ?? (parts.length === 1 ? '100' : '0');
    shares.push({ account: m[1] as string, department: (m[2] ?? '').trim(), percent });
  }
  const sum = shares.reduce((a, s) => a + Math.round(Number(s.percent) * 1000), 0);
  if (shares.length > 0 && (sum !== 100_000 || shares.some((s) => Number(s.percent) === 0)))
    return err({ kind: 'shares_not_whole', sum: String(sum / 1000) });
  return ok(shares);
}

/** Shares as they are kept and shown. @example costSharesText([{ account: '3400', department: '', percent: '100' }])  // '3400' */
export const costSharesText = (shares: readonly CostShare[]): string =>
  shares
    .map((s) => [s.account, s.department, ...(shares.length === 1 ? [] : [`${s.percent} %`])].filter(Boolean).join(' '))
    .join(', ');

/** A sum of money over its shares, to the last minor unit. Units: minor units. */
export const costByShare = (net: Minor, shares: readonly CostShare[]): Minor[] =>
  shares.length === 0
    ? []
    : allocate(
        net,
        shares.map((s) => (shares.length === 1 ? fraction(1) : decimalFraction(s.percent))),
      );
