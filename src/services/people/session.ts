import { createHash, randomBytes } from 'node:crypto';
import { hash, verify } from '@node-rs/argon2';
import { type Actor, isRight } from '@/core/people';
import { err, ok, type Result } from '@/core/result';
import {
  clearAttempts,
  countAttempts,
  deleteExpiredSessions,
  deleteSession,
  findSession,
  findUser,
  findUserByLogin,
  insertAttempt,
  insertSession,
  readUserLocations,
  replaceSession,
  touchSession,
  type UserRow,
} from '@/data/repositories/people';
import type { Tx } from '@/data/sql';
import { readSnapshot, write } from '@/data/transaction';
import { type Deps, stamp } from '../deps';
import type { Failure } from '../failure';

const MINUTE = 60_000;
const IDLE_MS = 8 * 60 * MINUTE;
const ABSOLUTE_MS = 7 * 24 * 60 * MINUTE;
const ROTATE_MS = 60 * MINUTE;
const GRACE_MS = MINUTE;
const WINDOW_MS = 15 * MINUTE;
const MAX_BY_LOGIN = 8;
const MAX_BY_ADDRESS = 40;

export const hashOf = (token: string) => createHash('sha256').update(token).digest();
const at = (ms: number) => stamp(new Date(ms));
const fromStamp = (text: string) => Date.parse(`${text.replace(' ', 'T')}Z`);

/** argon2id with the parameters OWASP recommends (19 MiB, 2 passes, 1 lane); from memory. */
export const hashPassword = (password: string): Promise<string> =>
  hash(password, { algorithm: 2, memoryCost: 19_456, timeCost: 2, parallelism: 1 });

/** Whether a password is the one of a hash. */
export const isPassword = (passwordHash: string, password: string): Promise<boolean> =>
  verify(passwordHash, password).catch(() => false);

/** Counts an attempt at a password; whether there were too many within 15 minutes, by name or from an address. */
export async function tooManyAttempts(deps: Deps, login: string, address: string): Promise<boolean> {
  const now = deps.clock().getTime();
  const attempts = await write<{ byLogin: number; byAddress: number }, never>(deps.pool, async (tx) => {
    await insertAttempt(tx, login, address, at(now));
    return ok(await countAttempts(tx, login, address, at(now - WINDOW_MS)));
  });
  return attempts.ok && (attempts.value.byLogin > MAX_BY_LOGIN || attempts.value.byAddress > MAX_BY_ADDRESS);
}
export const tooMany: Failure = { kind: 'too_many_attempts', minutes: WINDOW_MS / MINUTE };

// Checked when the login is unknown, so an unknown name takes as long as a wrong password.
const decoy = hashPassword(randomBytes(12).toString('hex'));

async function actorOf(tx: Tx, user: UserRow): Promise<Actor> {
  const { id: userId, name, initials, approvalLimit, locale } = user;
  const locations = await readUserLocations(tx, userId);
  const role = user.roleName ?? user.role;
  const own = user.rights === null ? {} : { rights: (JSON.parse(user.rights) as string[]).filter(isRight) };
  return {
    userId,
    name,
    initials,
    role,
    ...own,
    locations: locations.length > 0 ? locations : null,
    approvalLimit,
    locale,
  };
}

/** The acting person of an account, for work that goes on without a session; null when it may not act. */
export const actorOfUser = (deps: Deps, userId: number): Promise<Actor | null> =>
  readSnapshot(deps.pool, async (tx) => {
    const user = await findUser(tx, userId);
    return user?.active === 1 ? actorOf(tx, user) : null;
  });

/** Signs a person in and opens a session. The token goes into a cookie; the database keeps only its hash.
 *  Errors: wrong_password (also for an unknown or inactive login), too_many_attempts within 15 minutes. */
export async function signIn(
  deps: Deps,
  input: { readonly login: string; readonly password: string; readonly address: string },
): Promise<Result<{ token: string; actor: Actor }, Failure>> {
  const now = deps.clock().getTime();
  const { login, password, address } = input;
  if (await tooManyAttempts(deps, login, address)) return err(tooMany);
  const user = await readSnapshot(deps.pool, (tx) => findUserByLogin(tx, login));
  const right = await isPassword(user?.passwordHash || (await decoy), password);
  if (!user || !right || user.active !== 1) return err({ kind: 'wrong_password' });
  const token = randomBytes(32).toString('base64url');
  return write<{ token: string; actor: Actor }, Failure>(deps.pool, async (tx) => {
    await deleteExpiredSessions(tx, at(now));
    await clearAttempts(tx, login);
    const session = { tokenHash: hashOf(token), userId: user.id, createdAt: at(now), now: at(now) };
    await insertSession(tx, { ...session, expiresAt: at(now + ABSOLUTE_MS) });
    return ok({ token, actor: await actorOf(tx, user) });
  });
}

export type LiveSession = { readonly actor: Actor; readonly rotate: boolean };

/** The acting person of a session token; null when it is unknown, idle for 8 hours, or older than 7 days. */
export async function readSession(deps: Deps, token: string): Promise<LiveSession | null> {
  const now = deps.clock().getTime();
  const tokenHash = hashOf(token);
  const found = await readSnapshot(deps.pool, async (tx) => {
    const session = await findSession(tx, tokenHash);
    if (!session || fromStamp(session.expiresAt) <= now || fromStamp(session.lastSeenAt) + IDLE_MS <= now) return null;
    const user = await findUser(tx, session.userId);
    return user?.active === 1 ? { session, actor: await actorOf(tx, user) } : null;
  });
  if (!found) return null;
  if (now - fromStamp(found.session.lastSeenAt) > 5 * MINUTE) {
    await write<void, never>(deps.pool, async (tx) => {
      await touchSession(tx, tokenHash, at(now));
      return ok(undefined);
    });
  }
  const rotate = found.session.replacedBy === null && now - fromStamp(found.session.rotatedAt) > ROTATE_MS;
  return { actor: found.actor, rotate };
}

/** Gives a session a new token. The old one stays good for a minute, for requests on their way. */
export async function rotateSession(deps: Deps, token: string): Promise<string | null> {
  const now = deps.clock().getTime();
  const fresh = randomBytes(32).toString('base64url');
  const done = await write<boolean, never>(deps.pool, async (tx) => {
    const old = await findSession(tx, hashOf(token));
    if (!old || old.replacedBy) return ok(false);
    const { userId, createdAt, expiresAt } = old;
    await insertSession(tx, { tokenHash: hashOf(fresh), userId, createdAt, now: at(now), expiresAt });
    await replaceSession(tx, hashOf(token), hashOf(fresh), at(now + GRACE_MS));
    return ok(true);
  });
  return done.ok && done.value ? fresh : null;
}

/** Ends a session at once. */
export async function signOut(deps: Deps, token: string): Promise<void> {
  await write<void, never>(deps.pool, async (tx) => {
    await deleteSession(tx, hashOf(token));
    return ok(undefined);
  });
}
