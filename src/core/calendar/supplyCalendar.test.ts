import fc from 'fast-check';
import {
  addDays,
  arrivalOf,
  arrivesIfOrdered,
  horizonOf,
  horizonReaches,
  isWorked,
  nextSlot,
  orderBy,
  plainWeek,
  reviewDays,
  type SupplyCalendar,
  weekOf,
} from '.';

const plain: SupplyCalendar = {
  slots: plainWeek,
  cutOff: null,
  leadDays: 5,
  leadKind: 'working',
  making: plainWeek,
  transitDays: 0,
  receiving: plainWeek,
  receivingDays: 0,
};
const tuesdays = { ...plain, slots: { week: weekOf(2), holidays: new Set<string>() }, cutOff: '11:00' };

// 2026-11-23 is a Monday. Common practice: order slots with a cut-off, works holidays, receiving days.
test('an order goes out on the next slot whose cut-off has not passed', () => {
  expect(nextSlot(tuesdays, '2026-11-23')).toBe('2026-11-24');
  expect(nextSlot(tuesdays, '2026-11-24', '10:59')).toBe('2026-11-24');
  expect(nextSlot(tuesdays, '2026-11-24', '11:01')).toBe('2026-12-01');
  expect(reviewDays(tuesdays, '2026-11-23')).toBe(7);
  expect(reviewDays(plain, '2026-11-27')).toBe(3);
});

test('working days, the road, the first receiving day, receiving days', () => {
  expect(arrivalOf(plain, '2026-11-24')).toBe('2026-12-01');
  expect(arrivalOf({ ...plain, transitDays: 4 }, '2026-11-24')).toBe('2026-12-07');
  expect(arrivalOf({ ...plain, receivingDays: 1 }, '2026-11-24')).toBe('2026-12-02');
  const onFridays = { ...plain, receiving: { week: weekOf(16), holidays: new Set(['2026-12-04']) } };
  expect(arrivalOf(onFridays, '2026-11-24')).toBe('2026-12-11');
  expect(arrivesIfOrdered(tuesdays, '2026-11-24', '12:00')).toBe('2026-12-08');
});

test('arrival lands on a receiving day; the horizon is the arrival from the slot after the next', () => {
  expect(arrivalOf({ ...plain, leadDays: 6 }, '2026-11-23')).toBe('2026-12-01');
  expect(arrivalOf({ ...plain, leadDays: 12, leadKind: 'calendar' }, '2026-11-23')).toBe('2026-12-07');
  expect(arrivesIfOrdered({ ...plain, leadDays: 0 }, '2026-11-28')).toBe('2026-11-30');
});

test('a closure stops the making time, also of calendar days', () => {
  const closed = { ...plainWeek, holidays: new Set(['2026-11-26', '2026-11-27']) };
  expect(arrivalOf({ ...plain, making: closed }, '2026-11-24')).toBe('2026-12-03');
  const calendar = { ...plain, leadKind: 'calendar' as const, leadDays: 3 };
  expect(arrivalOf(calendar, '2026-11-24')).toBe('2026-11-27');
  expect(arrivalOf({ ...calendar, making: closed }, '2026-11-24')).toBe('2026-11-30');
});

test('the latest slot for a day is found by looking at slots, and none is said when it is too late', () => {
  expect(orderBy(tuesdays, '2026-11-23', '2026-12-20')).toBe('2026-12-08');
  expect(orderBy(tuesdays, '2026-11-23', '2026-12-01')).toBe('2026-11-24');
  expect(orderBy(tuesdays, '2026-11-23', '2026-11-30')).toBeNull();
});

test('the horizon is the arrival from the slot after the next', () => {
  expect(horizonOf(plain, '2026-11-23')).toBe('2026-12-01');
  expect(horizonOf(tuesdays, '2026-11-23')).toBe('2026-12-08');
});

const date = fc.integer({ min: 0, max: 700 }).map((n) => addDays('2026-01-01', n));
const bits = fc.integer({ min: 1, max: 127 });
const calendar = fc.record({
  slots: bits.map((b) => ({ week: weekOf(b), holidays: new Set<string>() })),
  cutOff: fc.constant(null),
  leadDays: fc.integer({ min: 0, max: 40 }),
  leadKind: fc.constantFrom('working' as const, 'calendar' as const),
  making: fc.array(date, { maxLength: 20 }).map((holidays) => ({ ...plainWeek, holidays: new Set(holidays) })),
  transitDays: fc.integer({ min: 0, max: 20 }),
  receiving: bits.map((b) => ({ week: weekOf(b), holidays: new Set<string>() })),
  receivingDays: fc.integer({ min: 0, max: 2 }),
});

test('whatever the calendars: arrivals are receiving days and never run backwards; order-by is the last slot that makes it', () => {
  fc.assert(
    fc.property(calendar, date, fc.integer({ min: 0, max: 90 }), (c, today, ahead) => {
      const arrival = arrivesIfOrdered(c, today);
      expect(isWorked(c.receiving, arrival)).toBe(true);
      expect(arrivesIfOrdered(c, addDays(today, 1)) >= arrival).toBe(true);
      const target = addDays(today, ahead);
      const slot = orderBy(c, today, target);
      if (slot === null) return expect(arrival > target).toBe(true);
      expect(arrivalOf(c, slot) <= target).toBe(true);
      expect(arrivesIfOrdered(c, addDays(slot, 1)) > target).toBe(true);
    }),
    { numRuns: 300 },
  );
});

test('the day on which the horizon reaches a date: not on the day before', () => {
  fc.assert(
    fc.property(calendar, date, fc.integer({ min: 1, max: 120 }), (c, today, ahead) => {
      const wanted = addDays(horizonOf(c, today), ahead);
      const day = horizonReaches(c, today, wanted);
      expect(horizonOf(c, day) >= wanted).toBe(true);
      expect(horizonOf(c, addDays(day, -1)) < wanted).toBe(true);
    }),
    { numRuns: 200 },
  );
});
