import { type Actor, may } from '@/core/people';
import { err, ok, type Result } from '@/core/result';
import type { Conventions } from '@/core/sheets';
import { readTerms } from '@/data/repositories/company';
import { readSnapshot } from '@/data/transaction';
import type { Deps } from '../deps';
import type { Failure } from '../failure';
import { sheetKinds } from '../sheets/kinds';
import { maySheet } from '../sheets/lockOwn';
import { type RecordsView, recordsIn } from '../sheets/readRecords';
import type { SheetName } from '../sheets/sheetKind';
import type { CompanyTerms } from './setCompany';

/** Pages of Setup that are lists of records, with the kinds they show. */
export const setupLists = {
  locations: ['locations'],
  calendar: ['holidays'],
  categories: ['categories'],
  charges: ['charges', 'duty-rates', 'tax-rates'],
  rates: ['rates'],
  shipping: ['shipping-ways'],
  patterns: ['pack-patterns'],
  planning: ['policy-defaults'],
  budgets: ['budgets'],
  jobs: ['job-materials'],
  reasons: ['reasons'],
} as const satisfies Record<string, readonly SheetName[]>;
export type SetupList = keyof typeof setupLists;
export const isSetupList = (name: string): name is SetupList => Object.hasOwn(setupLists, name);

export type SetupRecords = {
  readonly list: SetupList;
  readonly views: readonly RecordsView[];
  readonly rateFile: boolean;
};

/** The records of a page of Setup. Whoever may not change them may still look, as far as they may see stock.
 *  Errors: forbidden, not_found. */
export async function readSetupList(
  deps: Deps,
  actor: Actor,
  list: string,
  decimal: Conventions['decimal'],
): Promise<Result<SetupRecords, Failure>> {
  const allowed = may(actor, 'stock.read');
  if (!allowed.ok) return allowed;
  if (!isSetupList(list)) return err({ kind: 'not_found', what: 'template' });
  return readSnapshot(deps.pool, async (tx) => {
    const views: RecordsView[] = [];
    for (const name of setupLists[list]) {
      const kind = sheetKinds[name];
      // Charges of suppliers stand with them; here are those of no supplier.
      const which = name === 'charges' ? ({ of: 'supplier', is: '' } as const) : ('all' as const);
      views.push({ ...(await recordsIn(tx, kind, which, decimal)), may: maySheet(actor, kind).ok });
    }
    return ok({ list, views, rateFile: (process.env.VORRAT_RATES_URL ?? '') !== '' });
  });
}

/** What is said of the company as a whole. Errors: forbidden. */
export async function readCompanyTerms(
  deps: Deps,
  actor: Actor,
): Promise<Result<{ terms: CompanyTerms; may: boolean }, Failure>> {
  const allowed = may(actor, 'stock.read');
  if (!allowed.ok) return allowed;
  const terms = await readSnapshot(deps.pool, readTerms);
  return ok({ terms, may: may(actor, 'setup.edit').ok });
}
