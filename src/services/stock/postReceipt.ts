import { type LotEntry, type LotFault, parseLots, parseSerials } from '@/core/lots';
import type { Actor } from '@/core/people';
import { type Counted, countGoods, openOf, orderTotals, receiptValue } from '@/core/purchase';
import { checked, fromDecimal, toDecimal } from '@/core/quantity';
import { err, ok, type Result } from '@/core/result';
import { fraction } from '@/core/units';
import { drawNumber, recordChanges } from '@/data/repositories/bookkeeping';
import { readItemsByIds } from '@/data/repositories/catalogue';
import { readCompany } from '@/data/repositories/company';
import { lockLevels } from '@/data/repositories/levels';
import { ensureLots, readTracked, serialsThere } from '@/data/repositories/lots';
import { addReceived, type OrderLineRow, type PartRow, partFigures } from '@/data/repositories/orders';
import { insertReceipt, insertReceiptLines } from '@/data/repositories/receipts';
import type { Tx } from '@/data/sql';
import { readExchange } from '../cost/exchange';
import { type Deps, todayOf } from '../deps';
import { type Failure, invalidField } from '../failure';
import { giveToWaiting, lockWaiting, type PutBy } from '../promise/shareOut';
import { loadOrder } from '../purchase/loadOrder';
import { numberText, periodOf } from '../purchase/orderNumber';
import { totalLineOf } from '../purchase/pricing';
import { recordUndo } from '../undo/recordUndo';
import { businessDayOf } from './businessDay';
import { type CrossedLevel, crossingsOf } from './crossings';
import { type Came, fillPegs, lockPegs } from './fillPegs';
import { type Handed, lockCustomers, postHandedOver } from './postHandedOver';
import { postMovements, type StockChange } from './postMovements';
import { enterUnordered, type Unordered } from './unordered';

type Entry = {
  readonly partId: number;
  readonly quantity: string;
  readonly unit: 'pack' | 'base';
  /** Lots or serial numbers as typed or pasted, of items that are kept so; '' = not known. */
  readonly lots?: string;
};
export type ReceiveGoods = {
  readonly orderId: number;
  readonly locationId: number;
  readonly deliveryNote: string;
  /** The day the goods came, when they are booked in afterwards; '' = today. */
  readonly businessDate: string;
  readonly counted: readonly Entry[];
  /** What came besides; see unordered.ts. */
  readonly unordered?: readonly Unordered[];
};

export type BookedIn = {
  readonly receipt: string;
  readonly receiptId: number;
  /** Levels that stock came to by it. */
  readonly crossed: readonly CrossedLevel[];
  /** Customers' orders that something of it was put by for. */
  readonly putBy: readonly PutBy[];
  /** Customers' orders that it was sent for, straight from the supplier, and what was sent beyond what they ask for. */
  readonly handed: readonly Handed[];
};

/** `value` in the currency of the order, `worth` in the company's. */
type ReceivedLine = {
  part: PartRow;
  line: OrderLineRow;
  packs: number;
  base: number;
  value: number;
  worth: number;
  lots: readonly LotEntry[];
};

/** What was counted of an order at one location, or was sent from its supplier straight to customers: receipt, movements, levels and
 *  what is still expected; what was sent straight is handed over by it and moves no stock. To be called once it is known that the person may.
 *  Empty lines are left out; more than ordered is booked as it came, and what nobody ordered on a line of its own.
 *  Errors: forbidden, not_found, not_in_this_state, invalid_field per line (field = counted.<part id>, lots.<part id>) or businessDate,
 *  nothing_counted, books_closed. */
