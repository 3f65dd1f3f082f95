import type { SqlValue, Tx } from '../sql';

export type NewStockDocument = {
  readonly number: string;
  readonly kind: 'sale' | 'count';
  readonly locationId: number;
  readonly businessDate: string;
  readonly note: string;
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
  }[],
): Promise<number> {
  const { id } = await tx.run(
    `INSERT INTO stock_document (number, kind, location_id, business_date, note, posted_by, posted_at)
     VALUES (:number, :kind, :locationId, :businessDate, :note, :userId, :at)`,
    document,
  );
  await tx.insertMany(
    'INSERT INTO stock_document_line (document_id, line_no, item_id, quantity, expected, allocation_id, moves_stock)',
    lines.map((l, i) => [id, i + 1, l.itemId, l.quantity, l.expected, l.allocationId, l.movesStock ? 1 : 0]),
  );
  return id;
}
