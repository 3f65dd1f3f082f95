import type { SqlValue, Tx } from '../sql';

export type NewStockDocument = {
  readonly number: string;
  readonly kind: 'sale' | 'count' | 'correction';
  readonly locationId: number;
  readonly businessDate: string;
  readonly note: string;
  /** Of a correction. */
  readonly reasonId: number | null;
  readonly userId: number;
  readonly at: string;
};

/** A posted sale or count; it is never changed afterwards. */
export async function insertStockDocument(
  tx: Tx,
  document: NewStockDocument,
  lines: readonly {
    itemId: number;
    quantity: string;
    expected: SqlValue;
    allocationId: SqlValue;
    movesStock: boolean;
    /** The line of the kit that took this. */
    kitLine?: SqlValue;
    /** Why this line differs, of a count. */
    reasonId?: SqlValue;
  }[],
): Promise<number> {
  const { id } = await tx.run(
    `INSERT INTO stock_document (number, kind, location_id, business_date, note, reason_id, posted_by, posted_at)
     VALUES (:number, :kind, :locationId, :businessDate, :note, :reasonId, :userId, :at)`,
    document,
  );
  await tx.insertMany(
    'INSERT INTO stock_document_line (document_id, line_no, item_id, quantity, expected, allocation_id, moves_stock, kit_line, reason_id)',
    lines.map((l, i) => [
      ...[id, i + 1, l.itemId, l.quantity, l.expected, l.allocationId, l.movesStock ? 1 : 0],
      ...[l.kitLine ?? null, l.reasonId ?? null],
    ]),
  );
  return id;
}
