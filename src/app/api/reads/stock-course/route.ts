import { deps } from '@/app/_server/deps';
import { numberOf, read } from '@/app/_server/read';
import { err } from '@/core/result';
import { readStockCourse } from '@/services/planning/readStockCourse';

/** Eight weeks of stock of an item at a place. */
export const GET = (request: Request) =>
  read(request, async (actor, query) => {
    const [itemId, locationId] = [numberOf(query, 'item'), numberOf(query, 'location')];
    if (itemId === null) return err({ kind: 'malformed', field: 'item' });
    if (locationId === null) return err({ kind: 'malformed', field: 'location' });
    return readStockCourse(deps(), actor, { itemId, locationId });
  });
