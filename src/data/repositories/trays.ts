import { list, type Tx } from '../sql';
import type { Pair } from './levels';

export type TrayLineRow = Pair & {
  readonly id: number;
  readonly supplierId: number;
  readonly decisionId: number;
  /** The customer's line that its supplier sends it to; null = it comes to its place. */
  readonly customerLineId: number | null;
  readonly sourceId: number;
  readonly packId: number | null;
  readonly packQuantity: string;
  readonly baseQuantity: string;
  readonly state: 'in_tray' | 'ordered' | 'taken_back';
  readonly version: number;
};

const columns = `id, supplier_id AS supplierId, decision_id AS decisionId, item_id AS itemId, location_id AS locationId,
  customer_line_id AS customerLineId, source_id AS sourceId, pack_id AS packId, pack_quantity AS packQuantity, base_quantity AS baseQuantity, state, version`;

export const readTrayLines = (tx: Tx) =>
  tx.rows<TrayLineRow>(
    `SELECT ${columns} FROM tray_line WHERE state = 'in_tray' ORDER BY supplier_id, item_id, location_id, id`,
  );

/** Tray lines of these suppliers that wait in their trays, locked. Someone else may have ordered a line between looking
 *  and locking: what counts is its state under the lock. */
export async function lockTrays(tx: Tx, supplierIds: readonly number[]): Promise<TrayLineRow[]> {
  const ids = list('id', supplierIds);
  if (!ids) return [];
  const found = await tx.rows<{ id: number }>(
    `SELECT id FROM tray_line WHERE state = 'in_tray' AND supplier_id IN (${ids.sql})`,
    ids.values,
  );
  const locked = await lockTrayLines(
    tx,
    found.map((f) => f.id),
  );
  return locked.filter((l) => l.state === 'in_tray');
}

export async function lockTrayLines(tx: Tx, lineIds: readonly number[]): Promise<TrayLineRow[]> {
  const ids = list('id', lineIds);
  if (!ids) return [];
  return tx.rows<TrayLineRow>(
    `SELECT ${columns} FROM tray_line FORCE INDEX (PRIMARY) WHERE id IN (${ids.sql}) ORDER BY id FOR UPDATE`,
    ids.values,
  );
}

export const insertTrayLine = async (
  tx: Tx,
  l: Omit<TrayLineRow, 'id' | 'state' | 'version'> & { userId: number; at: string },
): Promise<number> =>
  (
    await tx.run(
      `INSERT INTO tray_line (supplier_id, decision_id, item_id, location_id, customer_line_id, source_id, pack_id, pack_quantity,
                              base_quantity, state, created_by, created_at)
       VALUES (:supplierId, :decisionId, :itemId, :locationId, :customerLineId, :sourceId, :packId, :packQuantity,
               :baseQuantity, 'in_tray', :userId, :at)`,
      l,
    )
  ).id;

/** The state of a tray line, with the quantity it goes on with. */
export const updateTrayLine = (
  tx: Tx,
  l: { id: number; state: TrayLineRow['state']; packQuantity: string; baseQuantity: string },
) =>
  tx.run(
    `UPDATE tray_line SET state = :state, pack_quantity = :packQuantity, base_quantity = :baseQuantity, version = version + 1
      WHERE id = :id`,
    l,
  );
