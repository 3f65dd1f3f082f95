import { deps } from '@/app/_server/deps';
import { numberOf, read } from '@/app/_server/read';
import { err, ok } from '@/core/result';
import { readReckonings } from '@/services/planning/readReckonings';

/** The sum behind a need as it is now. */
export const GET = (request: Request) =>
  read(request, async (actor, query) => {
    const needId = numberOf(query, 'need');
    if (needId === null) return err({ kind: 'malformed', field: 'need' });
    const found = await readReckonings(deps(), actor, [needId]);
    return found.ok ? ok({ reckoning: found.value[0]?.reckoning ?? null }) : found;
  });
