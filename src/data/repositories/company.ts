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
};

export type Location = { id: number; code: string; name: string; kind: 'shop' | 'warehouse'; address: string };

export async function readCompany(tx: Tx): Promise<Company> {
  const row = await tx.row<Company>(
    `SELECT name, currency, time_zone AS timeZone, trigger_rule AS \`trigger\`, refill_rule AS refill,
            invoice_address AS invoiceAddress, needs_as_of AS needsAsOf
       FROM company WHERE id = 1`,
  );
  if (!row) throw new Error('the company is not set up');
  return row;
}

export const setNeedsAsOf = (tx: Tx, date: string) =>
  tx.run('UPDATE company SET needs_as_of = :date WHERE id = 1', { date });

export const readLocations = (tx: Tx) =>
  tx.rows<Location>('SELECT id, code, name, kind, address FROM location ORDER BY sort_order, id');
