import { type Actor, may } from '@/core/people';
import { ok, type Result } from '@/core/result';
import { readReasons } from '@/data/repositories/movements';
import { readSnapshot } from '@/data/transaction';
import type { Deps } from '../deps';
import type { Failure } from '../failure';

/** Why stock may be put right. Errors: forbidden. */
export async function readStockReasons(
  deps: Deps,
  actor: Actor,
): Promise<Result<readonly { readonly id: number; readonly name: string }[], Failure>> {
  const allowed = may(actor, 'stock.read');
  if (!allowed.ok) return allowed;
  return ok(await readSnapshot(deps.pool, readReasons));
}
