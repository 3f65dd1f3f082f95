import { type Actor, may } from '@/core/people';
import { ok, type Result } from '@/core/result';
import { readChanges } from '@/data/repositories/bookkeeping';
import { readCompany } from '@/data/repositories/company';
import { readSnapshot } from '@/data/transaction';
import { type Deps, todayOf } from '../deps';
import type { Failure } from '../failure';

export type BooksView = {
  /** Last closed day; null while none is. */
  readonly closedTo: string | null;
  readonly today: string;
  readonly mayClose: boolean;
  readonly changes: readonly {
    readonly at: string;
    readonly who: string;
    readonly before: string;
    readonly after: string;
  }[];
};

/** To which day the books are closed, and who closed or opened them. Errors: forbidden. */
export async function readBooks(deps: Deps, actor: Actor): Promise<Result<BooksView, Failure>> {
  const allowed = may(actor, 'stock.read');
  if (!allowed.ok) return allowed;
  return readSnapshot(deps.pool, async (tx) => {
    const company = await readCompany(tx);
    const text = (json: string | null) => (json === null ? '' : (JSON.parse(json) as string));
    const changes = (await readChanges(tx, 'company', 1)).filter((c) => c.action === 'books closed to');
    return ok({
      closedTo: company.booksClosedTo,
      today: todayOf(deps, company),
      mayClose: may(actor, 'books.close').ok,
      changes: changes
        .map((c) => ({ at: c.at, who: c.who, before: text(c.before), after: text(c.after) }))
        .reverse()
        .slice(0, 12),
    });
  });
}
