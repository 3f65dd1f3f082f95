import { type Actor, may } from '@/core/people';
import { ok, type Result } from '@/core/result';
import { type OutboxRow, readOutbox } from '@/data/repositories/outbox';
import { readSnapshot } from '@/data/transaction';
import type { Deps } from '../deps';
import type { Failure } from '../failure';

/** Mail that goes out or has gone out, newest first. Errors: forbidden. */
export async function readMail(deps: Deps, actor: Actor): Promise<Result<OutboxRow[], Failure>> {
  const allowed = may(actor, 'orders.read');
  if (!allowed.ok) return allowed;
  return ok(await readSnapshot(deps.pool, (tx) => readOutbox(tx, 100)));
}
