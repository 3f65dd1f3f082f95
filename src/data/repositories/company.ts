import type { Refill, Trigger } from '@/core/policy';
import type { CostOrder } from '@/core/sourcing';
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
  /** Which cost is proposed first where no supplier's price applies. */
  costOrder: CostOrder;
  /** What own item numbers begin with. */
  itemPrefix: string;
};

export type Location = {
  id: number;
  code: string;
  name: string;
  kind: 'shop' | 'warehouse';
  address: string;
  invoiceAddress: string;
  closed: number;
};

export async function readCompany(tx: Tx): Promise<Company> {
  const row = await tx.row<Company>(
    `SELECT name, currency, time_zone AS timeZone, trigger_rule AS \`trigger\`, refill_rule AS refill,
            invoice_address AS invoiceAddress, needs_as_of AS needsAsOf, demand_as_of AS demandAsOf,
            books_closed_to AS booksClosedTo, mail_from AS mailFrom, cost_order AS costOrder, item_prefix AS itemPrefix
       FROM company WHERE id = 1`,
  );
  if (!row) throw new Error('the company is not set up');
  return row;
}

/** Whether there is a company yet. */
export const isFounded = async (tx: Tx): Promise<boolean> =>
  (await tx.row<{ id: number }>('SELECT id FROM company WHERE id = 1')) !== null;

/** The company with the rules that planning begins with, and the place where goods stand between two others.
 *  Errors: a duplicate when there is one already. */
export async function insertCompany(tx: Tx, c: { name: string; currency: string; timeZone: string }): Promise<void> {
  await tx.run(
    `INSERT INTO company (id, name, currency, time_zone, trigger_rule, refill_rule, invoice_address)
     VALUES (1, :name, :currency, :timeZone, 'at_or_below', 'up_to_max', '')`,
    c,
  );
  await tx.run(
    `INSERT INTO location (code, name, kind, address, sort_order) VALUES ('TRANSIT', 'In transit', 'transit', '', 32000)`,
  );
}

export const setNeedsAsOf = (tx: Tx, date: string) =>
  tx.run('UPDATE company SET needs_as_of = :date WHERE id = 1', { date });

export const setDemandAsOf = (tx: Tx, date: string | null) =>
  tx.run('UPDATE company SET demand_as_of = :date WHERE id = 1', { date });

/** Places where people work; transit is none of them. */
export const readLocations = (tx: Tx) =>
  tx.rows<Location>(
    `SELECT id, code, name, kind, address, invoice_address AS invoiceAddress, status = 'closed' AS closed
       FROM location WHERE kind <> 'transit' ORDER BY sort_order, id`,
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

export type CompanyTermsRow = {
  name: string;
  invoiceAddress: string;
  costOrder: CostOrder;
  itemPrefix: string;
  mailFrom: string;
};

const terms = `SELECT name, invoice_address AS invoiceAddress, cost_order AS costOrder, item_prefix AS itemPrefix, mail_from AS mailFrom
  FROM company WHERE id = 1`;

async function termsBy(tx: Tx, sql: string): Promise<CompanyTermsRow> {
  const row = await tx.row<CompanyTermsRow>(sql);
  if (!row) throw new Error('the company is not set up');
  return row;
}
/** What is said of the company as a whole; and the same locked, to be changed. */
export const readTerms = (tx: Tx) => termsBy(tx, terms);
export const lockCompanyTerms = (tx: Tx) => termsBy(tx, `${terms} FOR UPDATE`);

export const updateCompanyTerms = (tx: Tx, t: CompanyTermsRow) =>
  tx.run(
    `UPDATE company SET name = :name, invoice_address = :invoiceAddress, cost_order = :costOrder, item_prefix = :itemPrefix,
            mail_from = :mailFrom WHERE id = 1`,
    t,
  );

/** Limits of the classes in thousandths, and which lead time counts. */
export type ClassLimits = {
  readonly abcA: number;
  readonly abcB: number;
  readonly xyzX: number;
  readonly xyzY: number;
  readonly leadTimeRule: 'measured' | 'stated';
  readonly leadTimeLeast: number;
  readonly leadTimeEmpirical: number;
};

const limits = `SELECT abc_a AS abcA, abc_b AS abcB, xyz_x AS xyzX, xyz_y AS xyzY, lead_time_rule AS leadTimeRule,
  lead_time_least AS leadTimeLeast, lead_time_empirical AS leadTimeEmpirical FROM company WHERE id = 1`;

export async function readClassLimits(tx: Tx, lock = false): Promise<ClassLimits> {
  const row = await tx.row<ClassLimits>(lock ? `${limits} FOR UPDATE` : limits);
  if (!row) throw new Error('the company is not set up');
  return row;
}

export const updateClassLimits = (tx: Tx, l: ClassLimits) =>
  tx.run(
    `UPDATE company SET abc_a = :abcA, abc_b = :abcB, xyz_x = :xyzX, xyz_y = :xyzY, lead_time_rule = :leadTimeRule,
            lead_time_least = :leadTimeLeast, lead_time_empirical = :leadTimeEmpirical WHERE id = 1`,
    l,
  );
