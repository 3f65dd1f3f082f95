import {
  addDays,
  arrivesIfOrdered,
  daysBetween,
  horizonOf,
  horizonReaches,
  rollTo,
  type SupplyCalendar,
  slotAfter,
  startOfDay,
} from '@/core/calendar';
import type { NeedRunInput, OrderRule } from '@/core/netting';
import { roundings } from '@/core/netting';
import type { Flow } from '@/core/projection';
import type { Tx } from '../sql';
import { type Calendars, readCalendars } from './calendars';
import { readCompany } from './company';
import { type Ground, micro, readGround } from './needInputs/ground';
import { type InsteadOf, readSlotPlans, type SlotPlans } from './needInputs/plans';
import { readSlotSources } from './needInputs/sources';

/** Inputs of a need run with what each slot stands for: slot = index of item × number of locations + index of location. */
export type NeedInputs = Pick<SlotPlans, 'policy' | 'levels' | 'plan' | 'figures' | 'calendar'> & {
  readonly itemIds: readonly number[];
  readonly locationIds: readonly number[];
  readonly arrays: NeedRunInput;
  /** Preferred source per slot; 0 = none. */
  readonly sourceIds: Uint32Array;
  /** When time alone changes a slot, in milliseconds since 1970; 0 = never. */
  readonly nextDue: Float64Array;
  /** The slot of a pair; null for what is not planned (transit, another item). */
  readonly slotOf: (itemId: number, locationId: number) => number | null;
  readonly orderRule: (at: number) => OrderRule;
  readonly calendars: Calendars;
};

/** The receiving day that goods need after they came, before they count as there. */
const RECEIVING_DAYS = 1;
const settled = (c: SupplyCalendar): SupplyCalendar => ({ ...c, receivingDays: c.receivingDays + RECEIVING_DAYS });

/** Reads everything a need run depends on, into typed arrays. With item ids, only for those items (all their locations);
 *  with null, for the whole catalogue. One set of SELECTs serves both, so the two can't disagree. `instead`: settings as they
 *  would be. */
export async function readNeedInputs(
  tx: Tx,
  only: readonly number[] | null,
  today: string,
  instead: InsteadOf = new Map(),
): Promise<NeedInputs> {
  const company = await readCompany(tx);
  const calendars = await readCalendars(tx, today);
  const g = await readGround(tx, only, today);
  const sources = await readSlotSources(g);
  const plans = await readSlotPlans(g, sources, calendars, instead);
  const nextDue = new Float64Array(g.arrays.count);
  const due = (at: number, day: string) => {
    const ms = dueMs(day, company.timeZone);
    if (nextDue[at] === 0 || ms < (nextDue[at] as number)) nextDue[at] = ms;
  };
  for (const [at, day] of plans.seasonChange) due(at, day);
  await readSupply(g, plans, sources.delivers, sources.sourceIds, due, company.timeZone);
  return {
    ...{ itemIds: g.itemIds, locationIds: g.locationIds, arrays: g.arrays, sourceIds: sources.sourceIds, nextDue },
    ...{
      policy: plans.policy,
      levels: plans.levels,
      plan: plans.plan,
      figures: plans.figures,
      calendar: plans.calendar,
    },
    calendars,
    slotOf: (itemId, locationId) => {
      const [i, l] = [g.itemIndex.get(itemId), g.locationIndex.get(locationId)];
      return i === undefined || l === undefined ? null : i * g.width + l;
    },
    orderRule: (at) => ({
      minimum: g.arrays.orderMinimum[at] as number,
      packMicro: g.arrays.packMicro[at] as number,
      multiplePacks: g.arrays.multiplePacks[at] as number,
      mode: roundings[g.arrays.rounding[at] as number] as OrderRule['mode'],
    }),
  };
}

const starts = new Map<string, number>();
/** The instant a day begins in a time zone; the same few days are asked for by many slots. */
function dueMs(day: string, timeZone: string): number {
  const key = `${day} ${timeZone}`;
  const had = starts.get(key);
  if (had !== undefined) return had;
  if (starts.size > 5000) starts.clear();
  const ms = startOfDay(day, timeZone).getTime();
  starts.set(key, ms);
  return ms;
}

type Delivers = ReadonlyMap<number, { supplierId: number; stated: { days: number; kind: 'working' | 'calendar' } }>;

/** Open supply and what has been decided: parts of approved and sent orders are on the way (unless wanted after the horizon),
 *  drafts and tray lines are in trays, transfers on the way once approved and in trays while only asked for. What a decision
 *  itself brought is kept apart, to tell whether its need comes back. */
