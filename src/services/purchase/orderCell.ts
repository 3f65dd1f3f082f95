import { parseDate } from '@/core/calendar';
import { parsePrice } from '@/core/money';
import { partQuantities } from '@/core/packs';
import { type Actor, may } from '@/core/people';
import { checkLineQuantity, costSharesText, matchings, parseCostShares } from '@/core/purchase';
import { fromDecimal, toDecimal } from '@/core/quantity';
import { err, ok, type Result } from '@/core/result';
import { fraction } from '@/core/units';
import { type Change, readChanges, recordChanges } from '@/data/repositories/bookkeeping';
import { readLocations } from '@/data/repositories/company';
import { markDirty } from '@/data/repositories/marks';
import {
  bumpOrder,
  type LineBooking,
  type OrderLineRow,
  type PartRow,
  setPartPlace,
  setPromised,
  takeOffOrderLine,
  updateOrderLine,
  updatePart,
  voidOrderLine,
} from '@/data/repositories/orders';
import { lockTrayLines, updateTrayLine } from '@/data/repositories/trays';
import type { Tx } from '@/data/sql';
import { type Failure, type FieldFault, invalidField } from '../failure';
import { followBreaks } from './breakPrices';
import { type LoadedOrder, pairsOf } from './loadOrder';
import { perTrayLine } from './perTrayLine';
import { wantedDay } from './wantedDay';

/** How a line is booked, where it is other than the item and the supplier have it. */
export const bookingFields = ['purpose', 'taxCategory', 'costTo', 'inspect', 'matching'] as const;
export type BookingField = (typeof bookingFields)[number];

/** One cell of a draft. `was` is what the person saw: two people in one order lose nothing, because a cell that someone
 *  else changed meanwhile is shown, and cells that do not touch are both kept. */
export type OrderEdit = { readonly orderId: number } & (
  | {
      readonly field: 'packs' | 'wantedDate' | 'promisedDate' | 'place';
      readonly partId: number;
      readonly was: string;
      readonly now: string;
      /** The day stands as it is, also where nothing is taken in on it: what is undone. */
      readonly exact?: true;
    }
  | {
      readonly field:
        | ('price' | 'discount' | 'freeOfCharge' | 'edition' | 'printedNote' | 'internalNote' | 'priceReason')
        | BookingField;
      readonly lineId: number;
      readonly was: string;
      readonly now: string;
    }
  | { readonly field: 'remove'; readonly lineId: number; readonly was: string }
);

type Applied = Result<Change, Failure>;
const plain = (decimal: string) => toDecimal(fromDecimal(decimal));

/** Changes one cell of a draft, locked and loaded, or puts one line back into its tray, and records it.
 *  Errors: not_found, invalid_field, changed_meanwhile (with who and the value now). Returns the value as stored. */
export async function changeCell(
  tx: Tx,
  actor: Actor,
  now: string,
  today: string,
  loaded: LoadedOrder,
  edit: OrderEdit,
): Promise<Result<string | null, Failure>> {
  const { lines, parts } = loaded;
  const part = 'partId' in edit ? parts.find((p) => p.id === edit.partId) : undefined;
  const line = lines.find((l) => l.id === ('lineId' in edit ? edit.lineId : part?.lineId));
  // Nor one that was voided: it counts nothing any more.
  if (!line || fromDecimal(line.baseQuantity) === 0) return err({ kind: 'not_found', what: 'line' });
  const own = parts.filter((p) => p.lineId === line.id);
  const applied = await apply(tx, edit, {
    lines,
    line,
    own,
    part,
    today,
    told: loaded.order.state === 'amending',
    supplierId: loaded.order.supplierId,
    actor,
  });
  if (!applied.ok) {
    if (applied.error.kind !== 'changed_meanwhile') return applied;
    const last = (await readChanges(tx, 'order', edit.orderId)).at(-1);
    return err({ ...applied.error, who: last?.who ?? null });
  }
  await bumpOrder(tx, edit.orderId);
  await recordChanges(tx, actor.userId, now, [applied.value]);
  markDirty(tx, pairsOf([line], own));
  return ok(typeof applied.value.after === 'string' ? applied.value.after : null);
}

type CellOf = {
  readonly lines: readonly OrderLineRow[];
  readonly line: OrderLineRow;
  readonly own: readonly PartRow[];
  readonly part: PartRow | undefined;
  readonly today: string;
  /** The supplier knows the order: what came of a line stays on it. */
  readonly told: boolean;
  readonly supplierId: number;
  readonly actor: Actor;
};

/** Whether a delivery can be sent to another place: nothing of it came, it comes to a place of ours, and no need of that place asks for it. */
export const isMovable = (p: PartRow): boolean =>
  p.locationId !== null && p.customerLineId === null && p.trayLineId === null && fromDecimal(p.received) === 0;

/** Letters of a note with a line. */
const NOTE_MOST = 400;

