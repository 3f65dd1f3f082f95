import { deps } from '@/app/_server/deps';
import { read } from '@/app/_server/read';
import { readJobs } from '@/services/work/readJobs';

/** How far the work in the background is. */
export const GET = (request: Request) => read(request, (actor) => readJobs(deps(), actor));
