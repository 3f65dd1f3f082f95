import type { SqlValue, Tx } from '../../sql';
import { LIVE } from '../orderStates';
import { reader, writer } from './record';

export const readPatternRecords = reader({
  select: 'p.pattern, p.pack, p.content, p.of_pack, p.unit, p.buying, p.selling, p.sending',
  from: 'pack_pattern p',
  id: 'p.id',
  key: ['p.pattern', 'p.pack'],
  by: { pattern: 'p.pattern' },
});
export const upsertPatterns = writer('pack_pattern', [
  ...['pattern', 'pack', 'content', 'of_pack', 'unit', 'buying', 'selling', 'sending'],
]);

export const readSalePriceRecords = reader({
  select: `i.number AS item, COALESCE(k.name, '') AS pack, COALESCE(l.code, '') AS location, x.amount, x.with_tax, x.tax_rate`,
  from: `sale_price x JOIN item i ON i.id = x.item_id LEFT JOIN pack k ON k.id = x.pack_id
         LEFT JOIN location l ON l.id = x.location_id`,
  id: 'x.id',
  key: ['i.number', "COALESCE(k.name, '')", "COALESCE(l.code, '')"],
  by: { item: 'i.number' },
});
export const upsertSalePrices = writer('sale_price', [
  ...['item_id', 'pack_id', 'location_id', 'amount', 'with_tax', 'tax_rate'],
]);

export const readItemPlaceRecords = reader({
  select: `i.number AS item, l.code AS location, x.shelf, x.straight, COALESCE(p.code, '') AS straight_supplier`,
  from: `item_place x JOIN item i ON i.id = x.item_id JOIN location l ON l.id = x.location_id
         LEFT JOIN supplier p ON p.id = x.straight_supplier_id`,
  id: 'x.item_id',
  key: ['i.number', 'l.code'],
  by: { item: 'i.number' },
});
/** All places of the next items. */
export const readItemPlacePage = (tx: Tx, after: number, limit: number) =>
  tx.rows<Record<string, SqlValue>>(
    `SELECT x.item_id AS _id, i.number AS item, l.code AS location, x.shelf, x.straight, COALESCE(p.code, '') AS straight_supplier
       FROM item_place x JOIN item i ON i.id = x.item_id JOIN location l ON l.id = x.location_id
       LEFT JOIN supplier p ON p.id = x.straight_supplier_id
      WHERE x.item_id IN (SELECT item_id FROM (SELECT DISTINCT item_id FROM item_place WHERE item_id > :after
                           ORDER BY item_id LIMIT ${Math.trunc(limit)}) y)
      ORDER BY x.item_id, x.location_id`,
    { after },
  );
export const upsertItemPlaces = writer('item_place', [
  ...['item_id', 'location_id', 'shelf', 'straight', 'straight_supplier_id'],
]);
export const deleteItemPlaces = (tx: Tx, pairs: readonly (readonly SqlValue[])[]) =>
  tx.rowsOf('DELETE FROM item_place WHERE (item_id, location_id) IN (?)', pairs);

export const readSourcePlaceRecords = reader({
  select: 'i.number AS item, p.code AS supplier, l.code AS location, x.preference AS `rank`, x.share_percent',
  from: `source_place x JOIN source s ON s.id = x.source_id JOIN item i ON i.id = s.item_id JOIN supplier p ON p.id = s.supplier_id
         JOIN location l ON l.id = x.location_id`,
  id: 'x.id',
  key: ['i.number', 'p.code', 'l.code'],
  by: { item: 'i.number', supplier: 'p.code' },
});
export const upsertSourcePlaces = writer('source_place', ['source_id', 'location_id', 'preference', 'share_percent']);

export const readContactRecords = reader({
  select: 'p.code AS supplier, x.name, x.kind, x.address, x.email, x.phone, x.note',
  from: 'supplier_contact x JOIN supplier p ON p.id = x.supplier_id',
  id: 'x.id',
  key: ['p.code', 'x.name'],
  by: { supplier: 'p.code' },
});
export const upsertContacts = writer('supplier_contact', [
  ...['supplier_id', 'name', 'kind', 'address', 'email', 'phone', 'note'],
]);

export const readClosureRecords = reader({
  select: 'p.code AS supplier, x.from_day, x.to_day, x.name',
  from: 'closed_days x JOIN supplier p ON p.id = x.supplier_id',
  id: 'x.id',
  key: ['p.code', 'x.from_day'],
  by: { supplier: 'p.code' },
});
export const readHolidayRecords = reader({
  select: "COALESCE(l.code, '') AS location, x.from_day, x.to_day, x.name",
  from: 'closed_days x LEFT JOIN location l ON l.id = x.location_id',
  id: 'IF(x.supplier_id IS NULL, x.id, 0)',
  key: ["IF(x.supplier_id IS NULL, COALESCE(l.code, ''), '\\u001f')", 'x.from_day'],
  by: { location: "IF(x.supplier_id IS NULL, COALESCE(l.code, ''), '\\u001f')" },
});
export const upsertClosedDays = writer('closed_days', ['supplier_id', 'location_id', 'from_day', 'to_day', 'name']);

export const readShippingRecords = reader({
  select: 'w.name, w.note',
  from: 'shipping_way w',
  id: 'w.id',
  key: 'w.name',
});
export const upsertShippingWays = writer('shipping_way', ['name', 'note']);

