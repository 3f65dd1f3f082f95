import { type BusinessDate, instantOf, parseDate } from '@/core/calendar';
import { baseQuantity, packContent } from '@/core/packs';
import { checkLineQuantity } from '@/core/purchase';
import { MICRO, type Quantity, toDecimal } from '@/core/quantity';
import { err, ok, type Result, unwrap } from '@/core/result';
import { explodeKits } from '@/core/stock';
import { fraction } from '@/core/units';
import { readPacks } from '@/data/repositories/catalogue';
import type { CustomerWay, NewCustomerLine } from '@/data/repositories/customerOrders';
import type { Pair } from '@/data/repositories/levels';
import type { Tx } from '@/data/sql';
import { stamp } from '../deps';
import { type Failure, invalidField } from '../failure';
import { groupBy } from '../grouping';
import { checkSaleDecimals, itemsOfLines } from '../stock/enterLines';
import { kitContents } from '../stock/kitContents';

/** A line as typed: packs (base units without a pack), dates as typed ('' = today, and the wanted date), until when what is
 *  put by is kept ('' = until it is collected; a day, or a day and a minute). */
export type CustomerLineInput = {
  readonly itemId: number;
  readonly packId: number | null;
  readonly quantity: string;
  readonly locationId: number;
  readonly way: CustomerWay;
  readonly wantedDate: string;
  readonly shipBy: string;
  readonly holdUntil: string;
};

/** The end of a day that was said without a time. */
const LAST_MINUTE = '23:59';

/** Until when something is put by, in UTC. Errors: not_a_date, not_a_time. */
export function holdUntilOf(text: string, today: BusinessDate, timeZone: string): Result<string | null, Failure> {
  const typed = text.trim();
  if (typed === '') return ok(null);
  const [, day = '', time] = /^(.*?)(?:[ T](\d{1,2}:\d{2}))?$/.exec(typed) ?? [];
  const date = parseDate(day, today);
  if (!date.ok) return err(invalidField('holdUntil', { kind: 'not_a_date', text: typed }));
  if (time !== undefined && !/^([01]?\d|2[0-3]):[0-5]\d$/.test(time))
    return err(invalidField('holdUntil', { kind: 'not_a_time', text: time }));
  return ok(stamp(instantOf(date.value, (time ?? LAST_MINUTE).padStart(5, '0'), timeZone)).slice(0, 19));
}

/** Lines to enter with what each takes of stock: an item itself, of a kit what it is made of now, of what no stock is kept of
 *  nothing. Errors: nothing_counted without a line, not_found, invalid_field lines.<index>[.wantedDate|.shipBy|.holdUntil]. */
export async function linesToEnter(
  tx: Tx,
  at: { readonly today: BusinessDate; readonly timeZone: string },
  inputs: readonly CustomerLineInput[],
): Promise<Result<NewCustomerLine[], Failure>> {
  if (inputs.length === 0) return err({ kind: 'nothing_counted' });
  const itemIds = [...new Set(inputs.map((l) => l.itemId))];
  const items = await itemsOfLines(tx, [...new Set(inputs.map((l) => l.locationId))], itemIds);
  if (!items.ok) return items;
  const packs = groupBy(await readPacks(tx, itemIds), (p) => p.itemId);
  const contents = await kitContents(tx, itemIds);
  const lines: NewCustomerLine[] = [];
  const quantities: Quantity[] = [];
  for (const [i, l] of inputs.entries()) {
    const own = packs.get(l.itemId) ?? [];
    const pack = l.packId === null ? null : own.find((p) => p.id === l.packId);
    if (pack === undefined) return err({ kind: 'not_found', what: 'line' });
    const content = pack === null ? fraction(1n) : unwrap(packContent(new Map(own.map((p) => [p.id, p])), pack.id));
    const typed = checkLineQuantity(l.quantity, content);
    if (!typed.ok) return err(invalidField(`lines.${i}`, typed.error));
    const wanted = dateOf(l.wantedDate, at.today, at.today);
    if (wanted === null) return err(invalidField(`lines.${i}.wantedDate`, { kind: 'not_a_date', text: l.wantedDate }));
    const shipBy = dateOf(l.shipBy, at.today, wanted);
    if (shipBy === null) return err(invalidField(`lines.${i}.shipBy`, { kind: 'not_a_date', text: l.shipBy }));
    const hold = holdUntilOf(l.holdUntil, at.today, at.timeZone);
    if (!hold.ok)
      return hold.error.kind === 'invalid_field' ? err({ ...hold.error, field: `lines.${i}.holdUntil` }) : hold;
    const quantity = baseQuantity(typed.value, content);
    const item = items.value.get(l.itemId);
    const kit = contents(l.itemId).length > 0;
    const demand = kit
      ? setOf(explodeKits([{ itemId: l.itemId, quantity: MICRO }], contents))
      : item?.stockKept === 1
        ? [{ itemId: l.itemId, perSet: '1' }]
        : [];
    if (l.way === 'straight' && !goesStraight(l.itemId, demand))
      return err(invalidField(`lines.${i}`, { kind: 'not_straight' }));
    quantities.push(quantity);
    lines.push({
      ...{ itemId: l.itemId, locationId: l.locationId, way: l.way, packId: pack?.id ?? null },
      packName: pack?.name ?? item?.unitName ?? '',
      packQuantity: toDecimal(typed.value),
      baseQuantity: toDecimal(quantity),
      ...{ wantedDate: wanted, shipBy, holdUntil: hold.value, wholeSets: kit },
      demand,
    });
  }
  const fine = checkSaleDecimals(items.value, inputs, quantities);
  return fine.ok ? ok(lines) : fine;
}

/** Whether a line can go from the supplier straight to the customer: one item that stock is kept of, no kit. */
export const goesStraight = (itemId: number, demand: readonly { readonly itemId: number }[]): boolean =>
  demand.length === 1 && demand[0]?.itemId === itemId;

/** A date as typed; what is not said is another. Null when it is none. */
function dateOf(text: string, today: BusinessDate, unsaid: BusinessDate): BusinessDate | null {
  if (text.trim() === '') return unsaid;
  const date = parseDate(text.trim(), today);
  return date.ok ? date.value : null;
}

/** What a set takes of each item. */
const setOf = (parts: readonly { readonly itemId: number; readonly quantity: Quantity }[]) =>
  [...groupBy(parts, (p) => p.itemId)].map(([itemId, own]) => ({
    itemId,
    perSet: toDecimal(own.reduce((a, p) => a + p.quantity, 0)),
  }));

/** Pairs that lines take stock of. */
export const pairsOfLines = (lines: readonly NewCustomerLine[]): Pair[] =>
  lines.flatMap((l) => l.demand.map((d) => ({ itemId: d.itemId, locationId: l.locationId })));
