import type { Tx } from '../sql';

export type FoundItem = { readonly id: number; readonly number: string; readonly name: string; readonly unit: string };
export type FoundOrder = {
  readonly id: number;
  readonly number: string | null;
  readonly supplier: string;
  readonly state: string;
  readonly orderDate: string;
};

const LIMIT = 7;

/** Items that have exactly this number or this code on a label (`gtin`: its 14-digit form, if it is one). */
export const findByCode = async (tx: Tx, text: string, gtin: string): Promise<number[]> =>
  (
    await tx.rows<{ id: number }>(
      `SELECT b.item_id AS id FROM barcode b WHERE (b.kind = 'gtin' AND b.code = :gtin) OR (b.kind = 'internal' AND b.code = :text)
       UNION SELECT i.id FROM item i WHERE i.number = :text LIMIT ${LIMIT}`,
      { text, gtin },
    )
  ).map((r) => r.id);

/** The same of many codes, by their texts; none where nothing has it. */
export async function findByCodes(
  tx: Tx,
  codes: readonly { readonly text: string; readonly gtin: string }[],
): Promise<Map<string, number[]>> {
  const texts = codes.map((c) => c.text);
  const gtins = codes.flatMap((c) => (c.gtin === '' ? [] : [c.gtin]));
  const barcodes = (kind: 'gtin' | 'internal') =>
    `SELECT code, item_id AS id FROM barcode WHERE kind = '${kind}' AND code IN (?)`;
  const ids = async (sql: string, of: readonly string[]) =>
    new Map((await tx.rowsOf<{ code: string; id: number }>(sql, of)).map((r) => [r.code, r.id]));
  const byGtin = await ids(barcodes('gtin'), gtins);
  const byLabel = await ids(barcodes('internal'), texts);
  const byNumber = await ids('SELECT number AS code, id FROM item WHERE number IN (?)', texts);
  return new Map(
    codes.map(({ text, gtin }) => {
      const found = [byGtin.get(gtin), byLabel.get(text), byNumber.get(text)];
      return [text, [...new Set(found.filter((id) => id !== undefined))]];
    }),
  );
}

/** These items, in the order of their ids given. */
export async function readFoundItems(tx: Tx, ids: readonly number[]): Promise<FoundItem[]> {
  const rows = await tx.rowsOf<FoundItem>('SELECT id, number, name, unit_name AS unit FROM item WHERE id IN (?)', ids);
  const byId = new Map(rows.map((r) => [r.id, r]));
  return ids.flatMap((id) => byId.get(id) ?? []);
}

/** Orders by their number, or of a supplier whose name holds the text; newest first. */
export const findOrders = (tx: Tx, text: string) =>
  tx.rows<FoundOrder>(
    `SELECT o.id, o.number, s.name AS supplier, o.state, o.order_date AS orderDate
       FROM purchase_order o JOIN supplier s ON s.id = o.supplier_id
      WHERE o.state <> 'put_back' AND (LOCATE(:text, o.number) > 0 OR LOCATE(:text, s.name) > 0)
      ORDER BY o.id DESC LIMIT ${LIMIT}`,
    { text },
  );
