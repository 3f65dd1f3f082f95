import { deps } from '@/app/_server/deps';
import { numberOf, read } from '@/app/_server/read';
import { err } from '@/core/result';
import { readPolicyDetail } from '@/services/planning/readPolicyDetail';

/** The policy of an item at a place with what it is reckoned from. */
export const GET = (request: Request) =>
  read(request, async (actor, query) => {
    const [itemId, locationId] = [numberOf(query, 'item'), numberOf(query, 'location')];
    if (itemId === null) return err({ kind: 'malformed', field: 'item' });
    if (locationId === null) return err({ kind: 'malformed', field: 'location' });
    return readPolicyDetail(deps(), actor, { itemId, locationId });
  });
