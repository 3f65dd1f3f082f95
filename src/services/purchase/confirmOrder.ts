import { parseDate } from '@/core/calendar';
import { parsePrice } from '@/core/money';
import { packsIn, partQuantities } from '@/core/packs';
import { type Actor, may } from '@/core/people';
import { fromDecimal, parseQuantity, toDecimal } from '@/core/quantity';
import { err, ok, type Result } from '@/core/result';
import { fraction } from '@/core/units';
import { recordChanges } from '@/data/repositories/bookkeeping';
import { putListPrice } from '@/data/repositories/catalogue';
import { readCompany } from '@/data/repositories/company';
import { markDirty, markSet } from '@/data/repositories/marks';
import {
  confirmOrderRow,
  confirmPart,
  readPromisedTo,
  setConfirmedPrice,
  setSaid,
} from '@/data/repositories/orderLife';
import {
  insertPart,
  type OrderLineRow,
  type PartRow,
  partFigures,
  readOrderLines,
  readParts,
  resizeLine,
} from '@/data/repositories/orders';
import type { Tx } from '@/data/sql';
import { command, type Request } from '../command';
import { type Deps, todayOf } from '../deps';
import { type Failure, invalidField } from '../failure';
import { loadOrder, openOfPart, pairsOf } from './loadOrder';
import type { OrderVersion } from './putBackOrder';
import { saidOf } from './said';

export type ConfirmedPart = {
  readonly partId: number;
  /** Packs that come in all, as typed; '' = as it stands, 0 = refused. */
  readonly packs: string;
  /** When, as typed; '' = as confirmed before, else as wanted. */
  readonly date: string;
  /** What becomes of what is not confirmed: it is still waited for, or does not come. */
  readonly rest: 'open' | 'cancelled';
};
export type ConfirmedPrice = { readonly lineId: number; readonly price: string; readonly toList: boolean };
export type ConfirmOrder = OrderVersion & {
  /** The supplier's own number of the order. */
  readonly reference: string;
  /** What is not here is confirmed as it stands. */
  readonly parts: readonly ConfirmedPart[];
  readonly prices: readonly ConfirmedPrice[];
};
export type Confirmed = {
  /** Deliveries whose date or quantity is another than was ordered. */
  readonly differ: number;
  /** Whoever was promised something of what is refused. */
  readonly promised: readonly string[];
};

/** Records what a supplier confirmed: as ordered, other dates, other quantities, other prices, or refused. Whatever expects the
 *  goods goes by the confirmed dates at once; a price can go to the price list from today on.
 *  Errors: forbidden, not_found, changed_meanwhile, not_in_this_state, invalid_field packs.<part id>, date.<part id> or
 *  price.<line id>. */
export async function confirmOrder(
  deps: Deps,
  actor: Actor,
  request: Request<ConfirmOrder>,
): Promise<Result<Confirmed, Failure>> {
  const allowed = may(actor, 'orders.edit');
  if (!allowed.ok) return allowed;
  const { orderId, version, reference, prices } = request.input;
  return command(deps, actor, 'confirm-order', request, async (tx, now) => {
    const loaded = await loadOrder(tx, orderId, 'confirm', version);
    if (!loaded.ok) return loaded;
    const { lines, parts } = loaded.value;
    // Deliveries that come of what is not confirmed stand here as well: what follows is worked out from what stands now.
    const standing = [...parts];
    const today = todayOf(deps, await readCompany(tx));
    const said = new Map(request.input.parts.map((p) => [p.partId, p]));
    const refused: number[] = [];
    let differ = 0;
    for (const part of parts) {
      const line = lines.find((l) => l.id === part.lineId) as OrderLineRow;
      if (line.unordered === 1 || openOfPart(part) === 0) continue;
      const s = said.get(part.id) ?? { partId: part.id, packs: '', date: '', rest: 'open' as const };
      const done = await confirmOne(tx, standing, line, part, s, today);
      if (!done.ok) return done;
      if (done.value.differs) differ += 1;
      if (done.value.cut) refused.push(part.id);
    }
    for (const p of prices) {
      const line = lines.find((l) => l.id === p.lineId);
      if (!line) return err({ kind: 'not_found', what: 'line' });
      const price = parsePrice(p.price);
      if (!price.ok) return err(invalidField(`price.${p.lineId}`, price.error));
      if (price.value === (line.priceAmount === null ? null : toDecimal(fromDecimal(line.priceAmount)))) continue;
      differ += 1;
      const priced = await newPrice(tx, actor, { now, today }, orderId, line, price.value, p.toList);
      if (!priced.ok) return priced;
    }
    // What it confirmed its supplier knows.
    const known = saidOf(await readOrderLines(tx, [orderId]), await readParts(tx, [orderId]));
    await setSaid(tx, orderId, JSON.stringify(known));
    await confirmOrderRow(tx, { id: orderId, userId: actor.userId, at: now, reference: reference.trim() });
    await recordChanges(tx, actor.userId, now, [
      {
        ...{
          entity: 'order',
          entityId: orderId,
          action: differ === 0 ? 'confirmed as ordered' : 'confirmed otherwise',
        },
        after: { ...(reference.trim() ? { reference: reference.trim() } : {}), ...(differ > 0 ? { differ } : {}) },
      },
    ]);
    markDirty(tx, pairsOf(lines, parts));
    return ok({ differ, promised: await readPromisedTo(tx, refused) });
  });
}