async function readSupply(
  g: Ground,
  plans: SlotPlans,
  delivers: Delivers,
  sourceIds: Uint32Array,
  due: (at: number, day: string) => void,
  timeZone: string,
): Promise<void> {
  const { tx, where, arrays, slot, locationIds, width, today } = g;
  const add = (array: Float64Array, at: number, q: number) => {
    array[at] = (array[at] as number) + q;
  };
  const horizons = new Map<string, string>();
  const calendarOf = (at: number): { key: string; calendar: SupplyCalendar } | null => {
    const sent = (arrays.suppliedBy[at] as number) > 0;
    const locationId = locationIds[at % width] as number;
    const d = delivers.get(sourceIds[at] as number);
    if (!sent && !d) return null;
    const key = sent ? `s${locationId}` : `${d?.supplierId}/${d?.stated.days}${d?.stated.kind}/${locationId}`;
    const calendar = plans.calendar(at);
    return calendar && { key, calendar: settled(calendar) };
  };
  const horizonAt = (at: number): string | null => {
    const c = calendarOf(at);
    if (!c) return null;
    const had = horizons.get(c.key) ?? horizonOf(c.calendar, today);
    horizons.set(c.key, had);
    return had;
  };
  const reaches = new Map<string, string>();

  // What is dated of slots that are looked at day by day. Supply that is here before a new order could be counts at once:
  // a shortage before that day is nothing an order could mend.
  const flows = new Map<number, { receipts: Flow[]; arrival: number }>();
  for (const [at, plan] of plans.dated) {
    const calendar = plans.calendar(at);
    const arrival = calendar ? daysBetween(today, arrivesIfOrdered(calendar, today)) : 0;
    const horizon = horizonAt(at);
    const receipts: Flow[] = [];
    flows.set(at, { receipts, arrival });
    arrays.dated.set(at, {
      plan,
      receipts,
      orders: [],
      horizonDay: horizon === null ? 30 : Math.max(0, daysBetween(today, horizon)),
    });
    // Every day may be the first that falls below.
    due(at, addDays(today, 1));
  }
  const flow = (at: number, date: string | null, quantity: number) => {
    const dated = flows.get(at);
    if (!dated) return;
    const day = date === null ? dated.arrival : daysBetween(today, date);
    dated.receipts.push({ day: day <= dated.arrival ? 0 : day, quantity });
  };

  const supply = (await tx.arrays(
    `SELECT l.item_id, d.location_id, o.state = 'draft', d.wanted_date, COALESCE(d.confirmed_date, d.promised_date, d.wanted_date),
            ${micro('d.base_quantity - d.received_quantity - d.cancelled_quantity')}, t.decision_id
       FROM purchase_order o
       JOIN order_line l ON l.order_id = o.id AND l.kind = 'stock'
       JOIN delivery_part d ON d.order_line_id = l.id
       LEFT JOIN tray_line t ON t.id = d.tray_line_id
      WHERE o.state IN ('draft', 'approved', 'sent') AND d.location_id IS NOT NULL
        AND d.base_quantity > d.received_quantity + d.cancelled_quantity ${where('l.item_id', 'AND')}`,
  )) as [number, number, number, string | null, string | null, number, number | null][];
  const transfers = (await tx.arrays(
    `SELECT l.item_id, t.from_location_id, t.to_location_id, t.state,
            ${micro("CASE t.state WHEN 'requested' THEN l.asked WHEN 'approved' THEN l.approved ELSE l.shipped - l.received - l.lost END")},
            l.decision_id
       FROM transfer t JOIN transfer_line l ON l.transfer_id = t.id
      WHERE t.state IN ('requested', 'approved', 'shipped') ${where('l.item_id', 'AND')}`,
  )) as [number, number, number, 'requested' | 'approved' | 'shipped', number, number | null][];
  const trays = (await tx.arrays(
    `SELECT item_id, location_id, ${micro('base_quantity')}, decision_id FROM tray_line
      WHERE state = 'in_tray' ${where('item_id', 'AND')}`,
  )) as [number, number, number, number][];
  const decisions = (await tx.arrays(
    `SELECT d.id, ${micro('d.shortage')}, n.item_id, n.location_id, d.decided_at FROM need n JOIN decision d ON d.id = n.last_decision_id
      WHERE n.peg = 0 AND d.kind = 'accept' ${where('n.item_id', 'AND')}`,
  )) as [number, number, number, number, string][];
  const lastDecisions = new Map(decisions.map((d) => [d[0], d[1]]));
  const countOwn = (decision: number | null, at: number, q: number) => {
    const shortage = decision === null ? undefined : lastDecisions.get(decision);
    if (shortage === undefined) return;
    arrays.decidedShortage[at] = shortage;
    add(arrays.decidedOpen, at, q);
  };
  for (const [item, location, isDraft, wanted, comes, open, decision] of supply) {
    const at = slot(item, location);
    flow(at, comes, open);
    const horizon = wanted === null ? null : horizonAt(at);
    if (horizon !== null && wanted !== null && wanted > horizon) {
      const c = calendarOf(at) as { key: string; calendar: SupplyCalendar };
      const key = `${wanted}/${c.key}`;
      const day = reaches.get(key) ?? horizonReaches(c.calendar, today, wanted);
      reaches.set(key, day);
      due(at, day);
      continue;
    }
    add(isDraft === 1 ? arrays.inTrays : arrays.onTheWay, at, open);
    countOwn(decision, at, open);
  }
  for (const [item, from, to, state, q, decision] of transfers) {
    if (q <= 0) continue;
    const at = slot(item, to);
    flow(at, null, q);
    add(state === 'requested' ? arrays.inTrays : arrays.onTheWay, at, q);
    countOwn(decision, at, q);
    // What is only asked for is demand where it is asked for, like a suggestion that nobody has decided.
    if (state === 'requested') add(arrays.asked, slot(item, from), q);
  }
  for (const [item, location, q, decision] of trays) {
    const at = slot(item, location);
    flow(at, null, q);
    add(arrays.inTrays, at, q);
    countOwn(decision, at, q);
  }
  if (plans.periodic.length === 0) return;
  const decidedAt = new Map(decisions.map(([, , item, location, when]) => [slot(item, location), when]));
  for (const at of plans.periodic) {
    const calendar = plans.calendar(at);
    if (!calendar) continue;
    const opened = rollTo(calendar.slots, today, 'backward');
    due(at, slotAfter(calendar, today));
    const when = decidedAt.get(at);
    if (when === undefined) continue;
    const ms = Date.parse(`${when.replace(' ', 'T')}Z`);
    if (ms >= dueMs(opened, timeZone)) arrays.decidedInWindow[at] = 1;
  }
}
