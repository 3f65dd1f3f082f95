import { deps } from '@/app/_server/deps';
import { read } from '@/app/_server/read';
import { readFind } from '@/services/people/readFind';

/** What was found for the words typed into Find. */
export const GET = (request: Request) =>
  read(request, (actor, query) => readFind(deps(), actor, (query.get('q') ?? '').slice(0, 100)));
