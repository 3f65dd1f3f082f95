import { type Actor, may } from '@/core/people';
import { readCompany, readLocations } from '@/data/repositories/company';
import { readFrameCounts } from '@/data/repositories/frame';
import { readSnapshot } from '@/data/transaction';
import { type Deps, todayOf } from '../deps';

/** What the bar over every page shows: what waits at each stop the person may go to, and the places. */
export async function readFrame(deps: Deps, actor: Actor) {
  return readSnapshot(deps.pool, async (tx) => {
    const company = await readCompany(tx);
    const places = await readLocations(tx);
    const counts = await readFrameCounts(tx, actor.locations);
    const can = (right: Parameters<typeof may>[1]) => may(actor, right).ok;
    return {
      company: company.name,
      today: todayOf(deps, company),
      counts,
      stops: {
        needs: can('needs.read'),
        orders: can('orders.read'),
        arrivals: can('goods.receive'),
        stock: can('stock.read'),
      },
      locations: places
        .filter((l) => actor.locations === null || actor.locations.includes(l.id))
        .map(({ id, code, name }) => ({ id, code, name })),
    };
  });
}
