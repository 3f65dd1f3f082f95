import { randomBytes } from 'node:crypto';
import { decimalsOf, moneyText } from '@/core/money';
import { isRole } from '@/core/people';
import { parseQuantity } from '@/core/quantity';
import { err, ok, type Result } from '@/core/result';
import { readCompany, readLocations } from '@/data/repositories/company';
import { insertInvitation, lockOwnRole } from '@/data/repositories/people';
import type { Tx } from '@/data/sql';
import { type Deps, stamp } from '../deps';
import { type Failure, invalidField } from '../failure';
import { hashOf } from './session';

const LINK_DAYS = 7;

/** What is said of a person: role (a built-in one or one's own), places (none = everywhere), approval limit as typed in the
 *  company's currency ('' = without limit). */
export type PersonTerms = {
  readonly name: string;
  readonly role: string;
  readonly locationIds: readonly number[];
  readonly limit: string;
};

/** Checks what is said of a person. Errors: not_found (role, location), invalid_field name or limit. */
export async function checkTerms(
  tx: Tx,
  terms: PersonTerms,
): Promise<Result<{ readonly approvalLimit: number | null }, Failure>> {
  if (terms.name.trim() === '') return err(invalidField('name', { kind: 'name_missing' }));
  if (!isRole(terms.role)) {
    const own = /^own-(\d{1,9})$/.exec(terms.role);
    if (!own || !(await lockOwnRole(tx, Number(own[1])))) return err({ kind: 'not_found', what: 'role' });
  }
  const places = new Set((await readLocations(tx)).map((l) => l.id));
  if (terms.locationIds.some((id) => !places.has(id))) return err({ kind: 'not_found', what: 'location' });
  if (terms.limit.trim() === '') return ok({ approvalLimit: null });
  const limit = parseQuantity(terms.limit);
  if (!limit.ok) return err(invalidField('limit', limit.error));
  const digits = decimalsOf((await readCompany(tx)).currency);
  return ok({ approvalLimit: Math.round((limit.value / 1_000_000) * 10 ** digits) });
}

/** Limit and places as the record of changes shows them. */
export async function wordsOfTerms(tx: Tx) {
  const { currency } = await readCompany(tx);
  const names = new Map((await readLocations(tx)).map((l) => [l.id, l.name]));
  return (limit: number | null, locationIds: readonly number[]) => ({
    limit: limit === null ? null : moneyText(limit, currency),
    places: locationIds.length === 0 ? null : locationIds.map((id) => names.get(id) ?? ''),
  });
}

/** A link with which a person sets a password within a week. Only its hash is kept: it is shown once, to whoever made it. */
export const newLink = () => {
  const token = randomBytes(24).toString('base64url');
  return { token, hash: hashOf(token) };
};

export const keepLink = (
  deps: Deps,
  tx: Tx,
  link: { readonly hash: Buffer },
  userId: number,
  createdBy: number,
): Promise<void> =>
  insertInvitation(tx, {
    tokenHash: link.hash,
    userId,
    createdBy,
    expiresAt: stamp(new Date(deps.clock().getTime() + LINK_DAYS * 86_400_000)),
  });

/** What a command that made a link gives back; a repetition of it can't show the link again. */
export type MadeLink = { readonly userId: number; readonly token: string | null };
export const linkOf = (
  link: { readonly token: string; readonly hash: Buffer },
  made: { readonly userId: number; readonly print: string },
): MadeLink => ({ userId: made.userId, token: made.print === link.hash.toString('hex') ? link.token : null });
