import { type Actor, may } from '@/core/people';
import { openOf } from '@/core/promise';
import { parseQuantity } from '@/core/quantity';
import { err, ok, type Result } from '@/core/result';
import { recordChanges } from '@/data/repositories/bookkeeping';
import { readCompany } from '@/data/repositories/company';
import { setLineHold, touchCustomerOrder } from '@/data/repositories/customerOrders';
import { lockLevels } from '@/data/repositories/levels';
import { command, type Request } from '../command';
import { type Deps, todayOf } from '../deps';
import { type Failure, invalidField } from '../failure';
import { type OrderVersion, openCustomerOrder } from './openCustomerOrder';
import { holdUntilOf } from './postLines';
import { figuresOf, holdSets, readyOf, shareOut } from './shareOut';

export type HoldForCustomer = OrderVersion & {
  readonly lineNo: number;
  /** So much is put by, no more and no less, as typed; null = as the rule gives it. */
  readonly quantity: string | null;
  /** Until when; '' = until it is collected. */
  readonly until: string;
};

/** Puts by for a line what a person says instead of what the rule gives, or leaves it to the rule again; what becomes free
 *  goes to others. Errors: forbidden, not_found, changed_meanwhile, customer_order_not_in_this_state, invalid_field
 *  quantity|holdUntil (more than is open), not_free, goes_straight (it never lies with us). */
export async function holdForCustomer(
  deps: Deps,
  actor: Actor,
  request: Request<HoldForCustomer>,
): Promise<Result<null, Failure>> {
  const { lineNo, quantity, until } = request.input;
  const allowed = may(actor, 'promises.edit');
  if (!allowed.ok) return allowed;
  return command(deps, actor, 'hold-for-customer', request, async (tx, now) => {
    const opened = await openCustomerOrder(tx, actor, request.input, 'allocate');
    if (!opened.ok) return opened;
    const { order, lines, demandsOf } = opened.value;
    const line = lines.find((l) => l.lineNo === lineNo);
    if (!line) return err({ kind: 'not_found', what: 'line' });
    if (line.way === 'straight') return err({ kind: 'goes_straight' });
    const company = await readCompany(tx);
    const at = { userId: actor.userId, now, today: todayOf(deps, company) };
    const hold = holdUntilOf(until, at.today, company.timeZone);
    if (!hold.ok) return hold;
    const demands = demandsOf(line.id);
    const pairs = demands.map((d) => ({ itemId: d.itemId, locationId: line.locationId }));
    await lockLevels(tx, pairs);
    if (quantity !== null) {
      const sets = parseQuantity(quantity);
      if (!sets.ok) return err(invalidField('quantity', sets.error));
      const most = openOf(figuresOf(line));
      if (sets.value > most) return err(invalidField('quantity', { kind: 'more_than', most }));
      const held = await holdSets(tx, at, order, line, demands, sets.value);
      if (!held.ok) return held;
    }
    await setLineHold(tx, { id: line.id, holdUntil: hold.value, byHand: quantity !== null });
    await touchCustomerOrder(tx, order);
    await recordChanges(tx, actor.userId, now, [
      {
        ...{ entity: 'customer_order', entityId: order.id, action: `line ${lineNo}: put by` },
        before: { ready: readyOf(line, demands) },
        after: { quantity, until },
      },
    ]);
    await shareOut(tx, at, pairs);
    return ok(null);
  });
}
