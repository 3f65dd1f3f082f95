import { deps } from '@/app/_server/deps';
import { numberOf, read } from '@/app/_server/read';
import { err } from '@/core/result';
import { readWays } from '@/services/planning/readWays';

/** The ways to cover a need, the cheapest first. */
export const GET = (request: Request) =>
  read(request, async (actor, query) => {
    const need = numberOf(query, 'need');
    return need === null ? err({ kind: 'malformed', field: 'need' }) : readWays(deps(), actor, need);
  });
