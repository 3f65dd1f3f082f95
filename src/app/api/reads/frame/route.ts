import { deps } from '@/app/_server/deps';
import { answer, handled, refuse } from '@/app/_server/respond';
import { currentSession } from '@/app/_server/session';
import { ok } from '@/core/result';
import { readFrame } from '@/services/people/readFrame';

/** What waits at each stop; also how a page learns that reading it again will work. */
export const GET = () =>
  handled(async () => {
    const session = await currentSession();
    return session ? answer(ok(await readFrame(deps(), session.actor))) : refuse({ kind: 'not_signed_in' });
  });
