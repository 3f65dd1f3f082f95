import { deps } from '@/app/_server/deps';
import { read } from '@/app/_server/read';
import { readShort } from '@/services/promise/readShort';

/** What nothing covers of the lines of an open list of promises. */
export const GET = (request: Request) =>
  read(request, async (actor, query) => readShort(deps(), actor, { list: query.get('list') ?? '' }));
