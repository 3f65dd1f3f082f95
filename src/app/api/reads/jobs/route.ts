import { deps } from '@/app/_server/deps';
import { answer, handled, refuse } from '@/app/_server/respond';
import { currentSession } from '@/app/_server/session';
import { readJobs } from '@/services/work/readJobs';

/** How far the work in the background is. */
export const GET = () =>
  handled(async () => {
    const session = await currentSession();
    return session ? answer(await readJobs(deps(), session.actor)) : refuse({ kind: 'not_signed_in' });
  });
