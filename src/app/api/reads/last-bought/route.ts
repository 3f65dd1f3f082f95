import { deps } from '@/app/_server/deps';
import { answer, handled, refuse } from '@/app/_server/respond';
import { currentSession } from '@/app/_server/session';
import { readLastBought } from '@/services/planning/readLastBought';

export const GET = (request: Request) =>
  handled(async () => {
    const session = await currentSession();
    if (!session) return refuse({ kind: 'not_signed_in' });
    const item = new URL(request.url).searchParams.get('item') ?? '';
    if (!/^\d{1,10}$/.test(item)) return refuse({ kind: 'malformed', field: 'item' });
    return answer(await readLastBought(deps(), session.actor, Number(item)));
  });
