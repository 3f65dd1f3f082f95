import type { TransferState } from '@/core/stock';
import { list, type SqlValue, type Tx } from '../sql';
import { HELD } from './allocations';

export type TransferRow = {
  readonly id: number;
  readonly number: string;
  readonly fromLocationId: number;
  readonly toLocationId: number;
  readonly state: TransferState;
  readonly wantedDate: string | null;
  readonly note: string;
  readonly refusedBecause: string;
  readonly requestedBy: number | null;
  readonly version: number;
};

const columns = `id, number, from_location_id AS fromLocationId, to_location_id AS toLocationId, state, wanted_date AS wantedDate,
  note, refused_because AS refusedBecause, requested_by AS requestedBy, version`;

/** Who takes it to which state: of a state skipped over, nobody. */
const stepColumns: Readonly<Partial<Record<TransferState, 'requested' | 'approved' | 'shipped'>>> = {
  requested: 'requested',
  approved: 'approved',
  shipped: 'shipped',
};

export async function insertTransfer(
  tx: Tx,
  t: {
    number: string;
    fromLocationId: number;
    toLocationId: number;
    state: TransferState;
    businessDate: string;
    wantedDate: SqlValue;
    note: string;
    userId: number;
    at: string;
  },
): Promise<number> {
  const step = stepColumns[t.state];
  const { id } = await tx.run(
    `INSERT INTO transfer (number, from_location_id, to_location_id, state, business_date, wanted_date, note
                           ${step ? `, ${step}_by, ${step}_at` : ''})
     VALUES (:number, :fromLocationId, :toLocationId, :state, :businessDate, :wantedDate, :note ${step ? ', :userId, :at' : ''})`,
    t,
  );
  return id;
}

export type NewTransferLine = {
  readonly itemId: number;
  readonly asked: string;
  readonly approved: string;
  readonly shipped: string;
  readonly shippedValue: number;
  readonly allocationId: number | null;
  readonly decisionId: number | null;
};

/** Appends lines, numbered on from those there are. Returns their numbers. */
export async function insertTransferLines(
  tx: Tx,
  transferId: number,
  lines: readonly NewTransferLine[],
): Promise<number[]> {
  const last = await tx.row<{ n: number }>(
    'SELECT COALESCE(MAX(line_no), 0) AS n FROM transfer_line WHERE transfer_id = :transferId',
    { transferId },
  );
  const first = Number(last?.n ?? 0) + 1;
  await tx.insertMany(
    `INSERT INTO transfer_line (transfer_id, line_no, item_id, asked, approved, shipped, shipped_value_minor, allocation_id, decision_id)`,
    lines.map((l, i) => [
      ...[transferId, first + i, l.itemId, l.asked, l.approved, l.shipped, l.shippedValue, l.allocationId],
      l.decisionId,
    ]),
  );
  return lines.map((_, i) => first + i);
}

export const lockTransfer = (tx: Tx, id: number) =>
  tx.row<TransferRow>(`SELECT ${columns} FROM transfer WHERE id = :id FOR UPDATE`, { id });

/** The transfer that decisions of the buyer are still being put on, locked: approved, asked for by nobody, not yet shipped. */
export async function lockOpenTransfer(
  tx: Tx,
  fromLocationId: number,
  toLocationId: number,
): Promise<TransferRow | null> {
  const found = await tx.row<{ id: number }>(
    `SELECT id FROM transfer WHERE from_location_id = :fromLocationId AND to_location_id = :toLocationId
        AND state = 'approved' AND requested_by IS NULL ORDER BY id DESC LIMIT 1`,
    { fromLocationId, toLocationId },
  );
  const row = found && (await lockTransfer(tx, found.id));
  return row?.state === 'approved' ? row : null;
}

export type TransferLineRow = {
  readonly id: number;
  readonly transferId: number;
  readonly lineNo: number;
  readonly itemId: number;
  readonly asked: string;
  readonly approved: string;
  readonly shipped: string;
  readonly shippedValue: number;
  readonly received: string;
  readonly receivedValue: number;
  readonly lost: string;
  readonly lostValue: number;
  readonly lostReason: string;
  readonly allocationId: number | null;
  readonly decisionId: number | null;
};

