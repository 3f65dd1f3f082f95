import { type Actor, may } from '@/core/people';
import { err, ok, type Result } from '@/core/result';
import { readCompany, readLocations } from '@/data/repositories/company';
import { readOffered } from '@/data/repositories/promises';
import { readSnapshot } from '@/data/transaction';
import { type Deps, todayOf } from '../deps';
import type { Failure } from '../failure';

export type WebShopOffer = {
  readonly today: string;
  /** Where web orders are sent from: the person's first warehouse, else their first place. */
  readonly locationId: number;
  readonly items: readonly { readonly id: number; readonly number: string; readonly decimals: number }[];
};

/** What the web shop is told that it sells: active items that are not for own use only, and that a price is known of.
 *  Errors: forbidden, not_found (no place of theirs is open). */
export async function readWebShopOffer(deps: Deps, actor: Actor): Promise<Result<WebShopOffer, Failure>> {
  const allowed = may(actor, 'promises.edit');
  if (!allowed.ok) return allowed;
  return readSnapshot<Result<WebShopOffer, Failure>>(deps.pool, async (tx) => {
    const places = (await readLocations(tx)).filter((l) => l.closed === 0 && (actor.locations?.includes(l.id) ?? true));
    const place = places.find((l) => l.kind === 'warehouse') ?? places[0];
    if (!place) return err({ kind: 'not_found', what: 'location' });
    return ok({ today: todayOf(deps, await readCompany(tx)), locationId: place.id, items: await readOffered(tx) });
  });
}
