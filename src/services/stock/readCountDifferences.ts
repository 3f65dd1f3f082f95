import { isDate } from '@/core/calendar';
import { type Actor, may } from '@/core/people';
import { fromDecimal, type Quantity } from '@/core/quantity';
import { ok, type Result } from '@/core/result';
import { readCompany } from '@/data/repositories/company';
import { type CountGroup, readDifferences } from '@/data/repositories/counts';
import { readSnapshot } from '@/data/transaction';
import { type Deps, todayOf } from '../deps';
import type { Failure } from '../failure';

export const differenceGroups = ['item', 'place', 'reason', 'month'] as const satisfies readonly CountGroup[];
export type DifferencesAsked = {
  readonly by: CountGroup;
  readonly from: string;
  readonly to: string;
  readonly locationId: number | null;
};

export type DifferenceLine = {
  readonly id: number | null;
  readonly name: string | null;
  readonly number: string | null;
  readonly unit: string | null;
  readonly counted: number;
  readonly differing: number;
  /** Base units; null where different items stand together. */
  readonly more: Quantity | null;
  readonly less: Quantity | null;
  readonly used: Quantity | null;
  readonly moreValue: number;
  readonly lessValue: number;
  readonly usedValue: number;
};

export type DifferencesView = {
  readonly rows: readonly DifferenceLine[];
  readonly sum: { readonly moreValue: number; readonly lessValue: number; readonly usedValue: number };
  readonly currency: string;
  readonly today: string;
};

/** What counts found over a span of business days ('' = open), in quantity and money, by item, place, reason or month; use
 *  that nobody recorded stands apart, it is no loss. Errors: forbidden. */
export async function readCountDifferences(
  deps: Deps,
  actor: Actor,
  asked: DifferencesAsked,
): Promise<Result<DifferencesView, Failure>> {
  const { locationId, by } = asked;
  const allowed = may(actor, 'stock.read', locationId === null ? {} : { locationIds: [locationId] });
  if (!allowed.ok) return allowed;
  return readSnapshot(deps.pool, async (tx) => {
    const company = await readCompany(tx);
    const day = (text: string) => (isDate(text) ? text : '');
    const at = locationId === null ? actor.locations : [locationId];
    const found = await readDifferences(tx, by, { from: day(asked.from), to: day(asked.to) }, at);
    const q = (text: string) => (by === 'item' ? fromDecimal(text) : null);
    const rows = found.map((r) => ({
      ...r,
      ...{ counted: Number(r.counted), differing: Number(r.differing) },
      ...{ more: q(r.more), less: q(r.less), used: q(r.used) },
      ...{ moreValue: Number(r.moreValue), lessValue: Number(r.lessValue), usedValue: Number(r.usedValue) },
    }));
    const sumOf = (key: 'moreValue' | 'lessValue' | 'usedValue') => rows.reduce((a, r) => a + r[key], 0);
    return ok({
      rows,
      sum: { moreValue: sumOf('moreValue'), lessValue: sumOf('lessValue'), usedValue: sumOf('usedValue') },
      currency: company.currency,
      today: todayOf(deps, company),
    });
  });
}
