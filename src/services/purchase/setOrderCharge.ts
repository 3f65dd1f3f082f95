import { chargeText, type OrderCharge } from '@/core/landed';
import { isCurrency, parsePrice } from '@/core/money';
import { type Actor, may } from '@/core/people';
import { err, ok, type Result } from '@/core/result';
import { readChanges, recordChanges } from '@/data/repositories/bookkeeping';
import { readCompany } from '@/data/repositories/company';
import { putOrderCharges, readOwnCharges, removeOrderCharge } from '@/data/repositories/orderCharges';
import { bumpOrder } from '@/data/repositories/orders';
import { command, type Request } from '../command';
import { readExchange } from '../cost/exchange';
import { type Deps, todayOf } from '../deps';
import { type Failure, type FieldFault, invalidField } from '../failure';
import { recordUndo } from '../undo/recordUndo';
import { loadOrder } from './loadOrder';
import { type ChargeOfOrder, costOfOrder } from './orderCosts';

/** How a charge stands on an order: given here, left out of it, or as its supplier usually has it (one added by hand: not at all). */
export type ChargeEntry = Pick<
  OrderCharge,
  'sign' | 'amountKind' | 'currency' | 'spread' | 'into' | 'account' | 'billed'
> & {
  /** As typed; '' = not known yet. */
  readonly amount: string;
  /** Names of earlier charges that a percentage counts, parted by semicolons. */
  readonly onCharges: string;
  /** Numbers of the lines that it is for, as typed; '' = all. */
  readonly onlyLines: string;
};
export type SetOrderCharge = {
  readonly orderId: number;
  readonly name: string;
  /** The charge as the person saw it, by chargeText; '' = one that is added. */
  readonly was: string;
  readonly as: 'given' | 'left_out' | 'usual';
  readonly entry: ChargeEntry;
};

/** Sets a charge or allowance of a draft otherwise than its supplier usually has it, adds one, leaves one out, or has it as usual again.
 *  Errors: forbidden, not_found, not_in_this_state, changed_meanwhile, invalid_field by name. */
export async function setOrderCharge(
  deps: Deps,
  actor: Actor,
  request: Request<SetOrderCharge>,
): Promise<Result<null, Failure>> {
  const allowed = may(actor, 'orders.edit');
  if (!allowed.ok) return allowed;
  const { orderId, was, as, entry } = request.input;
  const name = request.input.name.trim();
  if (name === '') return err(invalidField('name', { kind: 'text_missing' }));
  return command(deps, actor, 'set-order-charge', request, async (tx, now) => {
    const loaded = await loadOrder(tx, orderId, 'edit');
    if (!loaded.ok) return loaded;
    const { order, lines } = loaded.value;
    // What its supplier was told of charges stays until it is a draft again.
    if (order.chargesKept === 1 && order.state !== 'draft')
      return err({ kind: 'not_in_this_state', state: order.state, action: 'edit' });
    const company = await readCompany(tx);
    const today = todayOf(deps, company);
    const exchange = await readExchange(tx, company.currency, today);
    const own = await readOwnCharges(tx, orderId);
    const { charges } = await costOfOrder(tx, order, lines, exchange, today);
    const stands = charges.find((c) => c.name === name);
    if (was === '' && stands) return err(invalidField('name', { kind: 'name_taken', text: name }));
    if (was !== '' && (!stands || chargeText(stands) !== was)) {
      const last = (await readChanges(tx, 'order', orderId)).at(-1);
      return err({ kind: 'changed_meanwhile', what: 'value', who: last?.who ?? null, now: stands?.amount ?? null });
    }
    const position = stands?.position ?? Math.max(0, ...charges.map((c) => c.position)) + 1;
    const origin = stands?.origin ?? ('by_hand' as const);
    const known = lines.map((l) => l.lineNo);
    if (as === 'usual') {
      if (stands?.usual && order.chargesKept === 1) await putOrderCharges(tx, orderId, [stands.usual]);
      else await removeOrderCharge(tx, orderId, name);
    } else {
      const read =
        as === 'left_out' && stands ? ok({ ...stands, leftOut: true }) : readEntry(entry, charges, name, known);
      if (!read.ok) return err(invalidField(read.error.field, read.error.fault));
      await putOrderCharges(tx, orderId, [{ ...read.value, name, position, origin }]);
    }
    await bumpOrder(tx, orderId);
    await recordChanges(tx, actor.userId, now, [
      {
        ...{ entity: 'order', entityId: orderId, action: `charge ${name}`, before: stands?.amount ?? '' },
        after: as === 'given' ? entry.amount.trim() : as === 'usual' ? 'as usual' : 'left out',
      },
    ]);
    const before = own.find((c) => c.name === name) ?? null;
    await recordUndo(tx, actor, request.key, 'set-order-charge', now, { kind: 'charge', orderId, name, before });
    return ok(null);
  });
}

type Read = Omit<OrderCharge, 'name' | 'position' | 'origin'>;

function readEntry(
  entry: ChargeEntry,
  charges: readonly ChargeOfOrder[],
  name: string,
  lineNos: readonly number[],
): Result<Read, { readonly field: string; readonly fault: FieldFault }> {
  const fault = (field: string, of: FieldFault) => err({ field, fault: of });
  const { amountKind, sign, spread, into, billed } = entry;
  const typed = entry.amount.trim();
  const amount = amountKind === 'duty' || typed === '' ? ok(null) : parsePrice(typed.replace(/%$/, ''));
  if (!amount.ok) return fault('amount', amount.error);
  if (amountKind === 'percent' && amount.value !== null && Number(amount.value) > 1000)
    return fault('amount', { kind: 'not_a_percentage', text: typed });
  const currency = entry.currency.trim().toUpperCase();
  if (!isCurrency(currency)) return fault('currency', { kind: 'no_currency', text: currency });
  const at = charges.findIndex((c) => c.name === name);
  const earlier = charges.slice(0, at < 0 ? charges.length : at).map((c) => c.name);
  const onCharges = entry.onCharges.split(';').flatMap((n) => n.trim() || []);
  const unknown = onCharges.find((n) => !earlier.includes(n));
  if (unknown !== undefined) return fault('onCharges', { kind: 'no_such_charge', text: unknown });
  const numbers = entry.onlyLines.split(/[\s,;]+/).filter(Boolean);
  const strange = numbers.find((n) => !lineNos.includes(Number(n)));
  if (strange !== undefined) return fault('onlyLines', { kind: 'no_such_line', text: strange });
  return ok({
    ...{ sign, amountKind, amount: amount.value, currency, onCharges, spread, into, billed, leftOut: false },
    ...{ account: entry.account.trim(), onlyLines: [...new Set(numbers.map(Number))] },
  });
}
