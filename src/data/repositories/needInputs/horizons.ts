import { horizonOf, horizonReaches, type SupplyCalendar } from '@/core/calendar';
import type { Ground } from './ground';
import type { SlotPlans } from './plans';
import type { Delivers } from './sources';

/** What supply and those who wait need to know besides. */
export type Context = {
  readonly plans: SlotPlans;
  readonly delivers: ReadonlyMap<number, Delivers>;
  readonly sourceIds: Uint32Array;
  /** Notes the day on which time alone changes a slot, and the instant a day begins. */
  readonly due: (at: number, day: string) => void;
  readonly beginsAt: (day: string) => number;
};

export type Horizons = {
  /** The cover horizon of a slot; null without a supplier: everything counts. */
  readonly of: (at: number) => string | null;
  /** Whether what is dated so counts by the horizon; notes the day on which it will. */
  readonly counts: (at: number, date: string | null) => boolean;
};

/** The receiving day that goods need after they came, before they count as there. */
const RECEIVING_DAYS = 1;
const settled = (c: SupplyCalendar): SupplyCalendar => ({ ...c, receivingDays: c.receivingDays + RECEIVING_DAYS });

/** Horizons of slots, each kind of supply looked up once. */
export function horizonsOf(g: Ground, { plans, delivers, sourceIds, due }: Context): Horizons {
  const { arrays, locationIds, width, today } = g;
  const horizons = new Map<string, string>();
  const reaches = new Map<string, string>();
  const calendarOf = (at: number): { key: string; calendar: SupplyCalendar } | null => {
    const sent = (arrays.suppliedBy[at] as number) > 0;
    const locationId = locationIds[at % width] as number;
    const d = delivers.get(sourceIds[at] as number);
    if (!sent && !d) return null;
    const key = sent ? `s${locationId}` : `${d?.supplierId}/${d?.stated.days}${d?.stated.kind}/${locationId}`;
    const calendar = plans.calendar(at);
    return calendar && { key, calendar: settled(calendar) };
  };
  const of = (at: number): string | null => {
    const c = calendarOf(at);
    if (!c) return null;
    const had = horizons.get(c.key) ?? horizonOf(c.calendar, today);
    horizons.set(c.key, had);
    return had;
  };
  return {
    of,
    counts: (at, date) => {
      const horizon = date === null ? null : of(at);
      if (date === null || horizon === null || date <= horizon) return true;
      const c = calendarOf(at) as { key: string; calendar: SupplyCalendar };
      const key = `${date}/${c.key}`;
      const day = reaches.get(key) ?? horizonReaches(c.calendar, today, date);
      reaches.set(key, day);
      due(at, day);
      return false;
    },
  };
}
