import { isDuplicate } from '../errors';
import { insertStatements, type SqlValue, type Statement, type Tx } from '../sql';

/** First insert of a command. Null when the key is new; else what was stored under it. A duplicate waits for the first. */
export async function claimKey(
  tx: Tx,
  claim: { userId: number; key: string; payloadHash: Buffer; at: string },
): Promise<{ samePayload: boolean; result: string | null } | null> {
  try {
    await tx.tell([
      {
        sql: 'INSERT INTO idempotency_key (user_id, idem_key, payload_hash, created_at) VALUES (?, ?, ?, ?)',
        values: [claim.userId, claim.key, claim.payloadHash, claim.at],
      },
    ]);
    return null;
  } catch (e) {
    if (!isDuplicate(e)) throw e;
    const row = await tx.row<{ payloadHash: Buffer; result: string | null }>(
      'SELECT payload_hash AS payloadHash, result FROM idempotency_key WHERE user_id = :userId AND idem_key = :key',
      { userId: claim.userId, key: claim.key },
    );
    if (!row) throw e;
    return { samePayload: row.payloadHash.equals(claim.payloadHash), result: row.result };
  }
}

export const storeResult = (tx: Tx, userId: number, key: string, result: string): Promise<void> =>
  tx.later([
    {
      sql: 'UPDATE idempotency_key SET result = ? WHERE user_id = ? AND idem_key = ?',
      values: [result, userId, key],
    },
  ]);

export const deleteOldKeys = (tx: Tx, before: string) =>
  tx.run('DELETE FROM idempotency_key WHERE created_at < :before', { before });

export type Change = {
  readonly entity:
    | 'order'
    | 'need'
    | 'tray_line'
    | 'policy'
    | 'receipt'
    | 'transfer'
    | 'stock_document'
    | 'stock_count'
    | 'count_plan'
    | 'allocation'
    | 'customer_order'
    | 'company'
    | 'supplier'
    | 'source'
    | 'item'
    | 'location'
    | 'import'
    | 'user'
    | 'role'
    | 'setup'
    | 'job';
  readonly entityId: number;
  readonly action: string;
  readonly before?: unknown;
  readonly after?: unknown;
};

/** Who did what, before and after, in the transaction of the change itself. */
export const changesRecorded = (userId: number | null, at: string, changes: readonly Change[]): Statement[] => {
  const json = (v: unknown): SqlValue => (v === undefined ? null : JSON.stringify(v));
  return insertStatements(
    'INSERT INTO change_record (at, user_id, entity, entity_id, action, before_json, after_json)',
    changes.map((c) => [at, userId, c.entity, c.entityId, c.action, json(c.before), json(c.after)]),
  );
};

export const recordChanges = (tx: Tx, userId: number | null, at: string, changes: readonly Change[]): Promise<void> =>
  tx.later(changesRecorded(userId, at, changes));

export type ChangeRow = { at: string; who: string; action: string; before: string | null; after: string | null };

export const readChanges = (tx: Tx, entity: Change['entity'], entityId: number) =>
  tx.rows<ChangeRow>(
    `SELECT c.at, COALESCE(u.name, '') AS who, c.action, c.before_json AS \`before\`, c.after_json AS \`after\`
       FROM change_record c LEFT JOIN app_user u ON u.id = c.user_id
      WHERE c.entity = :entity AND c.entity_id = :entityId ORDER BY c.id`,
    { entity, entityId },
  );

/** What is numbered: purchase orders, goods receipts, sales, counts, corrections, transfers, items, customers' orders. */
export type NumberPattern = 'PO' | 'GR' | 'SA' | 'CN' | 'CR' | 'TR' | 'IT' | 'CO';

/** The next number of a pattern in a period: one counter row, drawn as late as possible, so it follows the rollback. */
export async function drawNumber(tx: Tx, pattern: NumberPattern, period: string, start = 1): Promise<number> {
  await tx.run(
    `INSERT INTO number_counter (pattern, period, last_number, skipped) VALUES (:pattern, :period, :before, :before)
     ON DUPLICATE KEY UPDATE last_number = last_number`,
    { pattern, period, before: start - 1 },
  );
  const drawn = await tx.run(
    'UPDATE number_counter SET last_number = LAST_INSERT_ID(last_number + 1) WHERE pattern = :pattern AND period = :period',
    { pattern, period },
  );
  return drawn.id;
}
