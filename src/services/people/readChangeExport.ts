import type { Actor } from '@/core/people';
import { ok, type Result } from '@/core/result';
import type { ChangeLine } from '@/data/repositories/changes';
import { readCompany } from '@/data/repositories/company';
import { readSnapshot } from '@/data/transaction';
import { type Deps, todayOf } from '../deps';
import type { Failure } from '../failure';
import { asValues, type FileField, type ListFile, words } from '../lists/fileColumns';
import { type AskedChanges, readChanges } from './readChanges';

const fields: readonly FileField<ChangeLine>[] = [
  words('at', 'When (UTC)', (c) => c.at.slice(0, 19)),
  words('who', 'Who', (c) => c.who),
  words('about', 'About', (c) => c.entity.replaceAll('_', ' ')),
  words('name', 'Which', (c) => c.name ?? String(c.entityId)),
  words('what', 'What', (c) => c.action),
  words('before', 'Before', (c) => c.before ?? ''),
  words('after', 'After', (c) => c.after ?? ''),
];

/** All changes asked for, newest first, to be written to a file. Errors: forbidden. */
export async function readChangeExport(
  deps: Deps,
  actor: Actor,
  asked: Omit<AskedChanges, 'before'>,
): Promise<Result<ListFile, Failure>> {
  const first = await readChanges(deps, actor, { ...asked, before: 0 });
  if (!first.ok) return first;
  const today = todayOf(deps, await readSnapshot(deps.pool, readCompany));
  async function* rows() {
    for (let page = first; page.ok; ) {
      yield asValues(page.value.lines, fields);
      if (page.value.next === null) return;
      page = await readChanges(deps, actor, { ...asked, before: page.value.next });
    }
  }
  return ok({ title: 'Changes', today, columns: fields.map((f) => f.column), rows: rows() });
}
