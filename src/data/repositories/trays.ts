import { list, type Tx } from '../sql';
import type { Pair } from './levels';
import { type DecisionInsert, decisionPut } from './planning';

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

/** A decision and the tray line that it makes, in one message. Returns their ids. */
export async function insertDecisionInTray(
  tx: Tx,
  decision: DecisionInsert,
  l: Omit<TrayLineRow, 'id' | 'state' | 'version' | 'decisionId'>,
): Promise<{ readonly decisionId: number; readonly trayLineId: number }> {
  const [decisionId, trayLineId] = await tx.tell([
    decisionPut(decision),
    {
      sql: `INSERT INTO tray_line (supplier_id, decision_id, item_id, location_id, customer_line_id, source_id, pack_id, pack_quantity,
                                   base_quantity, state, created_by, created_at)
            VALUES (?, LAST_INSERT_ID(), ?, ?, ?, ?, ?, ?, ?, 'in_tray', ?, ?)`,
      values: [
        ...[
          l.supplierId,
          l.itemId,
          l.locationId,
          l.customerLineId,
          l.sourceId,
          l.packId,
          l.packQuantity,
          l.baseQuantity,
        ],
        ...[decision.userId, decision.at],
      ],
    },
  ]);
  return { decisionId: decisionId as number, trayLineId: trayLineId as number };
}

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
