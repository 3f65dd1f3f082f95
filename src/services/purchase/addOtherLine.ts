import { arrivesIfOrdered } from '@/core/calendar';
import { parsePrice } from '@/core/money';
import { type Actor, may } from '@/core/people';
import { checkLineQuantity } from '@/core/purchase';
import { toDecimal } from '@/core/quantity';
import { err, ok, type Result } from '@/core/result';
import { recordChanges } from '@/data/repositories/bookkeeping';
import { readBoughtAsText } from '@/data/repositories/bought';
import { readCalendars } from '@/data/repositories/calendars';
import { readSuppliers } from '@/data/repositories/catalogue';
import { readCompany, readLocations } from '@/data/repositories/company';
import { bumpOrder, insertOrderLine, insertPart } from '@/data/repositories/orders';
import { command, type Request } from '../command';
import { type Deps, timeOf, todayOf } from '../deps';
import { type Failure, invalidField } from '../failure';
import { loadOrder } from './loadOrder';

/** Something that is no stock item: bought once by its description, a charge, or a service. */
export type AddOtherLine = {
  readonly orderId: number;
  readonly kind: 'non_stock' | 'charge' | 'service';
  readonly description: string;
  readonly quantity: string;
  readonly unit: string;
  /** Per unit, as typed; '' = not known yet. */
  readonly price: string;
  /** Where it comes to; a charge or a service comes to no place. */
  readonly locationId: number | null;
};
export type AddedOther = {
  readonly lineNo: number;
  /** So often was something of the same description bought before: it may want to become an item. */
  readonly before: number;
};

/** Adds a line to a draft that is no stock item. Errors: forbidden, not_found, not_in_this_state, invalid_field description,
 *  quantity or price. */
export async function addOtherLine(
  deps: Deps,
  actor: Actor,
  request: Request<AddOtherLine>,
): Promise<Result<AddedOther, Failure>> {
  const { orderId, kind, unit } = request.input;
  const locationId = kind === 'non_stock' ? request.input.locationId : null;
  const allowed = may(actor, 'orders.edit', locationId === null ? {} : { locationIds: [locationId] });
  if (!allowed.ok) return allowed;
  const description = request.input.description.trim();
  if (description === '') return err(invalidField('description', { kind: 'text_missing' }));
  const quantity = checkLineQuantity(request.input.quantity);
  if (!quantity.ok) return err(invalidField('quantity', quantity.error));
  const price = request.input.price.trim() === '' ? ok(null) : parsePrice(request.input.price);
  if (!price.ok) return err(invalidField('price', price.error));
  return command(deps, actor, 'add-other-line', request, async (tx, now) => {
    const loaded = await loadOrder(tx, orderId, 'edit');
    if (!loaded.ok) return loaded;
    const { order, lines } = loaded.value;
    if (locationId !== null && !(await readLocations(tx)).some((l) => l.id === locationId && l.closed === 0))
      return err({ kind: 'not_found', what: 'location' });
    const company = await readCompany(tx);
    const today = todayOf(deps, company);
    const lineNo = Math.max(0, ...lines.map((l) => l.lineNo)) + 1;
    const before = kind === 'non_stock' ? await readBoughtAsText(tx, description, orderId) : 0;
    const amount = toDecimal(quantity.value);
    const quantities = { packQuantity: amount, baseQuantity: amount };
    const lineId = await insertOrderLine(tx, {
      ...{ orderId, lineNo, kind, itemId: null, sourceId: null, description, supplierItemNumber: '', packId: null },
      ...{ packName: unit.trim() || (kind === 'non_stock' ? 'piece' : 'time'), contentNum: 1, contentDen: 1 },
      ...quantities,
      ...{ priceAmount: price.value, expectedAmount: null, pricePer: '1', priceContentNum: 1, priceContentDen: 1 },
      ...{ priceOrigin: null, edition: '', freeOfCharge: 0, unordered: 0 },
    });
    const supplier = (await readSuppliers(tx)).find((s) => s.id === order.supplierId);
    const lead = { days: supplier?.leadTimeDays ?? 0, kind: supplier?.leadTimeKind ?? ('working' as const) };
    const calendar = (await readCalendars(tx, today)).supply(order.supplierId, lead, locationId);
    const wantedDate = order.wantedDate ?? arrivesIfOrdered(calendar, today, timeOf(deps, company));
    await insertPart(tx, { lineId, partNo: 1, locationId, ...quantities, wantedDate, trayLineId: null });
    await bumpOrder(tx, orderId);
    await recordChanges(tx, actor.userId, now, [
      { entity: 'order', entityId: orderId, action: `line ${lineNo}: added`, after: description },
    ]);
    return ok({ lineNo, before });
  });
}
