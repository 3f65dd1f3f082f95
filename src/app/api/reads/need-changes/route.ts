import { deps } from '@/app/_server/deps';
import { read } from '@/app/_server/read';
import { readNeedChanges } from '@/services/planning/readNeeds';

/** What has changed since a list of needs was opened. */
export const GET = (request: Request) =>
  read(request, (actor, query) => readNeedChanges(deps(), actor, query.get('list') ?? ''));
