import type { Tx } from '../sql';

/** Which database it is, and a stamp that changes whenever something that items are found by may have changed. */
export const readIndexStamp = async (tx: Tx): Promise<{ database: string; stamp: string }> => {
  const row = await tx.row<{ database: string; stamp: string }>(
    `SELECT DATABASE() AS \`database\`, CONCAT_WS('/', (SELECT CONCAT(COUNT(*), '.', COALESCE(SUM(version), 0), '.', COALESCE(MAX(id), 0)) FROM item),
            (SELECT CONCAT(COUNT(*), '.', COALESCE(SUM(version), 0), '.', COALESCE(MAX(id), 0)) FROM source),
            (SELECT CONCAT(COUNT(*), '.', COALESCE(SUM(CRC32(code)), 0), '.', COALESCE(SUM(item_id), 0)) FROM barcode)) AS stamp`,
  );
  return row ?? { database: '', stamp: '' };
};

/** What items are found by: name and numbers, of ours, the maker's and the suppliers', and codes on labels. */
export async function readIndexRows(tx: Tx): Promise<{ id: number; name: string; numbers: string[] }[]> {
  const items = (await tx.arrays('SELECT id, name, number, maker_number FROM item ORDER BY name, number')) as [
    number,
    string,
    string,
    string,
  ][];
  const rows = items.map(([id, name, number, makers]) => ({
    id,
    name,
    numbers: makers === '' ? [number] : [number, makers],
  }));
  const byId = new Map(rows.map((r) => [r.id, r]));
  const more = [
    ...((await tx.arrays("SELECT item_id, supplier_item_number FROM source WHERE supplier_item_number <> ''")) as [
      number,
      string,
    ][]),
    ...((await tx.arrays("SELECT item_id, IF(kind = 'gtin', TRIM(LEADING '0' FROM code), code) FROM barcode")) as [
      number,
      string,
    ][]),
  ];
  for (const [id, number] of more) byId.get(id)?.numbers.push(number);
  return rows;
}
