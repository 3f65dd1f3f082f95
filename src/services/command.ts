import { createHash } from 'node:crypto';
import type { Actor } from '@/core/people';
import { err, type Result } from '@/core/result';
import { claimKey, storeResult } from '@/data/repositories/bookkeeping';
import type { Pair } from '@/data/repositories/levels';
import type { Tx } from '@/data/sql';
import { write } from '@/data/transaction';
import { type Deps, stamp } from './deps';
import type { Failure } from './failure';
import { pairMap } from './grouping';
import { BEFORE_ANSWER, recomputeDirty } from './planning/recompute';
import { leaveToWorker } from './work/leaveToWorker';

/** A command as a client sends it: the key makes a repetition harmless, the input is what it is about. */
export type Request<I> = { readonly key: string; readonly input: I };

/** Runs a command once per key, in one transaction; then brings the needs it marked up to date in a second one, up to 200
 *  pairs; more are a job for the worker, noted in the command's own transaction. The same key with the
 *  same input gives the stored result again; with another input it is refused. A crash between the two transactions
 *  leaves the marks, and the next recomputation takes them. */
export async function command<I, T>(
  deps: Deps,
  actor: Actor,
  name: string,
  request: Request<I>,
  body: (tx: Tx, now: string) => Promise<Result<T, Failure>>,
): Promise<Result<T, Failure>> {
  const payloadHash = createHash('sha256')
    .update(`${name} ${JSON.stringify(request.input)}`)
    .digest();
  let marked: readonly Pair[] = [];
  const result = await write<T, Failure>(deps.pool, async (tx) => {
    marked = [];
    const now = stamp(deps.clock());
    const { key } = request;
    const earlier = await claimKey(tx, { userId: actor.userId, key, payloadHash, at: now });
    if (earlier) {
      if (!earlier.samePayload) return err({ kind: 'key_reused' });
      return { ok: true, value: JSON.parse(earlier.result ?? 'null') as T };
    }
    const outcome = await body(tx, now);
    if (!outcome.ok) return outcome;
    await storeResult(tx, actor.userId, key, JSON.stringify(outcome.value ?? null));
    const { sets } = tx.marked;
    // A pair that was marked twice is recomputed once.
    const pairs = [...pairMap(tx.marked.pairs).values()];
    if (sets.length > 0 || pairs.length > BEFORE_ANSWER) await leaveToWorker(tx, 'recompute', now, actor.userId);
    else marked = pairs;
    return outcome;
  });
  if (marked.length > 0)
    await recomputeDirty(deps, marked).catch((e) => console.error('recomputation left to the worker', e));
  return result;
}
