import { list, type SqlValue, type Tx } from '../sql';

export type MailRow = {
  readonly id: number;
  readonly messageId: string;
  readonly recipient: string;
  readonly subject: string;
  readonly body: string;
  readonly attempts: number;
  readonly entity: string;
  readonly entityId: number;
};

/** Puts a mail into the outbox; returns its id. */
export const insertMail = async (
  tx: Tx,
  m: {
    messageId: string;
    recipient: string;
    subject: string;
    body: string;
    entity: string;
    entityId: number;
    userId: SqlValue;
    at: string;
  },
): Promise<number> =>
  (
    await tx.run(
      `INSERT INTO outbox_mail (message_id, recipient, subject, body, entity, entity_id, next_try_at, created_by, created_at)
       VALUES (:messageId, :recipient, :subject, :body, :entity, :entityId, :at, :userId, :at)`,
      m,
    )
  ).id;

/** Takes mails whose time has come and puts their next try off, so that nobody else sends them meanwhile. */
export async function claimMails(tx: Tx, now: string, nextTry: string, limit: number): Promise<MailRow[]> {
  const found = await tx.rows<MailRow>(
    `SELECT id, message_id AS messageId, recipient, subject, body, attempts, entity, entity_id AS entityId FROM outbox_mail
      WHERE state = 'waiting' AND next_try_at <= :now ORDER BY id LIMIT ${Math.trunc(limit)} FOR UPDATE SKIP LOCKED`,
    { now },
  );
  const ids = list(
    'id',
    found.map((m) => m.id),
  );
  if (ids) {
    await tx.run(
      `UPDATE outbox_mail SET next_try_at = :nextTry, held_until = :nextTry, attempts = attempts + 1 WHERE id IN (${ids.sql})`,
      {
        nextTry,
        ...ids.values,
      },
    );
  }
  return found;
}

export const markMailSent = (tx: Tx, id: number, at: string) =>
  tx.run("UPDATE outbox_mail SET state = 'sent', sent_at = :at, fault = '', held_until = NULL WHERE id = :id", {
    id,
    at,
  });

export const markMailFault = (tx: Tx, m: { id: number; state: 'waiting' | 'failed'; fault: string; nextTry: string }) =>
  tx.run(
    'UPDATE outbox_mail SET state = :state, fault = :fault, next_try_at = :nextTry, held_until = NULL WHERE id = :id',
    m,
  );

export type LockedMail = Pick<OutboxRow, 'id' | 'state' | 'entity' | 'entityId' | 'subject'> & {
  /** It is being sent right now, until then. */
  readonly heldUntil: string | null;
};

export const lockMail = (tx: Tx, id: number) =>
  tx.row<LockedMail>(
    `SELECT id, state, entity, entity_id AS entityId, subject, held_until AS heldUntil FROM outbox_mail WHERE id = :id FOR UPDATE`,
    { id },
  );

/** Tries a mail again from the start, or lets it be. */
export const setMailState = (tx: Tx, m: { id: number; state: 'waiting' | 'stopped'; at: string }) =>
  tx.run('UPDATE outbox_mail SET state = :state, attempts = 0, next_try_at = :at WHERE id = :id', m);

export type OutboxRow = {
  readonly id: number;
  readonly recipient: string;
  readonly subject: string;
  readonly body: string;
  readonly entity: string;
  readonly entityId: number;
  readonly state: 'waiting' | 'sent' | 'failed' | 'stopped';
  readonly attempts: number;
  readonly fault: string;
  readonly who: string | null;
  readonly createdAt: string;
  readonly sentAt: string | null;
};

export const readOutbox = (tx: Tx, limit: number) =>
  tx.rows<OutboxRow>(
    `SELECT m.id, m.recipient, m.subject, m.body, m.entity, m.entity_id AS entityId, m.state, m.attempts, m.fault,
            u.name AS who, m.created_at AS createdAt, m.sent_at AS sentAt
       FROM outbox_mail m LEFT JOIN app_user u ON u.id = m.created_by ORDER BY m.id DESC LIMIT ${Math.trunc(limit)}`,
  );
