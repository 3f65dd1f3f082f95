import { deps } from '@/app/_server/deps';
import { read } from '@/app/_server/read';
import { ok } from '@/core/result';
import { readFrame } from '@/services/people/readFrame';

/** What waits at each stop; also how a page learns that reading it again will work. */
export const GET = (request: Request) => read(request, async (actor) => ok(await readFrame(deps(), actor)));
