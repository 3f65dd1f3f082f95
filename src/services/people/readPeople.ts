import { type Actor, isRight, may, type Right, rightsOf, roles } from '@/core/people';
import { ok, type Result } from '@/core/result';
import { readCompany, readLocations } from '@/data/repositories/company';
import { readAllUserLocations, readInvitations, readOwnRoles, readUsers } from '@/data/repositories/people';
import { readSnapshot } from '@/data/transaction';
import { type Deps, stamp } from '../deps';
import type { Failure } from '../failure';

export type PersonView = {
  readonly id: number;
  readonly login: string;
  readonly name: string;
  readonly role: string;
  readonly roleName: string;
  readonly locationIds: readonly number[];
  readonly approvalLimit: number | null;
  readonly active: boolean;
  /** Has a password and can sign in. */
  readonly hasPassword: boolean;
  /** A link is open until then. */
  readonly linkUntil: string | null;
  readonly isSelf: boolean;
  readonly version: number;
};

export type RoleView = {
  /** A built-in role's name, or 'own-' and its id. */
  readonly key: string;
  readonly id: number | null;
  readonly version: number | null;
  readonly name: string;
  readonly rights: readonly Right[];
};

export type PeopleView = {
  readonly people: readonly PersonView[];
  readonly roles: readonly RoleView[];
  readonly places: readonly { readonly id: number; readonly name: string }[];
  readonly currency: string;
};

export const roleNames: Readonly<Record<(typeof roles)[number], string>> = {
  owner: 'Owner',
  buyer: 'Buyer',
  shop: 'Receiving',
  bookkeeper: 'Bookkeeper',
  read_only: 'Read-only',
};

/** Everybody with an account, and the roles there are. Errors: forbidden. */
export async function readPeople(deps: Deps, actor: Actor): Promise<Result<PeopleView, Failure>> {
  const allowed = may(actor, 'people.edit');
  if (!allowed.ok) return allowed;
  return readSnapshot(deps.pool, async (tx) => {
    const own = await readOwnRoles(tx);
    const links = new Map((await readInvitations(tx, stamp(deps.clock()))).map((l) => [l.userId, l.expiresAt]));
    const limits = await readAllUserLocations(tx);
    const all: RoleView[] = [
      ...roles.map((key) => ({ key, id: null, version: null, name: roleNames[key], rights: rightsOf[key] })),
      ...own.map((r) => ({
        ...{ key: `own-${r.id}`, id: r.id, version: r.version, name: r.name },
        rights: (JSON.parse(r.rights) as string[]).filter(isRight),
      })),
    ];
    return ok({
      people: (await readUsers(tx)).map((u) => ({
        ...{ id: u.id, login: u.login, name: u.name, role: u.role, version: u.version },
        roleName: all.find((r) => r.key === u.role)?.name ?? u.role,
        locationIds: limits.filter((l) => l.userId === u.id).map((l) => l.locationId),
        approvalLimit: u.approvalLimit,
        active: u.active === 1,
        hasPassword: u.passwordHash !== '',
        linkUntil: links.get(u.id) ?? null,
        isSelf: u.id === actor.userId,
      })),
      roles: all,
      places: (await readLocations(tx)).map(({ id, name }) => ({ id, name })),
      currency: (await readCompany(tx)).currency,
    });
  });
}
