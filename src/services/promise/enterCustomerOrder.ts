import { type Actor, may } from '@/core/people';
import { err, ok, type Result } from '@/core/result';
import { drawNumber, recordChanges } from '@/data/repositories/bookkeeping';
import { readCompany } from '@/data/repositories/company';
import {
  type CustomerRow,
  findByReference,
  findCustomer,
  findCustomerById,
  insertCustomer,
  insertCustomerLines,
  insertCustomerOrder,
  readCustomerLines,
  touchCustomerOrder,
} from '@/data/repositories/customerOrders';
import { markDirty } from '@/data/repositories/marks';
import type { Tx } from '@/data/sql';
import { command, type Request } from '../command';
import { type Deps, todayOf } from '../deps';
import { type Failure, invalidField } from '../failure';
import { numberText, periodOf } from '../purchase/orderNumber';
import { type OrderVersion, openCustomerOrder } from './openCustomerOrder';
import { type CustomerLineInput, linesToEnter, pairsOfLines } from './postLines';
import { shareOut } from './shareOut';

export type EnterCustomerOrder = {
  /** Somebody who has ordered before, or by name and mail; who is not known yet becomes a customer. */
  readonly customerId: number | null;
  readonly customer: Pick<CustomerRow, 'name' | 'mail' | 'phone' | 'address'>;
  readonly channel: 'counter' | 'file' | 'web_shop';
  /** The number it has where it came from; an order that came before is not entered again. */
  readonly reference: string;
  /** null: as the customer usually has it. */
  readonly delivers: 'in_part' | 'complete' | null;
  readonly priority: number | null;
  readonly note: string;
  readonly lines: readonly CustomerLineInput[];
};
export type EnteredOrder = { readonly orderId: number; readonly order: string; readonly known: boolean };

/** Takes what a customer orders. What is free is put by at once, in turn with everybody who waits; the rest is backordered and
 *  owed. Errors: forbidden (for each place), not_found, nothing_counted, invalid_field customer, lines.<index>…. */
export async function enterCustomerOrder(
  deps: Deps,
  actor: Actor,
  request: Request<EnterCustomerOrder>,
): Promise<Result<EnteredOrder, Failure>> {
  const { input } = request;
  const allowed = may(actor, 'promises.edit', { locationIds: input.lines.map((l) => l.locationId) });
  if (!allowed.ok) return allowed;
  return command<EnterCustomerOrder, EnteredOrder>(deps, actor, 'enter-customer-order', request, async (tx, now) => {
    const reference = input.reference.trim();
    const before = reference === '' ? null : await findByReference(tx, input.channel, reference);
    if (before) return ok({ orderId: before.id, order: before.number, known: true });
    const company = await readCompany(tx);
    const today = todayOf(deps, company);
    const lines = await linesToEnter(tx, { today, timeZone: company.timeZone }, input.lines);
    if (!lines.ok) return lines;
    const customer = await customerOf(tx, input);
    if (!customer.ok) return customer;
    const period = periodOf(today);
    const order = numberText('CO', period, await drawNumber(tx, 'CO', period));
    const orderId = await insertCustomerOrder(tx, {
      ...{ number: order, customerId: customer.value.id, channel: input.channel, reference: reference || null },
      ...{ orderedOn: today, priority: input.priority ?? customer.value.priority, note: input.note },
      ...{ delivers: input.delivers ?? customer.value.delivers, userId: actor.userId, at: now },
    });
    await insertCustomerLines(tx, orderId, 0, lines.value);
    await recordChanges(tx, actor.userId, now, [
      {
        ...{ entity: 'customer_order', entityId: orderId, action: 'entered' },
        after: { order, customer: customer.value.name, lines: lines.value.length },
      },
    ]);
    const pairs = pairsOfLines(lines.value);
    markDirty(tx, pairs);
    await shareOut(tx, { userId: actor.userId, now, today }, pairs);
    return ok({ orderId, order, known: false });
  });
}

/** More lines on an order that is open. Errors: those of entering, changed_meanwhile, customer_order_not_in_this_state. */
export async function addCustomerLines(
  deps: Deps,
  actor: Actor,
  request: Request<OrderVersion & { readonly lines: readonly CustomerLineInput[] }>,
): Promise<Result<{ readonly lineNo: number }, Failure>> {
  const { input } = request;
  const allowed = may(actor, 'promises.edit', { locationIds: input.lines.map((l) => l.locationId) });
  if (!allowed.ok) return allowed;
  return command(deps, actor, 'add-customer-lines', request, async (tx, now) => {
    const opened = await openCustomerOrder(tx, actor, input, 'change');
    if (!opened.ok) return opened;
    const { order } = opened.value;
    const company = await readCompany(tx);
    const today = todayOf(deps, company);
    const lines = await linesToEnter(tx, { today, timeZone: company.timeZone }, input.lines);
    if (!lines.ok) return lines;
    const last = Math.max(0, ...(await readCustomerLines(tx, [order.id])).map((l) => l.lineNo));
    await insertCustomerLines(tx, order.id, last, lines.value);
    await touchCustomerOrder(tx, order);
    await recordChanges(tx, actor.userId, now, [
      { entity: 'customer_order', entityId: order.id, action: 'lines added', after: { lines: lines.value.length } },
    ]);
    const pairs = pairsOfLines(lines.value);
    markDirty(tx, pairs);
    await shareOut(tx, { userId: actor.userId, now, today }, pairs);
    return ok({ lineNo: last + 1 });
  });
}

async function customerOf(tx: Tx, input: EnterCustomerOrder): Promise<Result<CustomerRow, Failure>> {
  if (input.customerId !== null) {
    const known = await findCustomerById(tx, input.customerId);
    return known ? ok(known) : err({ kind: 'not_found', what: 'customer' });
  }
  const { phone, address } = input.customer;
  const [name, mail] = [input.customer.name.trim(), input.customer.mail.trim()];
  if (name === '') return err(invalidField('customer', { kind: 'name_missing' }));
  if (mail !== '' && !/^[^\s@]+@[^\s@]+$/.test(mail))
    return err(invalidField('mail', { kind: 'not_an_address', text: mail }));
  const known = await findCustomer(tx, name, mail);
  if (known) return ok(known);
  const made = { name, mail, phone, address, priority: 5, delivers: 'in_part' as const, note: '' };
  return ok({ ...made, id: await insertCustomer(tx, made) });
}
