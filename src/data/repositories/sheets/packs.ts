import type { Column } from '@/core/sheets';
import { list, type SqlValue, type Tx } from '../../sql';
import { readRecords, upsertMany, type Wanted } from './record';

const sql = {
  select: `i.number AS item, p.name AS pack, IF(p.count_text = '', IF(p.count_den = 1, p.count_num, CONCAT(p.count_num, '/', p.count_den)), p.count_text) AS content,
           COALESCE(o.name, '') AS of_pack, p.count_unit AS unit, p.weight_kg, p.volume_l,
           COALESCE(i.usual_buy_pack_id = p.id, 0) AS buying, COALESCE(i.usual_sell_pack_id = p.id, 0) AS selling,
           COALESCE(i.usual_send_pack_id = p.id, 0) AS sending`,
  from: 'pack p JOIN item i ON i.id = p.item_id LEFT JOIN pack o ON o.id = p.of_pack_id',
  id: 'p.id',
  key: ['i.number', 'p.name'],
  by: { item: 'i.number' },
};

export const readPackRecords = (tx: Tx, columns: readonly Column[], wanted: Wanted, lock: boolean) =>
  readRecords(tx, columns, sql, wanted, lock);

export const packColumns = [
  'item_id',
  'name',
  'count_num',
  'count_den',
  'count_text',
  'count_unit',
  'weight_kg',
  'volume_l',
];

export const upsertPacks = (tx: Tx, rows: readonly (readonly SqlValue[])[]) =>
  upsertMany(tx, 'pack', packColumns, rows, 'version = pack.version + 1');

export const linkOuterPack = (tx: Tx, itemId: number, name: string, of: string) =>
  tx.run(
    `UPDATE pack p LEFT JOIN pack o ON o.item_id = p.item_id AND o.name = :of SET p.of_pack_id = o.id
      WHERE p.item_id = :itemId AND p.name = :name`,
    { itemId, name, of },
  );

const usual = { buying: 'usual_buy_pack_id', selling: 'usual_sell_pack_id', sending: 'usual_send_pack_id' } as const;
export type UsualPack = keyof typeof usual;

/** Makes a pack the usual one of its item for something, or no longer so. */
export const setUsualPack = (tx: Tx, itemId: number, name: string, what: UsualPack, is: boolean) =>
  tx.run(
    `UPDATE item i JOIN pack p ON p.item_id = i.id AND p.name = :name
        SET i.${usual[what]} = ${is ? 'p.id' : `IF(i.${usual[what]} = p.id, NULL, i.${usual[what]})`} WHERE i.id = :itemId`,
    { itemId, name },
  );

export type PackLink = { itemNumber: string; name: string; of: string | null };

/** Packs that hold other packs, of all items. */
export const readPacksOfPacks = (tx: Tx) =>
  tx.rows<PackLink>(
    `SELECT i.number AS itemNumber, p.name, o.name AS \`of\` FROM pack p JOIN item i ON i.id = p.item_id
       JOIN pack o ON o.id = p.of_pack_id`,
  );

/** Pack ids by item and name. */
export async function readPackIds(tx: Tx, itemIds: readonly number[]): Promise<Map<string, number>> {
  const ids = list('id', itemIds);
  if (!ids) return new Map();
  const rows = await tx.rows<{ id: number; itemId: number; name: string }>(
    `SELECT id, item_id AS itemId, name FROM pack WHERE item_id IN (${ids.sql})`,
    ids.values,
  );
  return new Map(rows.map((r) => [`${r.itemId} ${r.name}`, r.id]));
}
