import { type BusinessDate, parseDay, rollTo } from '@/core/calendar';
import { type Actor, may } from '@/core/people';
import { checkLineQuantity, type Delivery, splitDelivery, spreadOverWeeks } from '@/core/purchase';
import { fromDecimal, toDecimal } from '@/core/quantity';
import { err, ok, type Result } from '@/core/result';
import { recordChanges } from '@/data/repositories/bookkeeping';
import { readCalendars } from '@/data/repositories/calendars';
import { readCompany, readLocations } from '@/data/repositories/company';
import { markDirty } from '@/data/repositories/marks';
import { bumpOrder, insertPart, type PartRow, readOrderLines, readParts } from '@/data/repositories/orders';
import type { Tx } from '@/data/sql';
import { command, type Request } from '../command';
import { type Deps, todayOf } from '../deps';
import { type Failure, invalidField } from '../failure';
import { type LoadedOrder, loadOrder, pairsOf } from './loadOrder';
import { refigureLine } from './orderCell';

export type SplitPart = {
  readonly orderId: number;
  readonly partId: number;
  readonly packs: string;
  readonly date: string;
  readonly locationId: number;
  /** Broken packs are wanted. */
  readonly broken: boolean;
};

/** Days that were moved because the place takes nothing in on them, with the day that is wanted instead. */
export type SplitDone = { readonly moved: readonly { readonly from: BusinessDate; readonly to: BusinessDate }[] };

/** Takes a further delivery from one of a line; what both have is what it had. A day on which nothing is taken in is moved to the next.
 *  Errors: forbidden, not_found, not_in_this_state, invalid_field packs|date. */
export async function splitPart(
  deps: Deps,
  actor: Actor,
  request: Request<SplitPart>,
): Promise<Result<SplitDone, Failure>> {
  const { orderId, partId, date, locationId, broken } = request.input;
  const allowed = may(actor, 'orders.edit', { locationIds: [locationId] });
  if (!allowed.ok) return allowed;
  const typed = checkLineQuantity(request.input.packs);
  if (!typed.ok) return err(invalidField('packs', typed.error));
  return command(deps, actor, 'split-part', request, async (tx, now) => {
    const loaded = await loadOrder(tx, orderId, 'edit');
    if (!loaded.ok) return loaded;
    const part = loaded.value.parts.find((p) => p.id === partId);
    if (!part) return err({ kind: 'not_found', what: 'line' });
    const today = todayOf(deps, await readCompany(tx));
    const day = date.trim() === '' ? ok(part.wantedDate) : parseDay(date, today);
    if (!day.ok) return err(invalidField('date', day.error));
    if (!(await readLocations(tx)).some((l) => l.id === locationId && l.closed === 0))
      return err({ kind: 'not_found', what: 'location' });
    const from = { ...deliveryOf(part), came: fromDecimal(part.receivedPacks) };
    const split = splitDelivery(from, { packs: typed.value, date: day.value, placeId: locationId }, broken);
    if (!split.ok)
      return err(
        invalidField(
          'packs',
          split.error.kind === 'nothing_left' ? { kind: 'more_than', most: split.error.most } : split.error,
        ),
      );
    const words = `${toDecimal(typed.value)} of ${toDecimal(from.packs)} split off`;
    return ok(await putDeliveries(tx, actor, { now, today }, loaded.value, part, split.value, words));
  });
}

export type SpreadPart = { readonly orderId: number; readonly partId: number; readonly weeks: number };

/** Spreads a delivery evenly over weeks from its own day on; days on which nothing is taken in are moved. Errors: forbidden, not_found, not_in_this_state, invalid_field weeks. */
export async function spreadPart(
  deps: Deps,
  actor: Actor,
  request: Request<SpreadPart>,
): Promise<Result<SplitDone, Failure>> {
  const allowed = may(actor, 'orders.edit');
  if (!allowed.ok) return allowed;
  const { orderId, partId, weeks } = request.input;
  return command(deps, actor, 'spread-part', request, async (tx, now) => {
    const loaded = await loadOrder(tx, orderId, 'edit');
    if (!loaded.ok) return loaded;
    const part = loaded.value.parts.find((p) => p.id === partId);
    // Of what came already nothing can be moved.
    if (!part || fromDecimal(part.received) > 0) return err({ kind: 'not_found', what: 'line' });
    const today = todayOf(deps, await readCompany(tx));
    const spread = spreadOverWeeks(deliveryOf(part), weeks, part.wantedDate ?? today);
    if (!spread.ok) return err(invalidField('weeks', { kind: 'zero_quantity' }));
    const words = `spread over ${spread.value.length} weeks`;
    return ok(await putDeliveries(tx, actor, { now, today }, loaded.value, part, spread.value, words));
  });
}

const deliveryOf = (p: PartRow): Delivery => ({
  packs: fromDecimal(p.packQuantity),
  date: p.wantedDate,
  placeId: p.locationId,
});

/** Puts deliveries in the place of one: the first stays where it is, the others are further parts of the same line; what was
 *  decided for it goes on with each. */
async function putDeliveries(
  tx: Tx,
  actor: Actor,
  at: { readonly now: string; readonly today: string },
  { order, lines, parts }: LoadedOrder,
  part: PartRow,
  deliveries: readonly Delivery[],
  words: string,
): Promise<SplitDone> {
  const line = lines.find((l) => l.id === part.lineId);
  if (!line) throw new Error(`part ${part.id} without its line`);
  const own = parts.filter((p) => p.lineId === line.id);
  let partNo = Math.max(...own.map((p) => p.partNo));
  const [first, ...rest] = deliveries;
  const calendars = await readCalendars(tx, at.today);
  const moved: SplitDone['moved'][number][] = [];
  for (const d of rest) {
    partNo += 1;
    const { receiving } = calendars.supply(order.supplierId, { days: 0, kind: 'working' }, d.placeId);
    const wantedDate = d.date === null ? null : rollTo(receiving, d.date, 'forward');
    if (d.date !== null && wantedDate !== null && wantedDate !== d.date) moved.push({ from: d.date, to: wantedDate });
    await insertPart(tx, {
      ...{ lineId: line.id, partNo, locationId: d.placeId, wantedDate, trayLineId: part.trayLineId },
      ...{ packQuantity: toDecimal(d.packs), baseQuantity: '0' },
    });
  }
  const now = (await readParts(tx, [order.id])).filter((p) => p.lineId === line.id);
  const packs = now.map((p) => (p.id === part.id ? (first?.packs ?? 0) : fromDecimal(p.packQuantity)));
  await refigureLine(tx, await readOrderLines(tx, [order.id]), line, now, packs, at.today);
  await bumpOrder(tx, order.id);
  await recordChanges(tx, actor.userId, at.now, [
    { entity: 'order', entityId: order.id, action: `line ${line.lineNo}: ${words}` },
  ]);
  markDirty(tx, pairsOf([line], now));
  return { moved };
}