export async function postReceipt(
  deps: Deps,
  tx: Tx,
  actor: Actor,
  { key, now, straight }: { readonly key: string; readonly now: string; readonly straight: boolean },
  input: ReceiveGoods,
): Promise<Result<BookedIn, Failure>> {
  const { orderId, locationId } = input;
  const seen = await loadOrder(tx, orderId, 'receive');
  if (!seen.ok) return seen;
  const company = await readCompany(tx);
  const today = todayOf(deps, company);
  const day = businessDayOf(input.businessDate, today);
  if (!day.ok) return day;
  const at = { userId: actor.userId, now, today, day: day.value };
  const besides = await enterUnordered(tx, at, seen.value, locationId, input.unordered ?? []);
  if (!besides.ok) return besides;
  const loaded = besides.value.length === 0 ? seen : await loadOrder(tx, orderId, 'receive');
  if (!loaded.ok) return loaded;
  const { order, lines, parts } = loaded.value;
  const totals = orderTotals(lines.map(totalLineOf), order.currency);
  // Several parts of one line may come at once: value runs over the line, so each part sees those before it.
  const running = new Map(
    lines.map((l) => {
      const own = parts.filter((p) => p.lineId === l.id);
      const received = own.reduce((sum, p) => sum + fromDecimal(p.received), 0);
      return [l.id, { received, value: own.reduce((sum, p) => sum + p.receivedValue, 0) }];
    }),
  );
  const came: ReceivedLine[] = [];
  const tracked = await readTracked(
    tx,
    lines.flatMap((l) => l.itemId ?? []),
  );
  for (const entry of [...input.counted, ...besides.value]) {
    const part = parts.find(
      (p) => p.id === entry.partId && p.locationId === locationId && (p.customerLineId !== null) === straight,
    );
    const index = lines.findIndex((l) => l.id === part?.lineId);
    const line = lines[index];
    if (!part || !line) return err({ kind: 'not_found', what: 'line' });
    const counted = countedOn(entry, part, line);
    if (!counted.ok) return counted;
    if (counted.value === null) continue;
    const { packs, base } = counted.value;
    const sofar = running.get(line.id) as { received: number; value: number };
    const value = receiptValue(
      totals.lines[index] as number,
      fromDecimal(line.baseQuantity),
      sofar.received,
      sofar.value,
      base,
    );
    running.set(line.id, { received: sofar.received + base, value: sofar.value + value });
    const tracking = line.itemId === null ? undefined : tracked.get(line.itemId);
    const lots = await lotsOn(tx, entry, line, tracking, base, today);
    if (!lots.ok) return lots;
    came.push({ part, line, packs, base, value, worth: 0, lots: lots.value });
  }
  if (came.length === 0) return err({ kind: 'nothing_counted' });
  // The receipt has the rate of its day.
  const exchange = await readExchange(tx, company.currency, day.value);
  for (const c of came) {
    const worth = exchange.toBase(c.value, order.currency);
    if (worth === null) return err({ kind: 'no_rate', currency: order.currency, on: day.value });
    c.worth = worth;
  }
  return book(tx, actor, at, { ...input, key, day: day.value, straight }, came);
}

/** What was counted on one line; a fault names the line. */
function countedOn(entry: Entry, part: PartRow, line: OrderLineRow): Result<Counted | null, Failure> {
  const content = fraction(line.contentNum, line.contentDen);
  const counted = countGoods(entry.quantity, entry.unit, openOf(partFigures(part), content), content);
  return counted.ok ? counted : err(invalidField(`counted.${part.id}`, counted.error));
}

/** Lots or serial numbers that came on one line. Errors: invalid_field lots.<part id>. */
async function lotsOn(
  tx: Tx,
  entry: Entry,
  line: OrderLineRow,
  tracking: 'lot' | 'serial' | undefined,
  base: number,
  today: string,
): Promise<Result<LotEntry[], Failure>> {
  const text = entry.lots ?? '';
  if (tracking === undefined || line.itemId === null || text.trim() === '') return ok([]);
  const read = tracking === 'lot' ? parseLots(text, base, today) : parseSerials(text, base);
  const fault = (f: LotFault): Result<never, Failure> => err(invalidField(`lots.${entry.partId}`, f));
  if (!read.ok) return fault(read.error);
  const codes = tracking === 'serial' ? read.value.map((l) => l.code) : [];
  const [there] = await serialsThere(tx, line.itemId, codes);
  return there === undefined ? read : fault({ kind: 'serial_there', text: there });
}

