import { parsePrice } from '@/core/money';
import { type Actor, may } from '@/core/people';
import { checkLineQuantity } from '@/core/purchase';
import { toDecimal } from '@/core/quantity';
import { err, ok, type Result } from '@/core/result';
import { recordChanges } from '@/data/repositories/bookkeeping';
import { readCalendars } from '@/data/repositories/calendars';
import { findItem, readSuppliers } from '@/data/repositories/catalogue';
import { readCompany, readLocations } from '@/data/repositories/company';
import { markDirty } from '@/data/repositories/marks';
import { bumpOrder } from '@/data/repositories/orders';
import type { Tx } from '@/data/sql';
import { arrivalFrom, type Buying, readBuying } from '../catalogue/buying';
import { command, type Request } from '../command';
import { type Deps, timeOf, todayOf } from '../deps';
import { type Failure, invalidField } from '../failure';
import { followEntered } from './breakPrices';
import { buyingFrom, enterStockLine, inPack } from './enterOrder';
import { loadOrder } from './loadOrder';

/** An item on a draft, for one place. `packs` as typed; `price` '' takes the list's or what is proposed. */
export type AddOrderLine = {
  readonly orderId: number;
  readonly itemId: number;
  readonly locationId: number;
  readonly packs: string;
  readonly price: string;
  /** The pack it is ordered in: left out = the one it is usually bought in, null = its base unit. */
  readonly packId?: number | null;
};

/** Adds a stock line to a draft. An item that its supplier has not sold us yet becomes one that it sells.
 *  Errors: forbidden, not_found, not_in_this_state, invalid_field packs or price. */
export async function addOrderLine(
  deps: Deps,
  actor: Actor,
  request: Request<AddOrderLine>,
): Promise<Result<{ readonly lineNo: number }, Failure>> {
  const { orderId, itemId, locationId } = request.input;
  const allowed = may(actor, 'orders.edit', { locationIds: [locationId] });
  if (!allowed.ok) return allowed;
  const packs = checkLineQuantity(request.input.packs);
  if (!packs.ok) return err(invalidField('packs', packs.error));
  const price = request.input.price.trim() === '' ? ok(null) : parsePrice(request.input.price);
  if (!price.ok) return err(invalidField('price', price.error));
  return command(deps, actor, 'add-order-line', request, async (tx, now) => {
    const loaded = await loadOrder(tx, orderId, 'edit');
    if (!loaded.ok) return loaded;
    const { order, lines } = loaded.value;
    const item = await findItem(tx, itemId);
    if (!item) return err({ kind: 'not_found', what: 'item' });
    const place = (await readLocations(tx)).find((l) => l.id === locationId && l.closed === 0);
    if (!place) return err({ kind: 'not_found', what: 'location' });
    const supplier = (await readSuppliers(tx)).find((s) => s.id === order.supplierId);
    if (!supplier) return err({ kind: 'not_found', what: 'supplier' });
    const usual = await buyingFrom(tx, { userId: actor.userId, now }, supplier, itemId);
    const buying = await inAskedPack(tx, usual, request.input.packId);
    if (!buying) return err({ kind: 'not_found', what: 'item' });
    const company = await readCompany(tx);
    const [today, time] = [todayOf(deps, company), timeOf(deps, company)];
    const lineNo = Math.max(0, ...lines.map((l) => l.lineNo)) + 1;
    const wantedDate =
      order.wantedDate ?? arrivalFrom(await readCalendars(tx, today), buying, locationId, { today, time });
    const part = { locationId, packQuantity: toDecimal(packs.value), trayLineId: null };
    await enterStockLine(tx, { orderId, lineNo, today, wantedDate }, buying, [part], { price: price.value });
    await followEntered(tx, orderId, lineNo, today);
    await bumpOrder(tx, orderId);
    await recordChanges(tx, actor.userId, now, [
      { entity: 'order', entityId: orderId, action: `line ${lineNo}: added`, after: item.name },
    ]);
    markDirty(tx, [{ itemId, locationId }]);
    return ok({ lineNo });
  });
}

/** A way of buying in the pack that was asked for; null when the item has no such pack. */
async function inAskedPack(tx: Tx, usual: Buying, packId: number | null | undefined): Promise<Buying | null> {
  if (packId === undefined || packId === usual.source.packId) return usual;
  if (packId === null) return inPack(usual, null);
  const book = await readBuying(tx, [usual.source.itemId]);
  const pack = book.packs.get(packId);
  return pack ? inPack(usual, { id: packId, name: pack.name, content: book.contentOf(packId) }) : null;
}
