import type { Column } from '@/core/sheets';
import type { Tx } from '../../sql';
import type { SupplierRow } from '../catalogue';
import { BOOKED } from '../orderStates';
import { readRecords, type Wanted } from './record';

/** Lines of orders with their number, one record per delivery part; not those that count nothing any more, nor what came
 *  without being ordered. */
export const readOrderRecords = (tx: Tx, columns: readonly Column[], wanted: Wanted, lock: boolean) =>
  readRecords(
    tx,
    columns,
    {
      select: `o.number AS order_number, s.code AS supplier, o.order_date AS ordered_on, i.number AS item, p.code AS location,
               d.pack_quantity AS packs, COALESCE(k.name, '') AS pack, l.price_amount AS price, l.price_per AS per_quantity,
               d.wanted_date AS wanted_on, d.promised_date AS promised_on`,
      from: `delivery_part d JOIN order_line l ON l.id = d.order_line_id AND l.unordered = 0 AND d.base_quantity > 0
             JOIN purchase_order o ON o.id = l.order_id AND o.state IN ${BOOKED} JOIN supplier s ON s.id = o.supplier_id
             JOIN item i ON i.id = l.item_id JOIN location p ON p.id = d.location_id LEFT JOIN pack k ON k.id = l.pack_id`,
      id: 'd.id',
      key: ['o.number', 'i.number', 'p.code', 'd.wanted_date'],
    },
    wanted,
    lock,
  );

export const lockOrderByNumber = (tx: Tx, number: string) =>
  tx.row<{ id: number; supplierId: number; lines: number }>(
    `SELECT o.id, o.supplier_id AS supplierId, (SELECT COUNT(*) FROM order_line l WHERE l.order_id = o.id) AS \`lines\`
       FROM purchase_order o WHERE o.number = :number FOR UPDATE`,
    { number },
  );

/** An order that was sent before it came here; its number is the one typed. */
export const insertSentOrder = async (
  tx: Tx,
  o: { number: string; orderDate: string; userId: number; at: string },
  { id: supplierId, currency, paymentTerms, deliveryTerms, address }: SupplierRow,
): Promise<number> =>
  (
    await tx.run(
      `INSERT INTO purchase_order (number, supplier_id, state, order_date, currency, payment_terms, delivery_terms,
         supplier_address, created_by, created_at, approved_by, approved_at, sent_by, sent_at, sent_how)
       VALUES (:number, :supplierId, 'sent', :orderDate, :currency, :paymentTerms, :deliveryTerms,
         :address, :userId, :at, :userId, :at, :userId, :at, 'printed')`,
      { ...o, supplierId, currency, paymentTerms, deliveryTerms, address },
    )
  ).id;

export const setPromised = (tx: Tx, lineId: number, promised: string) =>
  tx.run('UPDATE delivery_part SET promised_date = :promised WHERE order_line_id = :lineId', { lineId, promised });
