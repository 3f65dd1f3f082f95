import type { Refill, Trigger } from '@/core/policy';
import type { Tx } from '../sql';

export type Company = {
  name: string;
  currency: string;
  timeZone: string;
  trigger: Trigger;
  refill: Refill;
  invoiceAddress: string;
  needsAsOf: string | null;
  /** The day for which use per day was last measured. */
  demandAsOf: string | null;
  /** Nothing is posted on or before this day. */
  booksClosedTo: string | null;
  /** Sender of mail to suppliers. */
  mailFrom: string;
};

export type Location = { id: number; code: string; name: string; kind: 'shop' | 'warehouse'; address: string };

export async function readCompany(tx: Tx): Promise<Company> {
  const row = await tx.row<Company>(
    `SELECT name, currency, time_zone AS timeZone, trigger_rule AS \`trigger\`, refill_rule AS refill,
            invoice_address AS invoiceAddress, needs_as_of AS needsAsOf, demand_as_of AS demandAsOf,
            books_closed_to AS booksClosedTo, mail_from AS mailFrom
       FROM company WHERE id = 1`,
  );
  if (!row) throw new Error('the company is not set up');
  return row;
}

export const setNeedsAsOf = (tx: Tx, date: string) =>
  tx.run('UPDATE company SET needs_as_of = :date WHERE id = 1', { date });

export const setDemandAsOf = (tx: Tx, date: string) =>
  tx.run('UPDATE company SET demand_as_of = :date WHERE id = 1', { date });

/** Places where people work; transit is none of them. */
export const readLocations = (tx: Tx) =>
  tx.rows<Location>(
    "SELECT id, code, name, kind, address FROM location WHERE kind <> 'transit' ORDER BY sort_order, id",
  );

/** The place on whose levels goods stand between two others. */
export async function readTransit(tx: Tx): Promise<number> {
  const row = await tx.row<{ id: number }>("SELECT id FROM location WHERE kind = 'transit'");
  if (!row) throw new Error('the company has no place of kind transit');
  return row.id;
}

/** The last day of the closed books, null while none is closed. Held until the transaction ends: while something is
 *  being posted nobody closes its day. */
export const holdBooksClosedTo = async (tx: Tx): Promise<string | null> =>
  (await tx.row<{ to: string | null }>('SELECT books_closed_to AS `to` FROM company WHERE id = 1 LOCK IN SHARE MODE'))
    ?.to ?? null;

export const setBooksClosedTo = (tx: Tx, date: string | null) =>
  tx.run('UPDATE company SET books_closed_to = :date WHERE id = 1', { date });

export const lockBooksClosedTo = async (tx: Tx): Promise<string | null> =>
  (await tx.row<{ to: string | null }>('SELECT books_closed_to AS `to` FROM company WHERE id = 1 FOR UPDATE'))?.to ??
  null;

export type PlanningRules = { readonly trigger: Trigger; readonly refill: Refill };

export async function lockRules(tx: Tx): Promise<PlanningRules> {
  const row = await tx.row<PlanningRules>(
    'SELECT trigger_rule AS `trigger`, refill_rule AS refill FROM company WHERE id = 1 FOR UPDATE',
  );
  if (!row) throw new Error('the company is not set up');
  return row;
}

export const updateRules = (tx: Tx, { trigger, refill }: PlanningRules) =>
  tx.run('UPDATE company SET trigger_rule = :trigger, refill_rule = :refill WHERE id = 1', { trigger, refill });
