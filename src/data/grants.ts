import type { Pool } from 'mysql2/promise';

/** Written once, never changed. */
const appendOnly = new Set([
  'movement',
  'decision',
  'change_record',
  'goods_receipt',
  'goods_receipt_line',
  'receipt_reversal',
  'stock_document',
  'stock_document_line',
]);
/** Rows that may go: sessions, marks, keys by age, lines of drafts, an override that is reset. */
const deletable = new Set([
  'session',
  'sign_in_attempt',
  'dirty_pair',
  'idempotency_key',
  'order_line',
  'delivery_part',
  'policy',
  'undo_step',
  'job',
  'kept_list',
  'demand_rate',
]);

/** Gives the application's account only what it needs, table by table; run by the owner account after migrations. */
export async function grantRights(pool: Pool, database: string, account: string): Promise<void> {
  const [rows] = await pool.query('SELECT table_name AS name FROM information_schema.tables WHERE table_schema = ?', [
    database,
  ]);
  for (const { name } of rows as { name: string }[]) {
    const rights =
      name === 'schema_migration'
        ? 'SELECT'
        : ['SELECT', 'INSERT', appendOnly.has(name) ? '' : 'UPDATE', deletable.has(name) ? 'DELETE' : '']
            .filter(Boolean)
            .join(', ');
    await pool.query(`GRANT ${rights} ON \`${database}\`.\`${name}\` TO '${account}'@'127.0.0.1'`);
  }
}
