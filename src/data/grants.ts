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
  'till_day',
  'movement_lot',
]);
/** Rows that may go: sessions, marks, keys by age, lines of drafts, an override that is reset, what is on file and nothing
 *  refers to (foreign keys see to that). */
const deletable = new Set([
  'session',
  'sign_in_attempt',
  'dirty_pair',
  'idempotency_key',
  'order_line',
  'delivery_part',
  'policy',
  'policy_default',
  'stock_reason',
  'policy_season',
  'undo_step',
  'job',
  'kept_list',
  'hand_need',
  'tray',
  'split_run',
  'today_hidden',
  'purchase_budget',
  'demand_rate',
  'import_run',
  'import_piece',
  'import_row',
  'pack',
  'barcode',
  'kit_component',
  'source',
  'source_place',
  'price',
  'sale_price',
  'item_place',
  'charge_type',
  'duty_rate',
  'tax_rate',
  'job_material',
  'order_charge',
  'currency_rate',
  'supplier_contact',
  'closed_days',
  'pack_pattern',
  'shipping_way',
  'saved_view',
  'invitation',
  'app_user_location',
  'own_role',
  'count_plan',
  'count_plan_item',
  'alert_rule',
  'alert',
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
