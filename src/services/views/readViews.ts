import { type Actor, may } from '@/core/people';
import { ok, type Result } from '@/core/result';
import { readViews as readViewRows } from '@/data/repositories/views';
import { readSnapshot } from '@/data/transaction';
import type { Deps } from '../deps';
import type { Failure } from '../failure';
import { type ViewPage, viewPages } from './saveView';

export type ViewLink = {
  readonly id: number;
  readonly name: string;
  readonly query: string;
  readonly shared: boolean;
  readonly own: boolean;
  readonly who: string;
};

/** Views of a list: one's own, then those that others share. Errors: forbidden. */
export async function readViews(deps: Deps, actor: Actor, page: ViewPage): Promise<Result<ViewLink[], Failure>> {
  const allowed = may(actor, viewPages[page]);
  if (!allowed.ok) return allowed;
  const rows = await readSnapshot(deps.pool, (tx) => readViewRows(tx, page, actor.userId));
  return ok(
    rows.map(({ id, name, query, shared, userId, who }) => ({
      ...{ id, name, query, shared: shared === 1, own: userId === actor.userId, who },
    })),
  );
}
