import fc from 'fast-check';
import { MICRO, units } from '../quantity';
import {
  type EarlyBuy,
  figuresOf,
  MOST_WAYS,
  type NeedForWays,
  rankWays,
  topUp,
  type WayCost,
  type WaySource,
} from '.';

const need = (over: Partial<NeedForWays> = {}): NeedForWays => ({
  ...{ missing: units(50), perDay: units(2), runOutDay: 6, lostMargin: 300, carryingRate: 0.2 },
  ...over,
});
/** Minor units for a piece; an order costs `order`, freight `charges` at least. */
const price =
  (each: number, order = 0, charges = 0) =>
  (q: number): WayCost => ({
    goods: Math.round((q / MICRO) * each),
    charges,
    order,
  });
const supplier = (key: string, arrivesDay: number, each: number, over: Partial<WaySource> = {}): WaySource =>
  ({
    ...{ key, kind: 'supplier', arrivesDay, preference: 1, costOf: price(each), breaks: [], layer: 0 },
    rule: { minimum: 0, packMicro: units(10), multiplePacks: 1, mode: 'up' },
    ...over,
  }) as WaySource;
const place = (key: string, surplus: number, each = 200, transport = 0): WaySource => ({
  ...{ key, kind: 'place', arrivesDay: 2, preference: 5, surplus: units(surplus), step: MICRO },
  costOf: price(each, 0, transport),
});
const said = (w: { deliveries: readonly { from: WaySource; quantity: number }[] }) =>
  w.deliveries.map((d) => `${d.from.key} ${d.quantity / MICRO}`).join(' + ');

// Worked by hand; common practice of total relevant cost.
describe('the figures of a way', () => {
  test('comes in time: goods, the order, and what is carried until it is used', () => {
    // 60 for 50 missing at 2.00: 10 over; they wait 50 ÷ 2 = 25 days and half of 10 ÷ 2 = 2.5 days more. Two days early.
    const [w] = rankWays(need({ missing: units(52) }), [supplier('A', 4, 200, { costOf: price(200, 500) })]);
    expect(w?.figures).toMatchObject({
      quantity: units(60),
      overshoot: units(8),
      cash: 12_500,
      landedEach: 200,
      short: 0,
    });
    // 8 × 2.00 for 26 + 2 days, and 120.00 for 2 days, at 20 % a year.
    expect(w?.figures.carrying).toBeCloseTo((1600 * 0.2 * 28) / 365 + (12_000 * 0.2 * 2) / 365, 6);
    expect(w?.figures.total).toBeCloseTo(52 * 200 + 500 + (w?.figures.carrying ?? 0), 6);
    expect(w?.figures.slackDays).toBe(2);
  });

  test('comes four days too late: eight pieces are not sold, at 3.00 each', () => {
    const [w] = rankWays(need(), [supplier('A', 10, 200)]);
    expect(w?.figures).toMatchObject({ short: 8, shortCost: 2400, slackDays: -4, overshoot: 0, carrying: 0 });
    expect(rankWays(need({ runOutDay: null }), [supplier('A', 10, 200)])[0]?.figures).toMatchObject({
      short: 0,
      slackDays: null,
    });
  });

  test('two deliveries: what lies between them and is not covered is short as well', () => {
    const [a, b] = [supplier('A', 8, 200), supplier('B', 20, 100)];
    const delivered = (from: WaySource, q: number) => ({
      ...{ from, quantity: units(q), arrivesDay: from.arrivesDay, cost: from.costOf(units(q)) as WayCost },
    });
    // Out on day 6, two days without; ten pieces last five days, until 13; seven more days without.
    const late = figuresOf(need(), [delivered(a, 10), delivered(b, 40)]);
    expect(late).toMatchObject({ short: 2 * 2 + 7 * 2, slackDays: -7 });
    // The first a day early, its twelve last until day 12, two days before the second.
    const [c, d] = [supplier('C', 5, 200), supplier('D', 10, 100)];
    expect(figuresOf(need(), [delivered(c, 12), delivered(d, 40)])).toMatchObject({ short: 0, slackDays: 1 });
    expect(figuresOf(need(), [delivered(c, 8), delivered(d, 40)])).toMatchObject({ short: 0, slackDays: 0 });
  });
});

