import type { Barcode } from '@/core/codes';
import type { Tx } from '../sql';

export type ListKind = 'needs' | 'decisions' | 'trays' | 'orders' | 'items' | 'policies' | 'stock' | 'promises';

export type ListInsert = {
  readonly name: string;
  readonly userId: number;
  readonly kind: ListKind;
  readonly entries: Uint32Array;
  readonly prints: Uint32Array;
  readonly about: unknown;
  readonly at: string;
};

const bytes = (a: Uint32Array) => Buffer.from(a.buffer, a.byteOffset, a.byteLength);
const numbers = (b: Buffer) => {
  // A buffer of the driver may begin anywhere in its memory; numbers need a place divisible by four.
  const copy = Uint8Array.from(b);
  return new Uint32Array(copy.buffer, 0, Math.floor(copy.byteLength / 4));
};

export const insertList = (tx: Tx, l: ListInsert) =>
  tx.run(
    `INSERT INTO kept_list (name, user_id, kind, entries, prints, about, opened_at)
     VALUES (:name, :userId, :kind, :entries, :prints, :about, :at)`,
    { ...l, entries: bytes(l.entries), prints: bytes(l.prints), about: JSON.stringify(l.about) },
  );

/** Takes away a handful of lists opened before a moment. */
export const deleteOldLists = (tx: Tx, before: string) =>
  tx.run('DELETE FROM kept_list WHERE opened_at < :before ORDER BY opened_at LIMIT 50', { before });

export type ListRow = {
  readonly count: number;
  readonly about: unknown;
  readonly entries: Uint32Array;
  readonly prints: Uint32Array;
};

type Asked = { readonly name: string; readonly userId: number; readonly kind: ListKind };

/** A list of this person with its entries from one on, at most so many, and all of its prints if wanted; null when there
 *  is none. */
export async function readList(
  tx: Tx,
  { name, userId, kind }: Asked,
  { from = 0, most = 2 ** 29, prints = false } = {},
): Promise<ListRow | null> {
  const row = await tx.row<{ size: number; about: string; entries: Buffer; prints: Buffer }>(
    `SELECT LENGTH(entries) AS size, about, SUBSTRING(entries, :start, :bytes) AS entries,
            ${prints ? 'prints' : "''"} AS prints
       FROM kept_list WHERE name = :name AND user_id = :userId AND kind = :kind`,
    { name, userId, kind, start: 4 * from + 1, bytes: 4 * most },
  );
  return (
    row && {
      count: Number(row.size) / 4,
      about: JSON.parse(row.about),
      entries: numbers(row.entries),
      prints: numbers(Buffer.from(row.prints)),
    }
  );
}

/** An item by its number, or by a barcode as it is kept. */
const ITEM_OF_CODE = `(i.number = :code OR i.id IN (SELECT b.item_id FROM barcode b WHERE b.kind = :barcodeKind AND b.code = :barcode))`;

/** Ids of entries that a scanned code means, per kind of list. */
const codeQueries: Readonly<Record<ListKind, string>> = {
  items: `SELECT i.id FROM item i WHERE ${ITEM_OF_CODE}`,
  stock: `SELECT i.id FROM item i WHERE ${ITEM_OF_CODE}`,
  policies: `SELECT i.id FROM item i WHERE ${ITEM_OF_CODE}`,
  needs: `SELECT n.id FROM need n JOIN item i ON i.id = n.item_id WHERE ${ITEM_OF_CODE}`,
  trays: `SELECT t.id FROM tray_line t JOIN item i ON i.id = t.item_id WHERE ${ITEM_OF_CODE}`,
  decisions: `SELECT d.id FROM decision d JOIN need n ON n.id = d.need_id JOIN item i ON i.id = n.item_id
               WHERE ${ITEM_OF_CODE} ORDER BY d.id DESC`,
  promises: `SELECT l.id FROM customer_line l JOIN customer_order o ON o.id = l.order_id JOIN item i ON i.id = l.item_id
              WHERE o.number = :code OR ${ITEM_OF_CODE}`,
  orders: 'SELECT id FROM purchase_order WHERE number = :code',
};

export const readIdsByCode = async (tx: Tx, kind: ListKind, code: string, barcode: Barcode): Promise<number[]> =>
  (
    await tx.rows<{ id: number }>(
      codeQueries[kind],
      kind === 'orders' ? { code } : { code, barcodeKind: barcode.kind, barcode: barcode.code },
    )
  ).map((r) => r.id);
