import { addDays, type BusinessDate, type SupplyCalendar, type WorkCalendar, weekOf } from '@/core/calendar';
import { type LeadTimeInUse, type LeadTimeRule, leadTimeInUse, type MeasuredLeadTime } from '@/core/leadtime';
import { Asking } from '../asking';
import type { Tx } from '../sql';
import { askCompanyRules } from './companyRules';
import { askPlaceDays, type PlaceDays } from './placeDays';

type Stated = { readonly days: number; readonly kind: 'working' | 'calendar' };

/** Slots, closures and receiving days of all suppliers and places, as calendars; and the lead times that count. */
export type Calendars = {
  /** How an order from a supplier comes to a place, by its own or the supplier's lead time. */
  readonly supply: (supplierId: number, stated: Stated, locationId: number | null) => SupplyCalendar;
  /** How goods come from one of our places to another: on the days of the van (any day without one), so many days on the road,
   *  received when the place receives. */
  readonly sending: (toLocationId: number) => SupplyCalendar;
  readonly leadTime: (supplierId: number, stated: Stated) => LeadTimeInUse;
  /** Days on the road to a place from where it is supplied. */
  readonly travelDays: (locationId: number) => number;
  /** Within so many days of the order nine of ten of a supplier's deliveries came; null when fewer have been measured than count. */
  readonly nineOfTenDays: (supplierId: number) => number | null;
};

/** Closures of suppliers and places are taken over so many days ahead; a calendar needs them as single days. */
const AHEAD_DAYS = 1200;
const ALL_DAYS: WorkCalendar = { week: weekOf(127), holidays: new Set() };
const MON_TO_FRI = 31;

/** When a supplier takes orders, and how long its deliveries took; n null = none has been measured. */
type SupplierDays = {
  readonly id: number;
  readonly orderDays: number;
  readonly cutOff: string | null;
  readonly n: number | null;
  readonly mean: string;
  readonly sd: string | null;
  readonly median: string;
  readonly p90: string;
  readonly observed: string;
};
type Closed = {
  readonly supplierId: number | null;
  readonly locationId: number | null;
  readonly from: string;
  readonly to: string;
};
export const readCalendars = (tx: Tx, today: BusinessDate): Promise<Calendars> =>
  askCalendars(new Asking(tx, 'together'), today)();

/** The same, asked for beside other things. */
export function askCalendars(
  ask: Asking,
  today: BusinessDate,
  rules = askCompanyRules(ask),
  places = askPlaceDays(ask),
): () => Promise<Calendars> {
  const suppliers = ask.rows<SupplierDays>(
    `SELECT s.id, s.order_days AS orderDays, TIME_FORMAT(s.cut_off, '%H:%i') AS cutOff, m.n, m.mean_days AS mean,
            m.sd_days AS sd, m.median_days AS median, m.p90_days AS p90, m.observed
       FROM supplier s LEFT JOIN supplier_lead_time m ON m.supplier_id = s.id`,
  );
  const closed = ask.rows<Closed>(
    `SELECT supplier_id AS supplierId, location_id AS locationId, from_day AS \`from\`, to_day AS \`to\` FROM closed_days
      WHERE to_day >= ? AND from_day <= ?`,
    [today, addDays(today, AHEAD_DAYS)],
  );
  return async () => calendarsOf(today, await suppliers(), await places(), await closed(), (await rules()).leadTime);
}

function calendarsOf(
  today: BusinessDate,
  supplierDays: readonly SupplierDays[],
  placeDays: readonly PlaceDays[],
  closed: readonly Closed[],
  rule: LeadTimeRule,
): Calendars {
  const suppliers = new Map(supplierDays.map((s) => [s.id, s]));
  const places = new Map(placeDays.map((l) => [l.id, l]));
  const closedOf = { supplier: new Map<number, Set<string>>(), place: new Map<number, Set<string>>() };
  const everywhere: string[] = [];
  for (const c of closed) {
    const days: string[] = [];
    for (let d = c.from < today ? today : c.from; d <= c.to && days.length < AHEAD_DAYS; d = addDays(d, 1))
      days.push(d);
    if (c.supplierId === null && c.locationId === null) everywhere.push(...days);
    const [of, id] = c.supplierId !== null ? [closedOf.supplier, c.supplierId] : [closedOf.place, c.locationId];
    if (id !== null) of.set(id, new Set([...(of.get(id) ?? []), ...days]));
  }
  const none: ReadonlySet<string> = new Set();
  const receiving = new Map<number | null, WorkCalendar>();
  const receivingOf = (id: number | null): WorkCalendar => {
    const had = receiving.get(id);
    if (had) return had;
    const holidays = new Set([...everywhere, ...(closedOf.place.get(id ?? 0) ?? [])]);
    const made = { week: weekOf(places.get(id ?? 0)?.receivingDays ?? MON_TO_FRI), holidays };
    receiving.set(id, made);
    return made;
  };
  const measuredOf = (supplierId: number): MeasuredLeadTime | null => {
    const r = suppliers.get(supplierId);
    return r && r.n !== null
      ? {
          n: r.n,
          mean: Number(r.mean),
          sd: r.sd === null ? null : Number(r.sd),
          median: Number(r.median),
          p90: Number(r.p90),
          observed: JSON.parse(r.observed) as number[],
        }
      : null;
  };
  const measured = new Map<number, MeasuredLeadTime | null>();
  const made = new Map<string, SupplyCalendar>();
  return {
    supply: (supplierId, stated, locationId) => {
      const key = `${supplierId}/${stated.days}${stated.kind}/${locationId ?? 0}`;
      const had = made.get(key);
      if (had) return had;
      const s = suppliers.get(supplierId);
      const holidays = closedOf.supplier.get(supplierId) ?? none;
      const calendar: SupplyCalendar = {
        slots: { week: weekOf(s?.orderDays ?? MON_TO_FRI), holidays },
        cutOff: s?.cutOff ?? null,
        leadDays: stated.days,
        leadKind: stated.kind,
        making: { week: weekOf(MON_TO_FRI), holidays },
        transitDays: 0,
        receiving: receivingOf(locationId),
        receivingDays: 0,
      };
      made.set(key, calendar);
      return calendar;
    },
    sending: (to) => ({
      // Without days of its own a van goes every day.
      slots: { week: weekOf(places.get(to)?.vanDays ?? 0), holidays: none },
      cutOff: null,
      leadDays: 0,
      leadKind: 'calendar',
      making: ALL_DAYS,
      transitDays: places.get(to)?.travelDays ?? 1,
      receiving: receivingOf(to),
      receivingDays: 0,
    }),
    leadTime: (supplierId, stated) => {
      const had = measured.get(supplierId);
      const own = had === undefined ? measuredOf(supplierId) : had;
      measured.set(supplierId, own);
      return leadTimeInUse(stated, own, rule);
    },
    travelDays: (id) => places.get(id)?.travelDays ?? 1,
    nineOfTenDays: (id) => {
      const s = suppliers.get(id);
      return s && s.n !== null && s.n >= rule.least ? Math.ceil(Number(s.p90)) : null;
    },
  };
}
