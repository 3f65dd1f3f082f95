import { addDays, type BusinessDate, daysBetween } from './calendar';
import { isWorked, offsetWorkingDays, rollTo, type WorkCalendar } from './workCalendar';

/** Everything the arrival of an order depends on: when orders can go out, how long the supplier takes, when the place receives. */
export type SupplyCalendar = {
  /** Days on which an order can go out; its holidays are the supplier's closures. */
  readonly slots: WorkCalendar;
  /** On an order day, orders go out until then (HH:MM in the company's time zone); null = all day. */
  readonly cutOff: string | null;
  readonly leadDays: number;
  readonly leadKind: 'working' | 'calendar';
  /** Days on which the supplier makes or packs goods. */
  readonly making: WorkCalendar;
  /** Days on the road, by calendar. */
  readonly transitDays: number;
  /** Days on which the place takes goods in. */
  readonly receiving: WorkCalendar;
  /** Receiving days until what came can be used. */
  readonly receivingDays: number;
};

/** The next day on which an order goes out, this one included unless its cut-off has passed at `time` (HH:MM; null = the day
 *  as a whole). */
export function nextSlot(c: SupplyCalendar, today: BusinessDate, time: string | null = null): BusinessDate {
  const passed = time !== null && c.cutOff !== null && isWorked(c.slots, today) && time > c.cutOff;
  return rollTo(c.slots, passed ? addDays(today, 1) : today, 'forward');
}

/** When an order that goes out on a slot can be used: the supplier's working or calendar days, closures stopping the making
 *  time; the road; the first receiving day of the place; its receiving days.
 *  Source: calculations 4. @example a slot on Fri, 1 working day, received Mon–Fri → Mon */
export function arrivalOf(c: SupplyCalendar, slot: BusinessDate): BusinessDate {
  const made =
    c.leadKind === 'working'
      ? offsetWorkingDays(c.making, slot, c.leadDays, 'forward')
      : offsetWorkingDays({ week: EVERY_DAY, holidays: c.making.holidays }, slot, c.leadDays, 'forward');
  return offsetWorkingDays(c.receiving, addDays(made, c.transitDays), c.receivingDays, 'forward');
}

const EVERY_DAY: WorkCalendar['week'] = [true, true, true, true, true, true, true];

/** Arrival of what is ordered now. */
export const arrivesIfOrdered = (c: SupplyCalendar, today: BusinessDate, time: string | null = null): BusinessDate =>
  arrivalOf(c, nextSlot(c, today, time));

/** The last slot, from today on, whose arrival is on or before a day; null when even the next one comes too late. Found by
 *  looking at slot after slot, because weekends and closures make arrivals jump. */
export function orderBy(
  c: SupplyCalendar,
  today: BusinessDate,
  target: BusinessDate,
  time: string | null = null,
): BusinessDate | null {
  let found: BusinessDate | null = null;
  for (let slot = nextSlot(c, today, time); slot <= target && arrivalOf(c, slot) <= target; slot = slotAfter(c, slot))
    found = slot;
  return found;
}

export const slotAfter = (c: SupplyCalendar, slot: BusinessDate): BusinessDate =>
  rollTo(c.slots, addDays(slot, 1), 'forward');

/** Days from the next slot to the one after it: how long the next order has to last until it can be followed by another. */
export const reviewDays = (c: SupplyCalendar, today: BusinessDate): number => {
  const slot = nextSlot(c, today);
  return daysBetween(slot, slotAfter(c, slot));
};

/** The cover horizon: when what is ordered on the slot after the next one can be used. Demand until then has to be met by
 *  what is decided now. */
export function horizonOf(c: SupplyCalendar, today: BusinessDate): BusinessDate {
  return arrivalOf(c, slotAfter(c, nextSlot(c, today)));
}

/** The first day after today on which the cover horizon reaches a date: time alone then brings something into the position. */
export function horizonReaches(c: SupplyCalendar, today: BusinessDate, wanted: BusinessDate): BusinessDate {
  let [before, day] = [0, Math.max(1, daysBetween(today, wanted))];
  while (day - before > 1) {
    const middle = Math.floor((before + day) / 2);
    if (horizonOf(c, addDays(today, middle)) >= wanted) day = middle;
    else before = middle;
  }
  return addDays(today, day);
}

/** Days of the week from bits, Monday the lowest. A week without a day is taken as every day, since nothing could ever
 *  happen. */
export function weekOf(bits: number): WorkCalendar['week'] {
  const days = Array.from({ length: 7 }, (_, i) => (bits & (1 << i)) !== 0);
  return (days.some(Boolean) ? days : EVERY_DAY) as unknown as WorkCalendar['week'];
}
