import { minorToDecimal } from '@/core/money';
import type { Actor } from '@/core/people';
import { ok, type Result } from '@/core/result';
import type { Deps } from '../deps';
import type { Failure } from '../failure';
import { type FileField, figure, type ListFile, shortListFile, words } from '../lists/fileColumns';
import { type PeopleView, type PersonView, readPeople } from './readPeople';

const fieldsOf = ({ places, currency }: PeopleView): readonly FileField<PersonView>[] => [
  words('name', 'Person', (p) => p.name),
  words('login', 'Signs in as', (p) => p.login),
  words('role', 'Role', (p) => p.roleName),
  words('where', 'Where', (p) =>
    p.locationIds.length === 0
      ? 'everywhere'
      : places
          .filter((l) => p.locationIds.includes(l.id))
          .map((l) => l.name)
          .join(', '),
  ),
  figure('limit', 'Approves up to', (p) =>
    p.approvalLimit === null ? null : minorToDecimal(p.approvalLimit, currency),
  ),
  words('state', 'State', (p) => (!p.active ? 'inactive' : p.hasPassword ? 'active' : 'invited')),
];

/** Everybody with an account, to be written to a file. Errors: forbidden. */
export async function readPeopleExport(deps: Deps, actor: Actor): Promise<Result<ListFile, Failure>> {
  const found = await readPeople(deps, actor);
  return found.ok ? ok(await shortListFile(deps, 'People', fieldsOf(found.value), found.value.people)) : found;
}