describe('ways in their order', () => {
  test('cheap and late against dear and soon: what is lost decides', () => {
    // An order costs 25.00, so two are dear. Ten days late lose 20 pieces at 3.00 = 60.00; the near one costs 20.00 more.
    const at = (each: number) => ({ costOf: price(each, 2500) });
    const sources = [supplier('far', 16, 180, at(180)), supplier('near', 5, 220, at(220))];
    expect(said(rankWays(need(), sources)[0] as never)).toBe('near 50');
    expect(said(rankWays(need({ lostMargin: 50 }), sources)[0] as never)).toBe('far 50');
  });

  test('some of it soon and the rest cheap', () => {
    const sources = [supplier('far', 16, 100), supplier('near', 5, 260)];
    // Twenty are used until the far ones come.
    const ways = rankWays(need(), sources).map((w) => said(w));
    expect(ways).toContain('near 20 + far 30');
    expect(ways[0]).toBe('near 20 + far 30');
  });

  test('a break and a full layer are looked at, also where they are not worth it', () => {
    const breaks = [units(100), units(500)];
    const stepped = (q: number): WayCost => ({
      goods: Math.round((q / MICRO) * (q >= units(100) ? 120 : 200)),
      charges: 0,
      order: 0,
    });
    const ways = rankWays(need(), [supplier('A', 4, 200, { breaks, layer: units(40), costOf: stepped })]);
    expect(ways.map(said)).toEqual(['A 100', 'A 50', 'A 80']);
  });

  test('another place sends what it can spare, a supplier the rest', () => {
    const sources = [supplier('A', 4, 200), place('Old Mill', 18, 150, 90)];
    expect(rankWays(need(), sources).map(said)).toEqual(['Old Mill 18 + A 40', 'A 50']);
    expect(said(rankWays(need(), [place('Old Mill', 70, 150), supplier('A', 4, 200)])[0] as never)).toBe('Old Mill 50');
    // Two places that can't do it alone.
    expect(rankWays(need(), [place('Old Mill', 30), place('Wendel Yard', 25)]).map(said)).toEqual([
      'Old Mill 30 + Wendel Yard 20',
    ]);
  });

  test('without a price, without anything missing, without a source there is no way', () => {
    expect(rankWays(need(), [supplier('A', 4, 200, { costOf: () => null })])).toEqual([]);
    expect(rankWays(need({ missing: 0 }), [supplier('A', 4, 200)])).toEqual([]);
    expect(rankWays(need(), [place('Old Mill', 20)])).toEqual([]);
  });

  const anySupplier = fc.record({
    key: fc.constantFrom('A', 'B', 'C', 'D'),
    day: fc.integer({ min: 0, max: 40 }),
    each: fc.integer({ min: 1, max: 500 }),
    pack: fc.integer({ min: 1, max: 24 }),
    order: fc.integer({ min: 0, max: 900 }),
    breaks: fc.array(fc.integer({ min: 1, max: 300 }), { maxLength: 3 }),
  });
  const anyPlace = fc.record({ key: fc.constantFrom('W', 'X', 'Y'), surplus: fc.integer({ min: 0, max: 90 }) });
  const anySources = fc
    .tuple(
      fc.uniqueArray(anySupplier, { selector: (s) => s.key, maxLength: 4 }),
      fc.uniqueArray(anyPlace, { selector: (s) => s.key, maxLength: 3 }),
    )
    .map(([suppliers, places]) => [
      ...suppliers.map((s) =>
        supplier(s.key, s.day, s.each, {
          costOf: price(s.each, s.order),
          breaks: s.breaks.map(units),
          rule: { minimum: 0, packMicro: units(s.pack), multiplePacks: 1, mode: 'up' },
        } as Partial<WaySource>),
      ),
      ...places.map((p) => place(p.key, p.surplus)),
    ]);

  test('each covers what is missing, at most nine of at most two, the cheapest first, none twice, and no place sends more than it can spare', () => {
    fc.assert(
      fc.property(
        anySources,
        fc.integer({ min: 1, max: 120 }),
        fc.integer({ min: 0, max: 9 }),
        (sources, missing, perDay) => {
          const n = need({ missing: units(missing), perDay: units(perDay) });
          const ways = rankWays(n, sources);
          expect(ways.length).toBeLessThanOrEqual(MOST_WAYS);
          expect(new Set(ways.map(said)).size).toBe(ways.length);
          for (const [i, w] of ways.entries()) {
            expect(w.deliveries.length).toBeLessThanOrEqual(2);
            expect(w.figures.quantity).toBeGreaterThanOrEqual(n.missing);
            expect(w.figures.total).toBeCloseTo(
              w.figures.goodsAndCharges + w.figures.order + w.figures.carrying + w.figures.shortCost,
              6,
            );
            if (i > 0) expect(w.figures.total).toBeGreaterThanOrEqual(ways[i - 1]?.figures.total ?? 0);
            for (const d of w.deliveries)
              if (d.from.kind === 'place') expect(d.quantity).toBeLessThanOrEqual(d.from.surplus);
          }
          // Another source never makes the best way dearer, however many ways there are by one alone.
          const [best] = rankWays(n, sources.slice(0, -1));
          if (best) expect(ways[0]?.figures.total).toBeLessThanOrEqual(best.figures.total + 1e-9);
        },
      ),
      { numRuns: 500 },
    );
  });
});

