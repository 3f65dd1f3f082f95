import { deps } from '@/app/_server/deps';
import { answer, handled, refuse } from '@/app/_server/respond';
import { currentSession } from '@/app/_server/session';
import { readFind } from '@/services/people/readFind';

export const GET = (request: Request) =>
  handled(async () => {
    const session = await currentSession();
    if (!session) return refuse({ kind: 'not_signed_in' });
    const text = new URL(request.url).searchParams.get('q') ?? '';
    return answer(await readFind(deps(), session.actor, text.slice(0, 100)));
  });