const lineColumns = `id, transfer_id AS transferId, line_no AS lineNo, item_id AS itemId, asked, approved, shipped,
  shipped_value_minor AS shippedValue, received, received_value_minor AS receivedValue, lost, lost_value_minor AS lostValue,
  lost_reason AS lostReason, allocation_id AS allocationId, decision_id AS decisionId`;

export const readTransferLines = (tx: Tx, transferId: number) =>
  tx.rows<TransferLineRow>(
    `SELECT ${lineColumns} FROM transfer_line WHERE transfer_id = :transferId ORDER BY line_no`,
    { transferId },
  );

export async function readLinesOf(tx: Tx, transferIds: readonly number[]): Promise<TransferLineRow[]> {
  const ids = list('id', transferIds);
  if (!ids) return [];
  return tx.rows<TransferLineRow>(
    `SELECT ${lineColumns} FROM transfer_line WHERE transfer_id IN (${ids.sql}) ORDER BY transfer_id, line_no`,
    ids.values,
  );
}

/** The transfers that these lines are of, by line. */
export async function readTransferOfLines(
  tx: Tx,
  lineIds: readonly number[],
): Promise<Map<number, { id: number; number: string; toLocationId: number }>> {
  const ids = list('id', lineIds);
  if (!ids) return new Map();
  const rows = await tx.rows<{ line: number; id: number; number: string; toLocationId: number }>(
    `SELECT l.id AS line, t.id, t.number, t.to_location_id AS toLocationId FROM transfer_line l
       JOIN transfer t ON t.id = l.transfer_id WHERE l.id IN (${ids.sql})`,
    ids.values,
  );
  return new Map(rows.map((r) => [r.line, r]));
}

/** A line of a request, or of a customer's order, that goods were bought or sent for one to one. */
export type PeggedLine = {
  readonly trayLineId: number | null;
  readonly decisionId: number;
  readonly lineId: number;
  /** Its request, or its order. */
  readonly headId: number;
  readonly promisedTo: string;
  readonly asked: string;
  readonly allocationId: number | null;
};

/** The lines of requests that these tray lines, or these decisions, are for one to one. */
export async function readPeggedLines(
  tx: Tx,
  trayLineIds: readonly number[],
  decisionIds: readonly number[],
): Promise<PeggedLine[]> {
  const [trays, decisions] = [list('tray', trayLineIds), list('decision', decisionIds)];
  if (!trays && !decisions) return [];
  const where = [
    ...(trays ? [`y.id IN (${trays.sql})`] : []),
    ...(decisions ? [`d.id IN (${decisions.sql})`] : []),
  ].join(' OR ');
  return tx.rows<PeggedLine>(
    `SELECT y.id AS trayLineId, d.id AS decisionId, l.id AS lineId, t.id AS headId,
            CONCAT(t.number, ' to ', p.name) AS promisedTo, l.asked, l.allocation_id AS allocationId
       FROM decision d JOIN need n ON n.id = d.need_id AND n.peg_of = 'transfer_line'
       LEFT JOIN tray_line y ON y.decision_id = d.id
       JOIN transfer_line l ON l.id = n.peg JOIN transfer t ON t.id = l.transfer_id JOIN location p ON p.id = t.to_location_id
      WHERE ${where}`,
    { ...trays?.values, ...decisions?.values },
  );
}

/** The line that a decision put on a transfer. */
export const findLineOfDecision = (tx: Tx, decisionId: number) =>
  tx.row<TransferLineRow>(`SELECT ${lineColumns} FROM transfer_line WHERE decision_id = :decisionId`, { decisionId });

/** What is approved of a line and promised for it; what was shipped, with its value. */
export const setApproved = (tx: Tx, id: number, approved: string, allocationId: SqlValue) =>
  tx.run('UPDATE transfer_line SET approved = :approved, allocation_id = :allocationId WHERE id = :id', {
    id,
    approved,
    allocationId,
  });

export const setShipped = (tx: Tx, id: number, shipped: string, value: number) =>
  tx.run('UPDATE transfer_line SET shipped = :shipped, shipped_value_minor = :value WHERE id = :id', {
    id,
    shipped,
    value,
  });