const reasons = ['offer', 'mistake', 'new_list'] as const;

async function apply(
  tx: Tx,
  edit: OrderEdit,
  { lines, line, own, part, today, told, supplierId, actor }: CellOf,
): Promise<Applied> {
  const meanwhile = (now: string): Applied => err({ kind: 'changed_meanwhile', what: 'value', who: null, now });
  const record = (action: string, before: string, after: string): Applied =>
    ok({ entity: 'order', entityId: edit.orderId, action: `line ${line.lineNo}: ${action}`, before, after });
  switch (edit.field) {
    case 'packs': {
      const packs = checkLineQuantity(edit.now);
      if (!packs.ok) return err(invalidField('packs', packs.error));
      if (!part) return err({ kind: 'not_found', what: 'line' });
      if (plain(part.packQuantity) !== edit.was) return meanwhile(plain(part.packQuantity));
      const came = fromDecimal(part.receivedPacks);
      if (packs.value < came) return err(invalidField('packs', { kind: 'less_than_came', came }));
      const quantities = own.map((p) => (p.id === part.id ? packs.value : fromDecimal(p.packQuantity)));
      await refigureLine(tx, lines, line, own, quantities, today);
      return record('quantity', edit.was, toDecimal(packs.value));
    }
    case 'wantedDate': {
      if (!part) return err({ kind: 'not_found', what: 'line' });
      const to = { supplierId, locationId: part.locationId };
      const asked = edit.now.trim() === '' ? ok(null) : await wantedDay(tx, edit.now, today, to);
      if (!asked.ok) return err(invalidField('wantedDate', asked.error));
      if ((part.wantedDate ?? '') !== edit.was) return meanwhile(part.wantedDate ?? '');
      const day = edit.exact ? edit.now || null : (asked.value?.day ?? null);
      await updatePart(tx, { ...part, wantedDate: day });
      return record('wanted date', edit.was, day ?? '');
    }
    case 'promisedDate': {
      const day = edit.now.trim() === '' ? ok(null) : parseDate(edit.now, today);
      if (!day.ok) return err(invalidField('promisedDate', day.error));
      if (!part) return err({ kind: 'not_found', what: 'line' });
      if ((part.promisedDate ?? '') !== edit.was) return meanwhile(part.promisedDate ?? '');
      await setPromised(tx, part.id, day.value);
      return record('promised date', edit.was, day.value ?? '');
    }
    case 'place': {
      if (!part) return err({ kind: 'not_found', what: 'line' });
      const was = String(part.locationId ?? '');
      if (was !== edit.was) return meanwhile(was);
      if (!isMovable(part)) return err(invalidField('place', { kind: 'place_is_fixed' }));
      const places = await readLocations(tx);
      const to = places.find((l) => String(l.id) === edit.now && l.closed === 0);
      if (!to) return err({ kind: 'not_found', what: 'location' });
      const allowed = may(actor, 'orders.edit', { locationIds: [to.id] });
      if (!allowed.ok) return allowed;
      await setPartPlace(tx, part.id, to.id);
      if (line.itemId !== null) markDirty(tx, [{ itemId: line.itemId, locationId: to.id }]);
      const name = (id: string) => places.find((l) => String(l.id) === id)?.name ?? '';
      return record('deliver to', name(edit.was), to.name);
    }
    case 'discount': {
      const was = plain(line.discountPercent);
      if (was !== edit.was) return meanwhile(was);
      const typed = edit.now.trim().replace(/\s*%$/, '');
      const percent = typed === '' ? ok('0') : parsePrice(typed);
      if (!percent.ok) return err(invalidField('discount', percent.error));
      if (Number(percent.value) > 100 || /\.\d{4}/.test(percent.value))
        return err(invalidField('discount', { kind: 'not_a_percentage', text: edit.now.trim() }));
      await updateOrderLine(tx, { ...line, discountPercent: percent.value });
      return record('discount', was, percent.value);
    }
    case 'purpose':
    case 'taxCategory':
    case 'costTo':
    case 'inspect':
    case 'matching': {
      const was = bookingText(line, edit.field);
      if (was !== edit.was) return meanwhile(was);
      const booked = bookingOf(edit.field, edit.now.trim());
      if (!booked.ok) return err(invalidField(edit.field, booked.error));
      const changed = { ...line, ...booked.value };
      await updateOrderLine(tx, changed);
      return record(bookingWords[edit.field], was, bookingText(changed, edit.field));
    }
    case 'price': {
      const price = edit.now.trim() === '' ? ok(null) : parsePrice(edit.now);
      if (!price.ok) return err(invalidField('price', price.error));
      const was = line.priceAmount === null ? '' : plain(line.priceAmount);
      if (was !== edit.was) return meanwhile(was);
      await updateOrderLine(tx, { ...line, priceAmount: price.value, priceOrigin: null, priceReason: null });
      return record('price', edit.was, price.value ?? '');
    }
    case 'edition': {
      if (line.edition !== edit.was) return meanwhile(line.edition);
      await updateOrderLine(tx, { ...line, edition: edit.now.trim() });
      return record('edition', edit.was, edit.now.trim());
    }
    case 'printedNote':
    case 'internalNote': {
      if (line[edit.field] !== edit.was) return meanwhile(line[edit.field]);
      const text = edit.now.trim();
      if (text.length > NOTE_MOST)
        return err(invalidField(edit.field, { kind: 'text_too_long', most: NOTE_MOST, has: text.length }));
      await updateOrderLine(tx, { ...line, [edit.field]: text });
      return record(edit.field === 'printedNote' ? 'printed note' : 'internal note', edit.was, edit.now.trim());
    }
    case 'priceReason': {
      const was = line.priceReason ?? '';
      if (was !== edit.was) return meanwhile(was);
      const reason = reasons.find((r) => r === edit.now) ?? null;
      await updateOrderLine(tx, { ...line, priceReason: reason });
      return record('why this price', was, reason ?? '');
    }
    case 'freeOfCharge': {
      if (String(line.freeOfCharge === 1) !== edit.was) return meanwhile(String(line.freeOfCharge === 1));
      await updateOrderLine(tx, { ...line, freeOfCharge: edit.now === 'true' ? 1 : 0 });
      return record('free of charge', edit.was, edit.now);
    }
    case 'remove': {
      const [came] = own.filter((p) => fromDecimal(p.received) > 0);
      if (told && came)
        return err(invalidField('packs', { kind: 'less_than_came', came: fromDecimal(came.receivedPacks) }));
      const byTray = perTrayLine(own);
      const trayIds = [...byTray.keys()];
      for (const t of await lockTrayLines(tx, trayIds))
        await updateTrayLine(tx, { id: t.id, state: 'in_tray', ...(byTray.get(t.id) ?? t) });
      // A change that is dropped needs the line; it is told to the supplier as taken off.
      await (told ? voidOrderLine(tx, line.id) : takeOffOrderLine(tx, line.id));
      const left = lines.filter((l) => l.id !== line.id);
      await followBreaks(tx, left, [line], today);
      return record(trayIds.length > 0 ? 'put back into its tray' : 'removed', line.description, '');
    }
  }
}

