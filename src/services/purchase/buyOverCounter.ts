import { type Actor, may } from '@/core/people';
import { fromDecimal, toDecimal } from '@/core/quantity';
import { err, ok, type Result } from '@/core/result';
import { lockOrder, readOrderLines, readParts } from '@/data/repositories/orders';
import { command, type Request } from '../command';
import type { Deps } from '../deps';
import type { Failure } from '../failure';
import { type BookedIn, postReceipt } from '../stock/postReceipt';
import { loadOrder } from './loadOrder';
import { postSent } from './orderSteps';
import { postApproved } from './postApproved';
import type { OrderVersion } from './putBackOrder';

export type BuyOverCounter = OrderVersion & {
  readonly deliveryNote: string;
  /** When it was bought, as typed; '' = today. */
  readonly businessDate: string;
};
export type Bought = BookedIn & { readonly number: string };

/** What was bought over the counter and brought along: the draft is approved, noted as told in person, and booked in whole, in one
 *  step. It is for one place. Errors: forbidden (for the place), not_found, changed_meanwhile, not_in_this_state, several_places,
 *  those of approving and of booking in. */
export async function buyOverCounter(
  deps: Deps,
  actor: Actor,
  request: Request<BuyOverCounter>,
): Promise<Result<Bought, Failure>> {
  for (const right of ['orders.approve', 'orders.send', 'goods.receive'] as const) {
    const allowed = may(actor, right);
    if (!allowed.ok) return allowed;
  }
  const { orderId, version, deliveryNote, businessDate } = request.input;
  return command(deps, actor, 'buy-over-counter', request, async (tx, now) => {
    const loaded = await loadOrder(tx, orderId, 'approve', version);
    if (!loaded.ok) return loaded;
    const goods = loaded.value.parts.filter((p) => p.locationId !== null && fromDecimal(p.baseQuantity) > 0);
    const [place, ...others] = [...new Set(goods.map((p) => p.locationId))];
    if (place === undefined || place === null || others.length > 0 || goods.some((p) => p.customerLineId !== null))
      return err({ kind: 'several_places' });
    const there = may(actor, 'goods.receive', { locationIds: [place] });
    if (!there.ok) return there;
    const approved = await postApproved(deps, tx, actor, now, loaded.value);
    if (!approved.ok) return approved;
    const order = await lockOrder(tx, orderId);
    if (!order) return err({ kind: 'not_found', what: 'order' });
    const lines = await readOrderLines(tx, [orderId]);
    const parts = await readParts(tx, [orderId]);
    await postSent(tx, { userId: actor.userId, now }, { order, lines, parts }, { how: 'in_person', to: '' });
    const counted = goods.map((p) => ({
      ...{ partId: p.id, quantity: toDecimal(fromDecimal(p.packQuantity)), unit: 'pack' as const },
    }));
    const booked = await postReceipt(
      deps,
      tx,
      actor,
      { key: request.key, now, straight: false },
      { orderId, locationId: place, deliveryNote, businessDate, counted },
    );
    return booked.ok ? ok({ ...booked.value, number: approved.value.number }) : booked;
  });
}
