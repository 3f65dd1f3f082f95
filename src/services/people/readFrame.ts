import type { Actor } from '@/core/people';
import { readCompany, readLocations } from '@/data/repositories/company';
import { readFrameCounts } from '@/data/repositories/frame';
import { readSnapshot } from '@/data/transaction';
import { type Deps, todayOf } from '../deps';

/** What the bar over every page shows: what waits at each stop, and the places of the person. */
export async function readFrame(deps: Deps, actor: Actor) {
  return readSnapshot(deps.pool, async (tx) => {
    const company = await readCompany(tx);
    const places = await readLocations(tx);
    const counts = await readFrameCounts(tx, actor.userId, actor.locations);
    return {
      company: company.name,
      today: todayOf(deps, company),
      counts,
      locations: places
        .filter((l) => l.closed === 0 && (actor.locations === null || actor.locations.includes(l.id)))
        .map(({ id, code, name }) => ({ id, code, name })),
    };
  });
}
