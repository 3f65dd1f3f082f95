import { type Actor, may, type Right } from '@/core/people';
import { err, ok, type Result } from '@/core/result';
import { upsertView } from '@/data/repositories/views';
import { command, type Request } from '../command';
import type { Deps } from '../deps';
import { type Failure, invalidField } from '../failure';

/** Lists whose views can be kept, with the right to see them. */
export const viewPages = {
  items: 'stock.read',
  suppliers: 'orders.read',
  policies: 'needs.read',
  promises: 'promises.read',
  needs: 'needs.read',
  orders: 'orders.read',
} as const satisfies Record<string, Right>;
export type ViewPage = keyof typeof viewPages;

/** A list as it stands (the query of its address) under a name; `shared` shows it to others. The same name again replaces it. */
export type SaveView = {
  readonly page: ViewPage;
  readonly name: string;
  readonly query: string;
  readonly shared: boolean;
};

/** Errors: forbidden, invalid_field name. */
export async function saveView(deps: Deps, actor: Actor, request: Request<SaveView>): Promise<Result<null, Failure>> {
  const { page, query, shared } = request.input;
  const allowed = may(actor, viewPages[page]);
  if (!allowed.ok) return allowed;
  const name = request.input.name.trim();
  if (name === '') return err(invalidField('name', { kind: 'name_missing' }));
  return command(deps, actor, 'save-view', request, async (tx) => {
    await upsertView(tx, { userId: actor.userId, page, name, query, shared: shared ? 1 : 0 });
    return ok(null);
  });
}