export const readReasonRecords = reader({
  select: 'q.name, q.own_use, q.note',
  from: 'stock_reason q',
  id: 'q.id',
  key: 'q.name',
});
export const upsertReasons = writer('stock_reason', ['name', 'own_use', 'note']);

export const readChargeRecords = reader({
  select: `COALESCE(p.code, '') AS supplier, x.name, x.position, x.sign, x.amount_kind, x.amount, x.currency, x.on_charges,
           x.spread, x.into_cost, x.account`,
  from: 'charge_type x LEFT JOIN supplier p ON p.id = x.supplier_id',
  id: 'x.id',
  key: ["COALESCE(p.code, '')", 'x.name'],
  by: { supplier: "COALESCE(p.code, '')" },
});
export const upsertCharges = writer('charge_type', [
  ...['supplier_id', 'name', 'position', 'sign', 'amount_kind', 'amount', 'currency', 'on_charges', 'spread'],
  ...['into_cost', 'account'],
]);

export const readDutyRecords = reader({
  select: 'd.hs_prefix, d.origin, d.percent, d.valid_from, d.valid_to',
  from: 'duty_rate d',
  id: 'd.id',
  key: ['d.hs_prefix', 'd.origin', 'd.valid_from'],
});
export const upsertDutyRates = writer('duty_rate', ['hs_prefix', 'origin', 'percent', 'valid_from', 'valid_to']);

export const readTaxRecords = reader({
  select: 't.category, t.percent, t.own_use_percent, t.usual, t.valid_from, t.valid_to',
  from: 'tax_rate t',
  id: 't.id',
  key: ['t.category', 't.valid_from'],
});
export const upsertTaxRates = writer('tax_rate', [
  ...['category', 'percent', 'own_use_percent', 'usual', 'valid_from', 'valid_to'],
]);

export const readJobMaterialRecords = reader({
  select: 'm.job, i.number AS item, l.code AS location, m.quantity, m.needed_on, m.name, m.done',
  from: 'job_material m JOIN item i ON i.id = m.item_id JOIN location l ON l.id = m.location_id',
  id: 'm.id',
  key: ['m.job', 'i.number', 'l.code'],
});
export const upsertJobMaterials = writer('job_material', [
  ...['job', 'item_id', 'location_id', 'quantity', 'needed_on', 'name', 'done'],
]);

export const readCategoryTerms = (tx: Tx) =>
  tx.rows<{ id: number; buyer: string | null; account: string }>(
    'SELECT c.id, u.login AS buyer, c.account FROM category c LEFT JOIN app_user u ON u.id = c.buyer_id ORDER BY c.id',
  );
export const setCategoryTerms = (tx: Tx, id: number, buyerId: number | null, account: string) =>
  tx.run('UPDATE category SET buyer_id = :buyerId, account = :account WHERE id = :id', { id, buyerId, account });

/** What of a place is not over, by its id: what stands in the way of closing it, each with how many there are. */
export async function readInTheWay(tx: Tx, locationIds: readonly number[]) {
  if (locationIds.length === 0) return [];
  return tx.rowsOf<{
    id: number;
    what: 'stock' | 'orders' | 'trays' | 'transfers' | 'promises' | 'waiting' | 'supplies';
    n: number;
    named: string;
  }>(
    `SELECT x.id, x.what, COUNT(DISTINCT x.thing) AS n, SUBSTRING(GROUP_CONCAT(DISTINCT x.named ORDER BY x.named SEPARATOR ', '), 1, 200) AS named FROM (
       SELECT v.location_id AS id, 'stock' AS what, i.id AS thing, i.number AS named FROM level v JOIN item i ON i.id = v.item_id
        WHERE v.on_hand <> 0 OR v.inspection <> 0 OR v.blocked <> 0
       UNION ALL
       SELECT d.location_id, 'orders', o.id, COALESCE(o.number, CONCAT('draft of ', s.name)) FROM purchase_order o JOIN supplier s ON s.id = o.supplier_id
         JOIN order_line l ON l.order_id = o.id JOIN delivery_part d ON d.order_line_id = l.id
        WHERE o.state IN ${LIVE} AND d.base_quantity > d.received_quantity + d.cancelled_quantity
       UNION ALL
       SELECT t.location_id, 'trays', t.id, i.number FROM tray_line t JOIN item i ON i.id = t.item_id WHERE t.state = 'in_tray'
       UNION ALL
       SELECT p.id, 'transfers', t.id, t.number FROM transfer t JOIN location p ON p.id IN (t.from_location_id, t.to_location_id)
        WHERE t.state = 'shipped'
       UNION ALL
       SELECT a.location_id, 'promises', a.id, i.number FROM allocation a JOIN item i ON i.id = a.item_id WHERE a.state = 'held'
       UNION ALL
       SELECT l.location_id, 'waiting', o.id, o.number FROM customer_order o JOIN customer_line l ON l.order_id = o.id
        WHERE o.state = 'open' AND l.base_quantity > l.handed_over + l.cancelled
       UNION ALL
       SELECT l.supplied_by_id, 'supplies', l.id, l.code FROM location l WHERE l.supplied_by_id IS NOT NULL AND l.status = 'active'
     ) x WHERE x.id IN (?) GROUP BY x.id, x.what ORDER BY x.id, x.what`,
    locationIds,
  );
}
