import { deps } from '@/app/_server/deps';
import { numberOf, read } from '@/app/_server/read';
import { err } from '@/core/result';
import { readOrderEntry } from '@/services/purchase/readOrderEntry';

/** Items that fit a line typed for an order. */
export const GET = (request: Request) =>
  read(request, async (actor, query) => {
    const [orderId, locationId] = [numberOf(query, 'order'), numberOf(query, 'place')];
    if (orderId === null) return err({ kind: 'malformed', field: 'order' });
    if (locationId === null) return err({ kind: 'malformed', field: 'place' });
    return readOrderEntry(deps(), actor, { text: (query.get('q') ?? '').slice(0, 200), orderId, locationId });
  });
