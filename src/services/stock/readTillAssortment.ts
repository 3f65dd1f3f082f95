import { type Actor, may } from '@/core/people';
import { ok, type Result } from '@/core/result';
import { readAssortment, readKitsForSale } from '@/data/repositories/tills';
import { readSnapshot } from '@/data/transaction';
import type { Deps } from '../deps';
import type { Failure } from '../failure';

/** What a till sells at a place: number, the decimals it is sold to, and what a usual day of it is. */
export type TillItem = {
  readonly place: string;
  readonly item: string;
  readonly decimals: number;
  readonly perDay: number;
};
/** A kit is sold so often a day where nothing else is known. */
const KITS_A_DAY = 0.06;

/** What tills are told of what they sell. Errors: forbidden. */
export async function readTillAssortment(deps: Deps, actor: Actor): Promise<Result<TillItem[], Failure>> {
  const allowed = may(actor, 'stock.sell');
  if (!allowed.ok) return allowed;
  return readSnapshot(deps.pool, async (tx) => {
    const items = (await readAssortment(tx)).map(
      (r): TillItem => ({ place: r.place, item: r.number, decimals: r.decimals, perDay: Number(r.perDay) }),
    );
    for (const k of await readKitsForSale(tx))
      items.push({ place: k.place, item: k.number, decimals: 0, perDay: KITS_A_DAY });
    return ok(items);
  });
}
