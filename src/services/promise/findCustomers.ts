import { type Actor, may } from '@/core/people';
import { ok, type Result } from '@/core/result';
import { type CustomerRow, findCustomersLike } from '@/data/repositories/customerOrders';
import { readSnapshot } from '@/data/transaction';
import type { Deps } from '../deps';
import type { Failure } from '../failure';

const MOST = 7;

/** Customers whose name or mail holds what was typed. Errors: forbidden. */
export async function findCustomers(
  deps: Deps,
  actor: Actor,
  text: string,
): Promise<Result<readonly CustomerRow[], Failure>> {
  const allowed = may(actor, 'promises.read');
  if (!allowed.ok) return allowed;
  const typed = text.trim();
  return typed.length < 2
    ? ok([])
    : readSnapshot(deps.pool, async (tx) => ok(await findCustomersLike(tx, typed, MOST)));
}