describe('topping up a tray', () => {
  const buy = (
    key: string,
    packAmount: number,
    mostPacks: number,
    neededInDays: number,
    packLastsDays = 10,
  ): EarlyBuy => ({
    ...{ key, packAmount, mostPacks, neededInDays, packLastsDays },
  });

  test('60.00 to free freight of 12.00: the packs that are needed soonest, and what holding them costs', () => {
    const found = topUp(6000, 1200, [buy('soon', 2500, 4, 10), buy('late', 3000, 4, 200)], 0.2);
    expect(found?.buys.map((b) => [b.key, b.packs])).toEqual([['soon', 3]]);
    // 25.00 for 10, 20 and 30 days at 20 % a year.
    expect(found?.holding).toBeCloseTo((2500 * 0.2 * 60) / 365, 6);
    expect(found).toMatchObject({ amount: 7500, worthIt: true, saving: 1200 });
  });

  test('not worth it where it has to be held too long; null where it can’t be reached', () => {
    const found = topUp(6000, 300, [buy('late', 3000, 4, 400, 100)], 0.2);
    expect(found?.worthIt).toBe(false);
    expect(found?.gain).toBeCloseTo(300 - (3000 * 0.2 * 900) / 365, 6);
    expect(topUp(60_000, 300, [buy('late', 3000, 4, 400)], 0.2)).toBeNull();
  });

  test('never below what is missing, never more packs than are needed anyway, and near the best there is', () => {
    const any = fc.array(
      fc.record({
        packAmount: fc.integer({ min: 1, max: 40 }),
        mostPacks: fc.integer({ min: 0, max: 2 }),
        neededInDays: fc.integer({ min: 0, max: 90 }),
        packLastsDays: fc.integer({ min: 0, max: 60 }),
      }),
      { minLength: 1, maxLength: 5 },
    );
    fc.assert(
      fc.property(any, fc.integer({ min: 1, max: 90 }), (some, missing) => {
        const candidates = some.map((c, i) => ({ ...c, key: String(i) }));
        const found = topUp(missing, 10, candidates, 0.2);
        const all = candidates.reduce((a, c) => a + c.packAmount * c.mostPacks, 0);
        if (all < missing) return expect(found).toBeNull();
        expect(found?.amount).toBeGreaterThanOrEqual(missing);
        for (const b of found?.buys ?? [])
          expect(b.packs).toBeLessThanOrEqual(candidates[Number(b.key)]?.mostPacks ?? 0);
        // Every choice of packs.
        let best = Number.POSITIVE_INFINITY;
        const holding = (c: EarlyBuy, n: number) =>
          Array.from(
            { length: n },
            (_, k) => (c.packAmount * 0.2 * (c.neededInDays + k * c.packLastsDays)) / 365,
          ).reduce((a, h) => a + h, 0);
        const look = (i: number, amount: number, cost: number): void => {
          const c = candidates[i];
          if (!c) {
            if (amount >= missing) best = Math.min(best, cost);
            return;
          }
          for (let n = 0; n <= c.mostPacks; n += 1) look(i + 1, amount + n * c.packAmount, cost + holding(c, n));
        };
        look(0, 0, 0);
        const dearest = Math.max(
          ...candidates.map((c) => (c.packAmount * 0.2 * (c.neededInDays + c.mostPacks * c.packLastsDays)) / 365),
        );
        expect(found?.holding).toBeLessThanOrEqual(best + dearest + 1e-9);
      }),
    );
  });
});
