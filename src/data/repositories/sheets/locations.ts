import type { Column } from '@/core/sheets';
import type { SqlValue, Tx } from '../../sql';
import { readRecords, upsertMany, type Wanted } from './record';

const sql = {
  select: `l.code, l.name, l.kind, l.address, l.invoice_address, COALESCE(s.code, '') AS supplied_by, l.van_days,
           l.travel_days, l.working_days, l.receiving_days, l.latitude, l.longitude, l.status`,
  from: `location l LEFT JOIN location s ON s.id = l.supplied_by_id`,
  id: 'l.id',
  key: 'l.code',
};

/** Places where people work; transit is none of them (it has no page of records either). */
export const readLocationRecords = async (tx: Tx, columns: readonly Column[], wanted: Wanted, lock: boolean) =>
  (await readRecords(tx, columns, sql, wanted, lock)).filter((r) => r.values.kind !== 'transit');

export const upsertLocations = (tx: Tx, rows: readonly (readonly SqlValue[])[]) =>
  upsertMany(
    tx,
    'location',
    [
      ...[
        'code',
        'name',
        'kind',
        'address',
        'invoice_address',
        'van_days',
        'travel_days',
        'working_days',
        'receiving_days',
      ],
      ...['latitude', 'longitude', 'status', 'sort_order'],
    ],
    rows,
    'version = location.version + 1, sort_order = location.sort_order',
  );

export const linkSuppliedBy = (tx: Tx, code: string, by: string) =>
  tx.run(`UPDATE location l LEFT JOIN location s ON s.code = :by SET l.supplied_by_id = s.id WHERE l.code = :code`, {
    code,
    by,
  });

export const readSupplyLines = (tx: Tx) =>
  tx.rows<{ code: string; by: string | null }>(
    'SELECT l.code, s.code AS `by` FROM location l LEFT JOIN location s ON s.id = l.supplied_by_id',
  );
