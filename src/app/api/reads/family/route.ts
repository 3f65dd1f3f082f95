import { deps } from '@/app/_server/deps';
import { numberOf, read } from '@/app/_server/read';
import { err } from '@/core/result';
import { readFamilyGrid } from '@/services/purchase/familyGrid';

/** The family of an item by its options, to be ordered in one go. */
export const GET = (request: Request) =>
  read(request, async (actor, query) => {
    const [orderId, itemId, locationId] = [numberOf(query, 'order'), numberOf(query, 'item'), numberOf(query, 'place')];
    if (orderId === null) return err({ kind: 'malformed', field: 'order' });
    if (itemId === null) return err({ kind: 'malformed', field: 'item' });
    if (locationId === null) return err({ kind: 'malformed', field: 'place' });
    return readFamilyGrid(deps(), actor, { orderId, itemId, locationId });
  });
