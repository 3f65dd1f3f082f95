import { type Actor, may } from '@/core/people';
import { err, ok, type Result } from '@/core/result';
import type { CostOrder } from '@/core/sourcing';
import { recordChanges } from '@/data/repositories/bookkeeping';
import { lockCompanyTerms, updateCompanyTerms } from '@/data/repositories/company';
import { command, type Request } from '../command';
import type { Deps } from '../deps';
import { type Failure, invalidField } from '../failure';

export type CompanyTerms = {
  readonly name: string;
  readonly invoiceAddress: string;
  readonly costOrder: CostOrder;
  readonly itemPrefix: string;
  readonly mailFrom: string;
};

/** What is said of the company as a whole; `was` is what the person saw.
 *  Errors: forbidden, invalid_field name, changed_meanwhile. */
export async function setCompany(
  deps: Deps,
  actor: Actor,
  request: Request<CompanyTerms & { readonly was: CompanyTerms }>,
): Promise<Result<null, Failure>> {
  const allowed = may(actor, 'setup.edit');
  if (!allowed.ok) return allowed;
  const { was, ...said } = request.input;
  const terms = { ...said, name: said.name.trim(), itemPrefix: said.itemPrefix.trim() };
  if (terms.name === '') return err(invalidField('name', { kind: 'name_missing' }));
  return command(deps, actor, 'set-company', request, async (tx, now) => {
    const had = await lockCompanyTerms(tx);
    const keys = Object.keys(had) as (keyof CompanyTerms)[];
    if (keys.some((k) => had[k] !== was[k]))
      return err({ kind: 'changed_meanwhile', what: 'record', who: null, now: null });
    await updateCompanyTerms(tx, terms);
    await recordChanges(tx, actor.userId, now, [
      { entity: 'company', entityId: 1, action: 'changed', before: had, after: terms },
    ]);
    return ok(null);
  });
}
