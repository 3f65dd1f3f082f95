import type { Tx } from '../sql';
import type { OrderRow } from './orders';

/** The head of an order that is still to be sent. */
export const updateOrderHead = (
  tx: Tx,
  o: Pick<
    OrderRow,
    | 'id'
    | 'number'
    | 'ownNumber'
    | 'orderDate'
    | 'datedBecause'
    | 'wantedDate'
    | 'contact'
    | 'paymentTerms'
    | 'deliveryTerms'
    | 'supplierAddress'
    | 'invoiceAddress'
    | 'orderText'
    | 'internalNote'
  >,
) =>
  tx.run(
    `UPDATE purchase_order SET number = :number, own_number = :ownNumber, order_date = :orderDate, dated_because = :datedBecause,
            wanted_date = :wantedDate, contact = :contact, payment_terms = :paymentTerms, delivery_terms = :deliveryTerms,
            supplier_address = :supplierAddress, invoice_address = :invoiceAddress, order_text = :orderText, internal_note = :internalNote, version = version + 1
      WHERE id = :id`,
    o,
  );

/** Whether an order has this number already. */
export const isNumberTaken = async (tx: Tx, number: string, besides: number): Promise<boolean> =>
  (await tx.row('SELECT id FROM purchase_order WHERE number = :number AND id <> :besides', { number, besides })) !==
  null;
