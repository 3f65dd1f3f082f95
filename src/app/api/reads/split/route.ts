import { deps } from '@/app/_server/deps';
import { numberOf, read } from '@/app/_server/read';
import { err } from '@/core/result';
import { readSplit } from '@/services/planning/readSplit';

/** How far an assignment of needs to suppliers is, and what was found. */
export const GET = (request: Request) =>
  read(request, async (actor, query) => {
    const id = numberOf(query, 'id');
    return id === null ? err({ kind: 'malformed', field: 'id' }) : readSplit(deps(), actor, id);
  });