export const updateTransferLine = (
  tx: Tx,
  l: { id: number; received: string; receivedValue: number; lost: string; lostValue: number; lostReason: string },
) =>
  tx.run(
    `UPDATE transfer_line SET received = :received, received_value_minor = :receivedValue, lost = :lost,
            lost_value_minor = :lostValue, lost_reason = IF(:lostReason = '', lost_reason, :lostReason) WHERE id = :id`,
    l,
  );

/** Another state, and who took it there. */
export async function setTransferState(
  tx: Tx,
  id: number,
  state: TransferState,
  by: { readonly userId: number; readonly at: string; readonly because?: string },
): Promise<void> {
  const step = stepColumns[state];
  await tx.run(
    `UPDATE transfer SET state = :state, version = version + 1, refused_because = :because
            ${step ? `, ${step}_by = :userId, ${step}_at = :at` : ''} WHERE id = :id`,
    { id, state, because: by.because ?? '', ...(step ? { userId: by.userId, at: by.at } : {}) },
  );
}

export type TransferHead = TransferRow & {
  readonly businessDate: string;
  readonly requestedByName: string | null;
  readonly requestedAt: string | null;
  readonly approvedByName: string | null;
  readonly approvedAt: string | null;
  readonly shippedByName: string | null;
  readonly shippedAt: string | null;
};

const headSql = `SELECT t.id, t.number, t.from_location_id AS fromLocationId, t.to_location_id AS toLocationId, t.state,
    t.wanted_date AS wantedDate, t.note, t.refused_because AS refusedBecause, t.requested_by AS requestedBy, t.version,
    t.business_date AS businessDate, r.name AS requestedByName, t.requested_at AS requestedAt, a.name AS approvedByName,
    t.approved_at AS approvedAt, s.name AS shippedByName, t.shipped_at AS shippedAt
  FROM transfer t LEFT JOIN app_user r ON r.id = t.requested_by LEFT JOIN app_user a ON a.id = t.approved_by
  LEFT JOIN app_user s ON s.id = t.shipped_by`;

/** Transfers that somebody still has to do something about, or those that ended; newest first, at most so many. Only those
 *  from or to these places. */
export async function readTransferHeads(
  tx: Tx,
  which: 'open' | 'ended',
  locationIds: readonly number[] | null,
  limit = 300,
): Promise<TransferHead[]> {
  const states = which === 'open' ? "('requested', 'approved', 'shipped')" : "('received', 'refused', 'cancelled')";
  const at = locationIds === null ? null : list('at', locationIds);
  if (locationIds !== null && !at) return [];
  const where = at ? `AND (t.from_location_id IN (${at.sql}) OR t.to_location_id IN (${at.sql}))` : '';
  return tx.rows<TransferHead>(
    `${headSql} WHERE t.state IN ${states} ${where} ORDER BY t.id DESC LIMIT ${Math.trunc(limit)}`,
    at?.values ?? {},
  );
}

export const findTransfer = (tx: Tx, id: number) => tx.row<TransferHead>(`${headSql} WHERE t.id = :id`, { id });

/** Who wants goods of these items from a place: lines that are asked for and not decided, and suggestions to those supplied
 *  from there. transferId null = a suggestion. */
export async function readClaims(tx: Tx, sourceId: number, itemIds: readonly number[]) {
  const ids = list('id', itemIds);
  if (!ids) return [];
  return tx.rows<{
    itemId: number;
    locationId: number;
    asked: string;
    transferId: number | null;
    lineNo: number | null;
  }>(
    // What lies ready for a line is claimed from nobody.
    `SELECT l.item_id AS itemId, t.to_location_id AS locationId,
            l.asked - ${HELD} AS asked, t.id AS transferId, l.line_no AS lineNo
       FROM transfer t JOIN transfer_line l ON l.transfer_id = t.id LEFT JOIN allocation a ON a.id = l.allocation_id
      WHERE t.state = 'requested' AND t.from_location_id = :sourceId AND l.item_id IN (${ids.sql})
      UNION ALL
     SELECT n.item_id, n.location_id, n.suggested, CAST(NULL AS UNSIGNED), CAST(NULL AS UNSIGNED) FROM need n
      WHERE n.supply_location_id = :sourceId AND n.state = 'open' AND n.item_id IN (${ids.sql})`,
    { sourceId, ...ids.values },
  );
}
