import { deps } from '@/app/_server/deps';
import { numberOf, read } from '@/app/_server/read';
import { err } from '@/core/result';
import { readEarlier } from '@/services/purchase/earlier';

/** Earlier purchases to take onto an order: of an item, or from its supplier. */
export const GET = (request: Request) =>
  read(request, async (actor, query) => {
    const orderId = numberOf(query, 'order');
    if (orderId === null) return err({ kind: 'malformed', field: 'order' });
    return readEarlier(deps(), actor, { orderId, itemId: numberOf(query, 'item') });
  });