const bookingWords: Readonly<Record<BookingField, string>> = {
  purpose: 'bought for',
  taxCategory: 'tax category',
  costTo: 'account',
  inspect: 'inspection',
  matching: 'matching',
};

/** How a line is booked as its cell has it; '' = as the item and the supplier have it. */
const bookingText = (line: LineBooking, field: BookingField): string =>
  field === 'inspect' ? (line.inspect === null ? '' : line.inspect === 1 ? 'yes' : 'no') : (line[field] ?? '');

/** A cell of how a line is booked, as typed or chosen. Errors: no_account, shares_not_whole. */
function bookingOf(field: BookingField, text: string): Result<Partial<LineBooking>, FieldFault> {
  const one = <T extends string>(of: readonly T[]): T | null => of.find((v) => v === text) ?? null;
  switch (field) {
    case 'purpose':
      return ok({ purpose: one(['resale', 'own_use'] as const) });
    case 'taxCategory':
      return ok({ taxCategory: text.slice(0, 20) });
    case 'costTo': {
      const shares = parseCostShares(text);
      return shares.ok ? ok({ costTo: costSharesText(shares.value) }) : shares;
    }
    case 'inspect':
      return ok({ inspect: text === '' ? null : text === 'yes' ? 1 : 0 });
    case 'matching':
      return ok({ matching: one(matchings) });
  }
}

/** New pack quantities of all parts of a line. The price follows the list at the new quantity as long as nobody set another;
 *  so do the prices of other lines whose breaks count over the same item or price group. */
export async function refigureLine(
  tx: Tx,
  lines: readonly OrderLineRow[],
  line: OrderLineRow,
  own: readonly PartRow[],
  packs: readonly number[],
  today: string,
): Promise<void> {
  const bases = partQuantities(packs, fraction(line.contentNum, line.contentDen));
  for (const [i, p] of own.entries()) {
    const packQuantity = toDecimal(packs[i] as number);
    await updatePart(tx, {
      id: p.id,
      packQuantity,
      baseQuantity: toDecimal(bases[i] as number),
      wantedDate: p.wantedDate,
    });
  }
  const total = packs.reduce((a, b) => a + b, 0);
  const now = lines.map((l) =>
    l.id === line.id
      ? { ...l, packQuantity: toDecimal(total), baseQuantity: toDecimal(bases.reduce((a, b) => a + b, 0)) }
      : l,
  );
  await followBreaks(
    tx,
    now,
    now.filter((l) => l.id === line.id),
    today,
  );
}
