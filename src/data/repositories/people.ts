import type { Role } from '@/core/people';
import type { Tx } from '../sql';

export type UserRow = {
  id: number;
  login: string;
  name: string;
  initials: string;
  role: Role;
  approvalLimit: number | null;
  passwordHash: string;
  active: number;
};

const columns = `id, login, name, initials, role, approval_limit_minor AS approvalLimit, password_hash AS passwordHash, active`;

export const findUserByLogin = (tx: Tx, login: string) =>
  tx.row<UserRow>(`SELECT ${columns} FROM app_user WHERE login = :login`, { login });

export const findUser = (tx: Tx, id: number) =>
  tx.row<UserRow>(`SELECT ${columns} FROM app_user WHERE id = :id`, { id });

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
