import fc from 'fast-check';
import { units } from '../quantity';
import { adviseOrders, consumeForecast, firstBelow, lotForLot, type ProjectionInput, project, runsBelow } from '.';

const u = (list: readonly number[]) => list.map(units);
const flow = (day: number, quantity: number) => ({ day, quantity: units(quantity) });
const quiet: ProjectionInput = { stock: 0, owed: 0, receipts: [], orders: [], dependent: [], perDay: 0, days: 10 };
const closings = (input: Partial<ProjectionInput>) => project({ ...quiet, ...input }).map((d) => d.closing / units(1));

describe('forecast consumption', () => {
  // Calculations 4, worked there.
  test('forecast 2 a day, an order of 9 on day 5: days 5, 4, 3, 2 go to 0, days 1 and 6 keep 2', () => {
    expect(consumeForecast(u([2, 2, 2, 2, 2, 2, 2]), [flow(5, 9)])).toEqual(u([2, 1, 0, 0, 0, 0, 2]));
    expect(consumeForecast(u([2, 2, 2, 2, 2, 2, 2]), [flow(5, 8)])).toEqual(u([2, 2, 0, 0, 0, 0, 2]));
  });

  test('not further back than seven days, nor before today; what is beyond the forecast is extra', () => {
    expect(consumeForecast(u(new Array(12).fill(1)), [flow(10, 99)])).toEqual(u([1, 1, 1, 0, 0, 0, 0, 0, 0, 0, 0, 1]));
    expect(consumeForecast(u([1, 1, 1]), [flow(1, 5), flow(7, 5), flow(-1, 5)])).toEqual(u([0, 0, 1]));
  });

  test('nothing below zero, nothing made: what is eaten is at most what was ordered', () => {
    const days = fc.array(fc.integer({ min: 0, max: 50 }), { minLength: 1, maxLength: 40 });
    const orders = fc.array(
      fc.record({ day: fc.integer({ min: 0, max: 40 }), quantity: fc.integer({ min: 1, max: 99 }) }),
    );
    fc.assert(
      fc.property(days, orders, (forecast, asked) => {
        const left = consumeForecast(forecast, asked);
        left.forEach((q, i) => {
          expect(q).toBeGreaterThanOrEqual(0);
          expect(q).toBeLessThanOrEqual(forecast[i] as number);
        });
        const eaten = forecast.reduce((a, q, i) => a + q - (left[i] as number), 0);
        expect(eaten).toBeLessThanOrEqual(asked.reduce((a, o) => a + o.quantity, 0));
      }),
    );
  });
});

describe('projection', () => {
  test('receipts at the start of a day, demand during it, by hand', () => {
    // 5 − 2 = 3, − 2 = 1, + 10 − 2 = 9, then 2 less a day.
    expect(closings({ stock: units(5), perDay: units(2), receipts: [flow(2, 10)], days: 4 })).toEqual([3, 1, 9, 7]);
    // Owed 3 at once; an order of 4 on day 1 eats the forecast of days 1 and 0.
    expect(closings({ stock: units(9), owed: units(3), perDay: units(2), orders: [flow(1, 4)], days: 3 })).toEqual([
      6, 2, 0,
    ]);
    expect(closings({ stock: units(9), dependent: [flow(-3, 2), flow(1, 4)], days: 2 })).toEqual([7, 3]);
  });

  test('run-out is the first day that closes below 0', () => {
    const days = project({ ...quiet, stock: units(5), perDay: units(2) });
    expect(firstBelow(days, 0)).toBe(2);
    expect(firstBelow(days, units(4))).toBe(0);
    expect(firstBelow(project({ ...quiet, stock: units(5) }), 0)).toBeNull();
    expect(runsBelow({ ...quiet, stock: units(10), perDay: units(3), receipts: [flow(4, 6)] }, 0)).toBe(3);
    const flows = fc.array(
      fc.record({ day: fc.integer({ min: -3, max: 40 }), quantity: fc.integer({ min: 0, max: 60 }) }),
    );
    const some = fc.integer({ min: -40, max: 200 });
    fc.assert(
      fc.property(some, fc.nat(50), fc.nat(12), flows, (stock, owed, perDay, receipts) => {
        const input = { ...quiet, stock, owed, perDay, receipts, days: 30 };
        expect(runsBelow(input, 0)).toBe(firstBelow(project(input), 0));
      }),
    );
  });

  test('closing = opening + everything that came − everything asked for, on any figures', () => {
    const flows = fc.array(
      fc.record({ day: fc.integer({ min: -3, max: 25 }), quantity: fc.integer({ min: 0, max: 999 }) }),
    );
    fc.assert(
      fc.property(
        fc.integer({ min: -500, max: 500 }),
        flows,
        flows,
        flows,
        fc.integer({ min: 0, max: 9 }),
        (stock, receipts, orders, dependent, perDay) => {
          const days = project({ ...quiet, stock, receipts, orders, dependent, perDay, days: 20 });
          let before = stock;
          for (const d of days) {
            expect(d.closing).toBe(before + d.receipts - d.orders - d.dependent - d.forecast);
            before = d.closing;
          }
          const within = receipts.filter((f) => f.day < 20).reduce((a, f) => a + f.quantity, 0);
          expect(days.reduce((a, d) => a + d.receipts, 0)).toBe(within);
        },
      ),
    );
  });
});

