import type { OrderCharge } from '@/core/landed';
import type { Tx } from '../sql';

const listed = (text: string): string[] => text.split(';').flatMap((t) => t.trim() || []);

type Row = Omit<OrderCharge, 'onCharges' | 'onlyLines' | 'billed' | 'leftOut'> & {
  readonly onCharges: string;
  readonly onlyLines: string;
  readonly billed: number;
  readonly leftOut: number;
};

/** What was said for the charges of an order; all of them once they are kept. */
export const readOwnCharges = async (tx: Tx, orderId: number): Promise<OrderCharge[]> =>
  (
    await tx.rows<Row>(
      `SELECT name, position, sign, amount_kind AS amountKind, TRIM(TRAILING '.' FROM TRIM(TRAILING '0' FROM amount)) AS amount,
              currency, on_charges AS onCharges, spread, into_cost AS \`into\`, account, billed, only_lines AS onlyLines, origin,
              left_out AS leftOut
         FROM order_charge WHERE order_id = :orderId ORDER BY position, name`,
      { orderId },
    )
  ).map((r) => ({
    ...r,
    onCharges: listed(r.onCharges),
    onlyLines: listed(r.onlyLines).map(Number),
    billed: r.billed === 1,
    leftOut: r.leftOut === 1,
  }));

/** Says a charge of an order, or says it otherwise. */
export const putOrderCharges = (tx: Tx, orderId: number, charges: readonly OrderCharge[]) =>
  tx.insertMany(
    `INSERT INTO order_charge (order_id, name, position, sign, amount_kind, amount, currency, on_charges, spread, into_cost, account,
       billed, only_lines, origin, left_out)`,
    charges.map((c) => [
      ...[
        orderId,
        c.name,
        c.position,
        c.sign,
        c.amountKind,
        c.amount,
        c.currency,
        c.onCharges.join(';'),
        c.spread,
        c.into,
      ],
      ...[c.account, c.billed ? 1 : 0, c.onlyLines.join(';'), c.origin, c.leftOut ? 1 : 0],
    ]),
    `ON DUPLICATE KEY UPDATE sign = VALUES(sign), amount_kind = VALUES(amount_kind), amount = VALUES(amount), currency = VALUES(currency),
       on_charges = VALUES(on_charges), spread = VALUES(spread), into_cost = VALUES(into_cost), account = VALUES(account),
       billed = VALUES(billed), only_lines = VALUES(only_lines), left_out = VALUES(left_out), position = VALUES(position)`,
  );

/** A charge is as its supplier has it again, or, added by hand, none. */
export const removeOrderCharge = (tx: Tx, orderId: number, name: string) =>
  tx.run('DELETE FROM order_charge WHERE order_id = :orderId AND name = :name', { orderId, name });

/** From now on an order has these charges, whatever its supplier's terms become. */
export async function keepOrderCharges(tx: Tx, orderId: number, charges: readonly OrderCharge[]): Promise<void> {
  await tx.run('DELETE FROM order_charge WHERE order_id = :orderId', { orderId });
  if (charges.length > 0)
    await putOrderCharges(
      tx,
      orderId,
      charges.map((c, i) => ({ ...c, position: i + 1 })),
    );
  await tx.run('UPDATE purchase_order SET charges_kept = 1 WHERE id = :orderId', { orderId });
}
