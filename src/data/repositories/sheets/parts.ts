import type { SqlValue, Tx } from '../../sql';
import { reader, writer } from './record';

/** Barcodes by their kept code; the number of the row for paging is that of its item, so a page may end within one. */
export const readBarcodeRecords = reader({
  select: `b.code, b.kind, i.number AS item, COALESCE(p.name, '') AS pack`,
  from: 'barcode b JOIN item i ON i.id = b.item_id LEFT JOIN pack p ON p.id = b.pack_id',
  id: 'b.item_id',
  key: ['b.kind', 'b.code'],
  by: { item: 'i.number' },
});
export const upsertBarcodes = writer('barcode', ['kind', 'code', 'item_id', 'pack_id']);

/** All barcodes of the next items. */
export const readBarcodePage = (tx: Tx, after: number, limit: number) =>
  tx.rows<{ _id: number; code: string; kind: string; item: string; pack: string }>(
    `SELECT b.item_id AS _id, b.code, b.kind, i.number AS item, COALESCE(p.name, '') AS pack
       FROM barcode b JOIN item i ON i.id = b.item_id LEFT JOIN pack p ON p.id = b.pack_id
      WHERE b.item_id IN (SELECT item_id FROM (SELECT DISTINCT item_id FROM barcode WHERE item_id > :after
                           ORDER BY item_id LIMIT ${Math.trunc(limit)}) x)
      ORDER BY b.item_id, b.kind, b.code`,
    { after },
  );

export const readFamilyRecords = reader({
  select: `f.name AS family, f.option_1, f.option_2, f.price_group, i.number AS item, i.option_1 AS value_1, i.option_2 AS value_2`,
  from: 'item i JOIN item_family f ON f.id = i.family_id',
  id: 'i.id',
  key: 'i.number',
  by: { family: 'f.name', item: 'i.number' },
});
export const upsertFamilies = writer(
  'item_family',
  ['name', 'option_1', 'option_2', 'price_group'],
  'version = item_family.version + 1',
);
export const linkMember = (tx: Tx, m: { item: number; family: string; value1: string; value2: string }) =>
  tx.run(
    `UPDATE item i JOIN item_family f ON f.name = :family
        SET i.family_id = f.id, i.option_1 = :value1, i.option_2 = :value2 WHERE i.id = :item`,
    m,
  );

export const readKitRecords = reader({
  select: 'k.number AS kit, c.number AS component, x.quantity',
  from: 'kit_component x JOIN item k ON k.id = x.kit_id JOIN item c ON c.id = x.component_id',
  id: 'x.kit_id',
  key: ['k.number', 'c.number'],
  by: { kit: 'k.number' },
});
export const readKitPage = (tx: Tx, after: number, limit: number) =>
  tx.rows<{ _id: number; kit: string; component: string; quantity: string }>(
    `SELECT x.kit_id AS _id, k.number AS kit, c.number AS component, x.quantity
       FROM kit_component x JOIN item k ON k.id = x.kit_id JOIN item c ON c.id = x.component_id
      WHERE x.kit_id IN (SELECT kit_id FROM (SELECT DISTINCT kit_id FROM kit_component WHERE kit_id > :after
                          ORDER BY kit_id LIMIT ${Math.trunc(limit)}) y)
      ORDER BY x.kit_id, x.component_id`,
    { after },
  );
export const upsertKits = writer('kit_component', ['kit_id', 'component_id', 'quantity']);
export const readKitContents = (tx: Tx) =>
  tx.rows<{ kit: string; component: string }>(
    'SELECT k.number AS kit, c.number AS component FROM kit_component x JOIN item k ON k.id = x.kit_id JOIN item c ON c.id = x.component_id',
  );

export const deleteBarcodes = (tx: Tx, codes: readonly (readonly SqlValue[])[]) =>
  tx.rowsOf('DELETE FROM barcode WHERE (kind, code) IN (?)', codes);
export const deleteComponents = (tx: Tx, pairs: readonly (readonly SqlValue[])[]) =>
  tx.rowsOf('DELETE FROM kit_component WHERE (kit_id, component_id) IN (?)', pairs);
/** Takes items out of their family. */
export const unlinkMembers = (tx: Tx, itemIds: readonly number[]) =>
  tx.rowsOf("UPDATE item SET family_id = NULL, option_1 = '', option_2 = '' WHERE id IN (?)", itemIds);
