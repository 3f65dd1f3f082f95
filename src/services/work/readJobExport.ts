import type { Actor } from '@/core/people';
import { ok, type Result } from '@/core/result';
import type { Deps } from '../deps';
import type { Failure } from '../failure';
import { type FileField, figure, type ListFile, shortListFile, words } from '../lists/fileColumns';
import { type JobView, readJobs } from './readJobs';

const fields: readonly FileField<JobView>[] = [
  words('what', 'What', (j) => j.name),
  words('state', 'State', (j) => j.state),
  figure('done', 'Done', (j) => j.done),
  figure('total', 'Of', (j) => j.total),
  words('steps', 'Counted in', (j) => j.steps),
  figure('attempts', 'Attempts', (j) => j.attempts),
  words('fault', 'Fault', (j) => j.fault),
  words('who', 'Asked for by', (j) => j.who ?? 'Vorrat'),
  words('asked_at', 'Asked for at (UTC)', (j) => j.createdAt.slice(0, 19)),
  words('ended_at', 'Ended at (UTC)', (j) => j.endedAt?.slice(0, 19) ?? ''),
];

/** Work in the background as its list shows it, to be written to a file. Errors: forbidden. */
export async function readJobExport(deps: Deps, actor: Actor): Promise<Result<ListFile, Failure>> {
  const found = await readJobs(deps, actor);
  return found.ok ? ok(await shortListFile(deps, 'In the background', fields, found.value.jobs)) : found;
}
