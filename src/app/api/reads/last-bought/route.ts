import { deps } from '@/app/_server/deps';
import { numberOf, read } from '@/app/_server/read';
import { err } from '@/core/result';
import { readLastBought } from '@/services/planning/readLastBought';

/** The last purchases of an item. */
export const GET = (request: Request) =>
  read(request, async (actor, query) => {
    const item = numberOf(query, 'item');
    return item === null ? err({ kind: 'malformed', field: 'item' }) : readLastBought(deps(), actor, item);
  });