/** One delivery as it was confirmed, among all that stand; `standing` is kept up with what it writes. */
async function confirmOne(
  tx: Tx,
  standing: PartRow[],
  line: OrderLineRow,
  part: PartRow,
  said: ConfirmedPart,
  today: string,
): Promise<Result<{ readonly differs: boolean; readonly cut: boolean }, Failure>> {
  const day = said.date.trim() === '' ? ok(part.confirmedDate ?? part.wantedDate) : parseDate(said.date, today);
  if (!day.ok) return err(invalidField(`date.${part.id}`, day.error));
  const content = fraction(line.contentNum, line.contentDen);
  const { packs: all, base, receivedPacks, cancelled } = partFigures(part);
  // What was said not to come before is not waited for.
  const gone = packsIn(cancelled, content);
  const comes = all - gone;
  const typed = said.packs.trim() === '' ? ok(comes) : parseQuantity(said.packs);
  if (!typed.ok) return err(invalidField(`packs.${part.id}`, typed.error));
  if (typed.value < receivedPacks)
    return err(invalidField(`packs.${part.id}`, { kind: 'less_than_came', came: receivedPacks }));
  const own = standing.filter((p) => p.lineId === line.id);
  const date = typed.value === 0 ? part.confirmedDate : day.value;
  const moved = day.value !== part.wantedDate;
  if (typed.value === comes) {
    await confirmPart(tx, { ...part, confirmedDate: date });
    return ok({ differs: moved, cut: false });
  }
  if (typed.value <= all && (typed.value > comes || said.rest === 'cancelled')) {
    // The line keeps what was ordered; what does not come is cancelled of it, and what comes after all is not any more.
    const [kept = 0] = partQuantities([typed.value], content);
    const cut = typed.value < comes;
    await confirmPart(tx, { ...part, cancelled: toDecimal(Math.max(0, base - kept)), confirmedDate: date });
    return ok({ differs: true, cut });
  }
  // More than was ordered comes whole; of less, what was cancelled stays with this delivery.
  const more = typed.value > all;
  const mine = more ? typed.value : typed.value + gone;
  const packs = own.map((p) => (p.id === part.id ? mine : fromDecimal(p.packQuantity)));
  const rest = all - mine;
  if (rest > 0) packs.push(rest);
  const bases = partQuantities(packs, content);
  for (const [i, p] of own.entries()) {
    const quantities = { packQuantity: toDecimal(packs[i] as number), baseQuantity: toDecimal(bases[i] as number) };
    const said = p.id === part.id ? { confirmedDate: date, ...(more ? { cancelled: '0' } : {}) } : {};
    await confirmPart(tx, { ...p, ...quantities, ...said });
    Object.assign(p, quantities, said);
  }
  if (rest > 0) {
    const added = {
      ...{ lineId: line.id, partNo: Math.max(...own.map((p) => p.partNo)) + 1, locationId: part.locationId },
      ...{ packQuantity: toDecimal(rest), baseQuantity: toDecimal(bases.at(-1) as number) },
      ...{ wantedDate: part.wantedDate, trayLineId: part.trayLineId },
    };
    const { id } = await insertPart(tx, added);
    standing.push({
      ...{ ...part, ...added, id, received: '0', receivedPacks: '0', receivedValue: 0 },
      ...{ cancelled: '0', confirmedDate: null },
    });
  } else {
    const sum = (all: readonly number[]) => toDecimal(all.reduce((a, b) => a + b, 0));
    await resizeLine(tx, line.id, sum(packs), sum(bases));
  }
  return ok({ differs: true, cut: false });
}

/** A line has another price, on the list too where that is wanted. */
async function newPrice(
  tx: Tx,
  actor: Actor,
  at: { readonly now: string; readonly today: string },
  orderId: number,
  line: OrderLineRow,
  amount: string,
  toList: boolean,
): Promise<Result<null, Failure>> {
  const may1 = toList ? may(actor, 'catalogue.edit') : ok(null);
  if (!may1.ok) return may1;
  await setConfirmedPrice(tx, line.id, amount);
  const was = line.priceAmount === null ? '' : toDecimal(fromDecimal(line.priceAmount));
  await recordChanges(tx, actor.userId, at.now, [
    { entity: 'order', entityId: orderId, action: `line ${line.lineNo}: price`, before: was, after: amount },
  ]);
  if (!toList || line.sourceId === null) return ok(null);
  const had = await putListPrice(tx, {
    ...{ sourceId: line.sourceId, packs: line.packQuantity, packId: line.packId, per: line.pricePer, amount },
    ...{ from: at.today, userId: actor.userId, at: at.now },
  });
  await recordChanges(tx, actor.userId, at.now, [
    { entity: 'source', entityId: line.sourceId, action: 'price confirmed', before: had ?? '', after: amount },
  ]);
  markSet(tx, { sourceId: line.sourceId });
  return ok(null);
}
