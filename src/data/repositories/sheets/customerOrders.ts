import type { Column } from '@/core/sheets';
import type { Tx } from '../../sql';
import { readRecords, type Wanted } from './record';

/** Lines of customers' orders that came in a file, each with the number it has there. */
export const readCustomerOrderRecords = (tx: Tx, columns: readonly Column[], wanted: Wanted, lock: boolean) =>
  readRecords(
    tx,
    columns,
    {
      select: `o.reference AS order_number, c.name AS customer, c.mail, o.ordered_on, o.delivers = 'complete' AS only_complete,
               i.number AS item, p.code AS location, l.pack_quantity AS packs, COALESCE(k.name, '') AS pack,
               l.way = 'from_stock' AS to_be_sent, l.wanted_date AS wanted_on, l.ship_by`,
      from: `customer_line l JOIN customer_order o ON o.id = l.order_id AND o.channel = 'file' JOIN customer c ON c.id = o.customer_id
             JOIN item i ON i.id = l.item_id JOIN location p ON p.id = l.location_id LEFT JOIN pack k ON k.id = l.pack_id`,
      id: 'l.id',
      key: ['o.reference', 'i.number', 'p.code', 'l.wanted_date'],
    },
    wanted,
    lock,
  );
