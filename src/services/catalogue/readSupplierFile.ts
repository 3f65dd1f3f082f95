import { type Actor, may } from '@/core/people';
import { err, ok, type Result } from '@/core/result';
import type { Conventions } from '@/core/sheets';
import { type ChangeLine, readChangesOf } from '@/data/repositories/changes';
import { readCompany } from '@/data/repositories/company';
import { readSupplierTerms, type SupplierTerms } from '@/data/repositories/suppliers';
import { readSnapshot } from '@/data/transaction';
import type { Deps } from '../deps';
import type { Failure } from '../failure';
import { sheetKinds } from '../sheets/kinds';
import { maySheet } from '../sheets/lockOwn';
import { type RecordsView, recordsIn } from '../sheets/readRecords';
import type { SheetName } from '../sheets/sheetKind';

export type SupplierFile = {
  readonly terms: SupplierTerms;
  readonly records: Readonly<Partial<Record<SheetName, RecordsView>>>;
  readonly changes: readonly ChangeLine[];
  readonly timeZone: string;
};

const kinds = [
  'contacts',
  'closures',
  'charges',
  'sources',
  'prices',
  'source-places',
] as const satisfies readonly SheetName[];

/** Everything on file of a supplier, each part with what its form needs, and who changed what.
 *  Errors: forbidden, not_found. */
export async function readSupplierFile(
  deps: Deps,
  actor: Actor,
  supplierId: number,
  decimal: Conventions['decimal'],
): Promise<Result<SupplierFile, Failure>> {
  const allowed = may(actor, 'orders.read');
  if (!allowed.ok) return allowed;
  return readSnapshot<Result<SupplierFile, Failure>>(deps.pool, async (tx) => {
    const terms = await readSupplierTerms(tx, supplierId);
    if (!terms) return err({ kind: 'not_found', what: 'supplier' });
    const own = await recordsIn(tx, sheetKinds.suppliers, { key: { code: terms.code } }, decimal);
    const records: Partial<Record<SheetName, RecordsView>> = {
      suppliers: { ...own, may: maySheet(actor, sheetKinds.suppliers).ok },
    };
    for (const name of kinds) {
      const view = await recordsIn(tx, sheetKinds[name], { of: 'supplier', is: terms.code }, decimal);
      records[name] = { ...view, may: maySheet(actor, sheetKinds[name]).ok };
    }
    const changes = may(actor, 'changes.read').ok ? await readChangesOf(tx, ['supplier'], supplierId, 100) : [];
    return ok({ terms, records, changes, timeZone: (await readCompany(tx)).timeZone });
  });
}
