import { type Actor, may } from '@/core/people';
import { openOf } from '@/core/promise';
import { err, ok, type Result } from '@/core/result';
import { recordChanges } from '@/data/repositories/bookkeeping';
import { readCompany } from '@/data/repositories/company';
import {
  type CustomerWay,
  findStraight,
  setLineWay as putLineWay,
  touchCustomerOrder,
} from '@/data/repositories/customerOrders';
import { lockLevels } from '@/data/repositories/levels';
import { markDirty } from '@/data/repositories/marks';
import { command, type Request } from '../command';
import { type Deps, todayOf } from '../deps';
import { type Failure, invalidField } from '../failure';
import { type OrderVersion, openCustomerOrder } from './openCustomerOrder';
import { goesStraight } from './postLines';
import { figuresOf, holdSets, shareOut } from './shareOut';

/** How a line that is open gets to its customer. What goes straight from the supplier is bought for it one to one; what lay ready for it is
 *  given on. Where an order, a draft or a tray sends it straight already it stays so until it is taken off there.
 *  Errors: forbidden, not_found, changed_meanwhile, customer_order_not_in_this_state, nothing_counted (nothing is open), invalid_field way
 *  (a kit, or nothing that stock is kept of), sent_straight. */
export async function setLineWay(
  deps: Deps,
  actor: Actor,
  request: Request<OrderVersion & { readonly lineNo: number; readonly way: CustomerWay }>,
): Promise<Result<null, Failure>> {
  const { lineNo, way } = request.input;
  const allowed = may(actor, 'promises.edit');
  if (!allowed.ok) return allowed;
  return command(deps, actor, 'set-line-way', request, async (tx, now) => {
    const opened = await openCustomerOrder(tx, actor, request.input, 'change');
    if (!opened.ok) return opened;
    const { order, lines, demandsOf } = opened.value;
    const line = lines.find((l) => l.lineNo === lineNo);
    if (!line) return err({ kind: 'not_found', what: 'line' });
    if (openOf(figuresOf(line)) === 0) return err({ kind: 'nothing_counted' });
    if (line.way === way) return ok(null);
    const demands = demandsOf(line.id);
    if (way === 'straight' && !goesStraight(line.itemId, demands))
      return err(invalidField('way', { kind: 'not_straight' }));
    const fixed = line.way === 'straight' ? await findStraight(tx, line.id) : null;
    if (fixed) return err({ kind: 'sent_straight', ...fixed });
    const at = { userId: actor.userId, now, today: todayOf(deps, await readCompany(tx)) };
    const pairs = demands.map((d) => ({ itemId: d.itemId, locationId: line.locationId }));
    await lockLevels(tx, pairs);
    if (way === 'straight') await holdSets(tx, at, order, line, demands, 0);
    await putLineWay(tx, line.id, way);
    await touchCustomerOrder(tx, order);
    await recordChanges(tx, actor.userId, now, [
      {
        ...{ entity: 'customer_order', entityId: order.id, action: `line ${lineNo}: way` },
        before: { way: line.way },
        after: { way },
      },
    ]);
    markDirty(tx, pairs);
    await shareOut(tx, at, pairs);
    return ok(null);
  });
}
