import type { Tx } from '../sql';

export type UserRow = {
  id: number;
  login: string;
  name: string;
  initials: string;
  /** A built-in role, or 'own-' and the id of one of the company's own. */
  role: string;
  /** Of one of the company's own: its name and its rights as JSON. */
  roleName: string | null;
  rights: string | null;
  approvalLimit: number | null;
  passwordHash: string;
  active: number;
  locale: string;
  /** Where mail of the application goes; '' = nowhere. */
  mail: string;
  version: number;
};

const columns = `u.id, u.login, u.name, u.initials, u.role, r.name AS roleName, r.rights, u.approval_limit_minor AS approvalLimit,
  u.password_hash AS passwordHash, u.active, u.locale, u.mail, u.version`;
const from = `app_user u LEFT JOIN own_role r ON u.role = CONCAT('own-', r.id)`;

export const findUserByLogin = (tx: Tx, login: string) =>
  tx.row<UserRow>(`SELECT ${columns} FROM ${from} WHERE u.login = :login`, { login });

export const findUser = (tx: Tx, id: number) =>
  tx.row<UserRow>(`SELECT ${columns} FROM ${from} WHERE u.id = :id`, { id });

export const lockUser = (tx: Tx, id: number) =>
  tx.row<UserRow>(`SELECT ${columns} FROM ${from} WHERE u.id = :id FOR UPDATE`, { id });

export const readUsers = (tx: Tx) =>
  tx.rows<UserRow>(`SELECT ${columns} FROM ${from} ORDER BY u.active DESC, u.name, u.id`);

export const insertUser = async (
  tx: Tx,
  u: {
    login: string;
    name: string;
    initials: string;
    role: string;
    passwordHash: string;
    approvalLimit: number | null;
  },
): Promise<number> =>
  (
    await tx.run(
      `INSERT INTO app_user (login, name, initials, role, approval_limit_minor, password_hash)
       VALUES (:login, :name, :initials, :role, :approvalLimit, :passwordHash)`,
      u,
    )
  ).id;

export async function readUserLocations(tx: Tx, userId: number): Promise<number[]> {
  const rows = await tx.rows<{ id: number }>(
    'SELECT location_id AS id FROM app_user_location WHERE user_id = :userId ORDER BY location_id',
    { userId },
  );
  return rows.map((r) => r.id);
}

export type SessionRow = {
  userId: number;
  createdAt: string;
  rotatedAt: string;
  lastSeenAt: string;
  expiresAt: string;
  replacedBy: Buffer | null;
};

export const findSession = (tx: Tx, tokenHash: Buffer) =>
  tx.row<SessionRow>(
    `SELECT user_id AS userId, created_at AS createdAt, rotated_at AS rotatedAt, last_seen_at AS lastSeenAt,
            expires_at AS expiresAt, replaced_by AS replacedBy
       FROM session WHERE token_hash = :tokenHash`,
    { tokenHash },
  );

export const insertSession = (
  tx: Tx,
  s: { tokenHash: Buffer; userId: number; createdAt: string; now: string; expiresAt: string },
) =>
  tx.run(
    `INSERT INTO session (token_hash, user_id, created_at, rotated_at, last_seen_at, expires_at)
     VALUES (:tokenHash, :userId, :createdAt, :now, :now, :expiresAt)`,
    s,
  );

export const touchSession = (tx: Tx, tokenHash: Buffer, now: string) =>
  tx.run('UPDATE session SET last_seen_at = :now WHERE token_hash = :tokenHash', { tokenHash, now });

/** The old token stays good for a short while, for requests already on their way. */
export const replaceSession = (tx: Tx, tokenHash: Buffer, by: Buffer, until: string) =>
  tx.run('UPDATE session SET replaced_by = :by, expires_at = LEAST(expires_at, :until) WHERE token_hash = :tokenHash', {
    tokenHash,
    by,
    until,
  });

/** Ends a session with what replaced it. */
export const deleteSession = (tx: Tx, tokenHash: Buffer) =>
  tx.run('DELETE FROM session WHERE token_hash = :tokenHash OR replaced_by = :tokenHash', { tokenHash });

export const deleteExpiredSessions = (tx: Tx, now: string) =>
  tx.run('DELETE FROM session WHERE expires_at < :now LIMIT 100', { now });

export async function countAttempts(tx: Tx, login: string, address: string, since: string) {
  const row = await tx.row<{ byLogin: number; byAddress: number }>(
    `SELECT (SELECT COUNT(*) FROM sign_in_attempt WHERE login = :login AND at >= :since) AS byLogin,
            (SELECT COUNT(*) FROM sign_in_attempt WHERE address = :address AND at >= :since) AS byAddress`,
    { login, address, since },
  );
  return row ?? { byLogin: 0, byAddress: 0 };
}

export const insertAttempt = (tx: Tx, login: string, address: string, at: string) =>
  tx.run('INSERT INTO sign_in_attempt (login, address, at) VALUES (:login, :address, :at)', { login, address, at });

export const deleteOldAttempts = (tx: Tx, before: string) =>
  tx.run('DELETE FROM sign_in_attempt WHERE at < :before', { before });

export const clearAttempts = (tx: Tx, login: string) =>
  tx.run('DELETE FROM sign_in_attempt WHERE login = :login', { login });

/** Who is limited to which places: user and place. */
export const readAllUserLocations = (tx: Tx) =>
  tx.rows<{ userId: number; locationId: number }>(
    'SELECT user_id AS userId, location_id AS locationId FROM app_user_location ORDER BY user_id, location_id',
  );

