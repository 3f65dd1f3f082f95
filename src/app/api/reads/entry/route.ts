import { deps } from '@/app/_server/deps';
import { numberOf, read } from '@/app/_server/read';
import { err } from '@/core/result';
import { readEntry } from '@/services/promise/readEntry';

/** Items that fit a line typed into one field, for a place. */
export const GET = (request: Request) =>
  read(request, async (actor, query) => {
    const locationId = numberOf(query, 'place');
    if (locationId === null) return err({ kind: 'malformed', field: 'place' });
    return readEntry(deps(), actor, { text: (query.get('q') ?? '').slice(0, 200), locationId });
  });
