import { deps } from '@/app/_server/deps';
import { answer, handled, refuse } from '@/app/_server/respond';
import { currentSession } from '@/app/_server/session';
import { readPolicyLines } from '@/services/planning/readPolicies';

/** A page of an open policy sheet. */
export const GET = (request: Request) =>
  handled(async () => {
    const session = await currentSession();
    if (!session) return refuse({ kind: 'not_signed_in' });
    const params = new URL(request.url).searchParams;
    const from = params.get('from') ?? '';
    if (!/^\d{1,9}$/.test(from)) return refuse({ kind: 'malformed', field: 'from' });
    const list = params.get('list') ?? '';
    return answer(await readPolicyLines(deps(), session.actor, { list, from: Number(from) }));
  });
