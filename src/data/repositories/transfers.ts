import type { Tx } from '../sql';

export type TransferRow = {
  readonly id: number;
  readonly number: string;
  readonly fromLocationId: number;
  readonly toLocationId: number;
  readonly state: 'shipped' | 'received';
  readonly version: number;
};

export const insertTransfer = async (
  tx: Tx,
  t: {
    number: string;
    fromLocationId: number;
    toLocationId: number;
    businessDate: string;
    userId: number;
    at: string;
  },
): Promise<number> =>
  (
    await tx.run(
      `INSERT INTO transfer (number, from_location_id, to_location_id, state, business_date, shipped_by, shipped_at)
       VALUES (:number, :fromLocationId, :toLocationId, 'shipped', :businessDate, :userId, :at)`,
      t,
    )
  ).id;

export const insertTransferLines = (
  tx: Tx,
  transferId: number,
  lines: readonly { itemId: number; shipped: string; value: number }[],
) =>
  tx.insertMany(
    'INSERT INTO transfer_line (transfer_id, line_no, item_id, shipped, shipped_value_minor)',
    lines.map((l, i) => [transferId, i + 1, l.itemId, l.shipped, l.value]),
  );

export const lockTransfer = (tx: Tx, id: number) =>
  tx.row<TransferRow>(
    `SELECT id, number, from_location_id AS fromLocationId, to_location_id AS toLocationId, state, version
       FROM transfer WHERE id = :id FOR UPDATE`,
    { id },
  );

export type TransferLineRow = {
  readonly id: number;
  readonly lineNo: number;
  readonly itemId: number;
  readonly shipped: string;
  readonly shippedValue: number;
  readonly received: string;
  readonly receivedValue: number;
  readonly lost: string;
  readonly lostValue: number;
};

export const readTransferLines = (tx: Tx, transferId: number) =>
  tx.rows<TransferLineRow>(
    `SELECT id, line_no AS lineNo, item_id AS itemId, shipped, shipped_value_minor AS shippedValue, received,
            received_value_minor AS receivedValue, lost, lost_value_minor AS lostValue
       FROM transfer_line WHERE transfer_id = :transferId ORDER BY line_no`,
    { transferId },
  );

export const updateTransferLine = (
  tx: Tx,
  l: { id: number; received: string; receivedValue: number; lost: string; lostValue: number; lostReason: string },
) =>
  tx.run(
    `UPDATE transfer_line SET received = :received, received_value_minor = :receivedValue, lost = :lost,
            lost_value_minor = :lostValue, lost_reason = IF(:lostReason = '', lost_reason, :lostReason) WHERE id = :id`,
    l,
  );

export const setTransferState = (tx: Tx, id: number, state: TransferRow['state']) =>
  tx.run('UPDATE transfer SET state = :state, version = version + 1 WHERE id = :id', { id, state });