describe('lot-for-lot', () => {
  const rule = { safety: units(5), useStock: true, keepSafety: true, horizonDay: 10, windowDays: 7 };
  const base = { ...quiet, stock: units(10), perDay: units(4) };

  test('worked by hand: 10 in stock, 4 a day, safety 5, a week at once', () => {
    // Day 0 closes at 6, day 1 at 2 < 5. Days 1–7 end at 10 − 32 = −22: 5 + 22 = 27.
    expect(lotForLot(base, rule)).toMatchObject({ day: 1, quantity: units(27) });
    // Without safety stock day 2 is the first below 0 (−2); days 2–8 end at 10 − 36 = −26.
    expect(lotForLot(base, { ...rule, keepSafety: false })).toMatchObject({ day: 2, quantity: units(26) });
    // Without using stock everything is bought: day 0 closes at −4; days 0–6 end at −28: 5 + 28.
    expect(lotForLot(base, { ...rule, useStock: false })).toMatchObject({ day: 0, quantity: units(33) });
  });

  test('a receipt in time leaves nothing to do; a dip within the window is covered though a receipt follows', () => {
    expect(lotForLot({ ...base, receipts: [flow(1, 100)] }, rule)).toMatchObject({ day: null, quantity: 0 });
    // Day 3 closes at −6 before 100 come on day 4: 5 + 6 = 11.
    expect(lotForLot({ ...base, receipts: [flow(4, 100)] }, rule)).toMatchObject({ day: 1, quantity: units(11) });
    expect(lotForLot({ ...base, perDay: 0 }, rule)).toMatchObject({ day: null });
  });
});

describe('advice on open orders', () => {
  const open = (day: number, quantity: number, ref: string) => ({ ...flow(day, quantity), ref });
  const advise = (stock: number, perDay: number, receipts: ReturnType<typeof open>[], safety = 0) =>
    adviseOrders(
      project({ ...quiet, stock: units(stock), perDay: units(perDay), receipts, days: 60 }),
      receipts,
      units(safety),
    );

  test('sooner, later, no longer needed', () => {
    // 6 at 2 a day: day 3 closes at −2; the order comes on day 8.
    expect(advise(6, 2, [open(8, 200, 'A')])).toEqual([{ kind: 'sooner', ref: 'A', day: 8, wanted: 3, out: true }]);
    // 60 at 2 a day last until day 30; the order comes on day 8.
    expect(advise(60, 2, [open(8, 200, 'A')])).toEqual([{ kind: 'later', ref: 'A', day: 8, wanted: 30 }]);
    expect(advise(600, 2, [open(8, 20, 'A')])).toEqual([{ kind: 'not_needed', ref: 'A', day: 8, until: 59 }]);
    expect(advise(20, 2, [open(8, 200, 'A')])).toEqual([]);
  });

  test('of two orders the second is wanted when the first is used up', () => {
    // 20 last 10 days, the first 40 another 20: the second, due on day 9, may wait until day 30.
    expect(advise(20, 2, [open(8, 40, 'A'), open(9, 40, 'B')])).toEqual([
      { kind: 'later', ref: 'B', day: 9, wanted: 30 },
    ]);
  });

  test('below safety is sooner, but not out of stock', () => {
    expect(advise(20, 2, [open(8, 200, 'A')], 8)).toEqual([
      { kind: 'sooner', ref: 'A', day: 8, wanted: 6, out: false },
    ]);
  });
});