/** Limits a person to these places; none = everywhere. */
export async function setUserLocations(tx: Tx, userId: number, locationIds: readonly number[]): Promise<void> {
  await tx.run('DELETE FROM app_user_location WHERE user_id = :userId', { userId });
  await tx.insertMany(
    'INSERT INTO app_user_location (user_id, location_id)',
    locationIds.map((id) => [userId, id]),
  );
}

export type UserChange = {
  readonly id: number;
  readonly name: string;
  readonly initials: string;
  readonly role: string;
  readonly approvalLimit: number | null;
  readonly active: number;
};

export const updateUser = (tx: Tx, u: UserChange) =>
  tx.run(
    `UPDATE app_user SET name = :name, initials = :initials, role = :role, approval_limit_minor = :approvalLimit, active = :active,
            version = version + 1 WHERE id = :id`,
    u,
  );

/** The other people who may sign in as owners. */
export const countOtherOwners = async (tx: Tx, userId: number): Promise<number> =>
  Number(
    (
      await tx.row<{ n: number }>(
        "SELECT COUNT(*) AS n FROM app_user WHERE role = 'owner' AND active = 1 AND password_hash <> '' AND id <> :userId FOR UPDATE",
        { userId },
      )
    )?.n ?? 0,
  );

export const setPasswordHash = (tx: Tx, id: number, passwordHash: string) =>
  tx.run('UPDATE app_user SET password_hash = :passwordHash WHERE id = :id', { id, passwordHash });

export const setUserLocale = (tx: Tx, id: number, locale: string) =>
  tx.run('UPDATE app_user SET locale = :locale WHERE id = :id', { id, locale });

/** Ends the sessions of a person, all or all but one. */
export const deleteSessionsOf = (tx: Tx, userId: number, except: Buffer | null) =>
  except === null
    ? tx.run('DELETE FROM session WHERE user_id = :userId', { userId })
    : tx.run('DELETE FROM session WHERE user_id = :userId AND token_hash <> :except', { userId, except });

/** A link with which a person sets a password; the ones before it are void. */
export async function insertInvitation(
  tx: Tx,
  i: { tokenHash: Buffer; userId: number; expiresAt: string; createdBy: number },
): Promise<void> {
  await tx.run('DELETE FROM invitation WHERE user_id = :userId', { userId: i.userId });
  await tx.run(
    `INSERT INTO invitation (token_hash, user_id, expires_at, created_by) VALUES (:tokenHash, :userId, :expiresAt, :createdBy)`,
    i,
  );
}

export const findInvitation = (tx: Tx, tokenHash: Buffer) =>
  tx.row<{ userId: number; expiresAt: string }>(
    'SELECT user_id AS userId, expires_at AS expiresAt FROM invitation WHERE token_hash = :tokenHash',
    { tokenHash },
  );
export const lockInvitation = (tx: Tx, tokenHash: Buffer) =>
  tx.row<{ userId: number; expiresAt: string }>(
    'SELECT user_id AS userId, expires_at AS expiresAt FROM invitation WHERE token_hash = :tokenHash FOR UPDATE',
    { tokenHash },
  );
export const deleteInvitation = (tx: Tx, tokenHash: Buffer) =>
  tx.run('DELETE FROM invitation WHERE token_hash = :tokenHash', { tokenHash });

/** Links that are open, by person, with their end. */
export const readInvitations = (tx: Tx, now: string) =>
  tx.rows<{ userId: number; expiresAt: string }>(
    'SELECT user_id AS userId, expires_at AS expiresAt FROM invitation WHERE expires_at > :now',
    { now },
  );

export type OwnRoleRow = { id: number; name: string; rights: string; version: number };

export const readOwnRoles = (tx: Tx) =>
  tx.rows<OwnRoleRow>('SELECT id, name, rights, version FROM own_role ORDER BY name, id');
export const lockOwnRole = (tx: Tx, id: number) =>
  tx.row<OwnRoleRow>('SELECT id, name, rights, version FROM own_role WHERE id = :id FOR UPDATE', { id });
export const insertOwnRole = async (tx: Tx, r: { name: string; rights: string }): Promise<number> =>
  (await tx.run('INSERT INTO own_role (name, rights) VALUES (:name, :rights)', r)).id;
export const updateOwnRole = (tx: Tx, r: { id: number; name: string; rights: string }) =>
  tx.run('UPDATE own_role SET name = :name, rights = :rights, version = version + 1 WHERE id = :id', r);
export const deleteOwnRole = (tx: Tx, id: number) => tx.run('DELETE FROM own_role WHERE id = :id', { id });
export const countRoleUsers = async (tx: Tx, role: string): Promise<number> =>
  Number((await tx.row<{ n: number }>('SELECT COUNT(*) AS n FROM app_user WHERE role = :role', { role }))?.n ?? 0);

/** Names of everybody who has or had an account. */
/** Who is named as buyer of an item, a category or a supplier. */
export const readBuyers = (tx: Tx) =>
  tx.rows<{ id: number; name: string }>(
    `SELECT id, name FROM app_user WHERE id IN (
       SELECT buyer_id FROM item WHERE buyer_id IS NOT NULL UNION SELECT buyer_id FROM category WHERE buyer_id IS NOT NULL
       UNION SELECT buyer_id FROM supplier WHERE buyer_id IS NOT NULL) ORDER BY name, id`,
  );

export const readPeopleNames = (tx: Tx) =>
  tx.rows<{ id: number; name: string }>('SELECT id, name FROM app_user ORDER BY name');