type Head = Pick<ReceiveGoods, 'orderId' | 'locationId' | 'deliveryNote'> & {
  readonly key: string;
  readonly day: string;
  readonly straight: boolean;
};

async function book(
  tx: Tx,
  actor: Actor,
  { now, today }: { readonly now: string; readonly today: string },
  { key, orderId, locationId, deliveryNote, day, straight }: Head,
  came: readonly ReceivedLine[],
): Promise<Result<BookedIn, Failure>> {
  for (const { part, packs, base, value } of came) {
    await addReceived(tx, {
      id: part.id,
      received: toDecimal(checked(fromDecimal(part.received) + base)),
      receivedPacks: toDecimal(checked(fromDecimal(part.receivedPacks) + packs)),
      receivedValue: part.receivedValue + value,
    });
  }
  const items = await readItemsByIds(tx, [...new Set(came.flatMap(({ line }) => line.itemId ?? []))]);
  const moves = (itemId: number | null): itemId is number =>
    !straight && itemId !== null && items.get(itemId)?.stockKept === 1;
  const arrived = came.flatMap(({ part, line: { itemId }, base }): Came[] =>
    moves(itemId) ? [{ itemId, locationId, trayLineId: part.trayLineId, decisionId: null, quantity: base }] : [],
  );
  const pegs = await lockPegs(tx, arrived);
  const customers = await lockCustomers(
    tx,
    came.map((c) => c.part),
  );
  const waiting = await lockWaiting(tx, arrived, today);
  // The number comes late; levels are locked before lots and the counter, as everywhere.
  const before = await lockLevels(
    tx,
    came.flatMap(({ line: { itemId } }) => (moves(itemId) ? [{ itemId, locationId }] : [])),
  );
  const changes: StockChange[] = [];
  for (const [i, { line, base, worth, lots: entries }] of came.entries()) {
    const { itemId } = line;
    if (!moves(itemId)) continue;
    const document = { kind: 'receipt' as const, id: 0, line: i + 1 };
    const ids = entries.length > 0 ? await ensureLots(tx, itemId, entries, now) : new Map<string, number>();
    const lots = entries.map((e) => ({ lotId: ids.get(e.code) as number, quantity: e.quantity }));
    const change = { itemId, locationId, kind: 'receipt' as const, businessDate: day, quantity: base, value: worth };
    changes.push({ ...change, document, ...(lots.length > 0 ? { lots } : {}) });
  }
  const period = periodOf(today);
  const receipt = numberText('R', period, await drawNumber(tx, 'GR', period));
  const row = {
    number: receipt,
    orderId,
    locationId,
    businessDate: day,
    deliveryNote,
    userId: actor.userId,
    at: now,
  };
  const receiptId = await insertReceipt(tx, row);
  await insertReceiptLines(
    tx,
    receiptId,
    came.map(({ part, line, packs, base, value, worth }) => ({
      partId: part.id,
      itemId: line.itemId,
      packQuantity: toDecimal(packs),
      baseQuantity: toDecimal(base),
      value: worth,
      orderValue: value,
      movesStock: moves(line.itemId),
    })),
  );
  const posted = await postMovements(
    tx,
    actor.userId,
    now,
    today,
    changes.map((c) => ({ ...c, document: { ...c.document, id: receiptId } })),
  );
  if (!posted.ok) return posted;
  await fillPegs(tx, { userId: actor.userId, now }, pegs, arrived);
  const sent = came.map(({ part, base }) => ({ part, base }));
  const handed = await postHandedOver(tx, { userId: actor.userId, now }, { receiptId, receipt }, customers, sent);
  const putBy = await giveToWaiting(tx, { userId: actor.userId, now, today }, waiting);
  await recordChanges(tx, actor.userId, now, [
    { entity: 'receipt', entityId: receiptId, action: 'booked in', after: { receipt, lines: came.length } },
    { entity: 'order', entityId: orderId, action: 'goods received', after: { receipt } },
  ]);
  await recordUndo(tx, actor, key, 'receive-goods', now, { kind: 'booked_in', receiptId });
  return ok({ receipt, receiptId, crossed: await crossingsOf(tx, before, changes), putBy, handed });
}
