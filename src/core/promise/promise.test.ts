import fc from 'fast-check';
import { MICRO, units } from '../quantity';
import {
  allocateSets,
  backorderedOf,
  checkCustomerOrder,
  coverWaiting,
  customerOrderStates,
  handOverNow,
  lineStateOf,
  mayPromise,
  openOf,
  partQuantity,
  promiseOf,
  type WaitingLine,
} from '.';

const plain = (itemId: number) => [{ itemId, perSet: MICRO }];
const waits = (open: number, over: Partial<WaitingLine> = {}): WaitingLine => ({
  ...{ open: units(open), parts: plain(1), whole: false, wanted: '2026-03-10', priority: 5, entry: 1 },
  ...over,
});
const free = (...all: [number, number][]) => new Map(all.map(([id, q]) => [id, units(q)]));

// Common practice: first wanted, first served; among the same day by priority, then by who ordered first.
describe('stock given to those who wait', () => {
  test('by wanted date, then priority, then entry', () => {
    const lines = [
      waits(4, { wanted: '2026-03-12', entry: 1 }),
      waits(3, { wanted: '2026-03-10', priority: 5, entry: 2 }),
      waits(3, { wanted: '2026-03-10', priority: 1, entry: 3 }),
      waits(3, { wanted: '2026-03-10', priority: 5, entry: 1 }),
    ];
    expect(allocateSets(free([1, 8]), lines)).toEqual([0, units(2), units(3), units(3)]);
  });

  test('kits in whole sets: 9 balls, 3 needles, 4 balls and 1 needle a kit → 2 kits, and the ball that is left is for others', () => {
    const kit = [
      { itemId: 1, perSet: units(4) },
      { itemId: 2, perSet: units(1) },
    ];
    const lines = [waits(5, { parts: kit, whole: true }), waits(3, { wanted: '2026-03-11' })];
    expect(allocateSets(free([1, 9], [2, 3]), lines)).toEqual([units(2), units(1)]);
  });

  test('what is below zero gives nothing, cloth is given by the tenth', () => {
    expect(allocateSets(free([1, -4]), [waits(2)])).toEqual([0]);
    expect(allocateSets(free([1, 2.3]), [waits(5)])).toEqual([units(2.3)]);
  });

  const anyLine = fc.record({
    open: fc.integer({ min: 0, max: 40 }).map(units),
    parts: fc
      .uniqueArray(fc.integer({ min: 1, max: 3 }), { minLength: 1, maxLength: 3 })
      .chain((ids) =>
        fc
          .array(fc.integer({ min: 1, max: 5 }), { minLength: ids.length, maxLength: ids.length })
          .map((per) => ids.map((itemId, i) => ({ itemId, perSet: units(per[i] as number) }))),
      ),
    whole: fc.boolean(),
    wanted: fc.constantFrom('2026-03-10', '2026-03-11', '2026-03-12'),
    priority: fc.integer({ min: 1, max: 3 }),
    entry: fc.integer({ min: 1, max: 20 }),
  });

  test('never more than is free, never more than is asked for, and nobody waits for what is left', () => {
    fc.assert(
      fc.property(
        fc.array(anyLine, { maxLength: 8 }),
        fc.array(fc.integer({ min: 0, max: 60 }), { minLength: 3, maxLength: 3 }),
        (lines, stock) => {
          const there = new Map(stock.map((q, i) => [i + 1, units(q)]));
          const given = allocateSets(there, lines);
          const left = new Map(there);
          for (const [i, l] of lines.entries()) {
            expect(given[i]).toBeLessThanOrEqual(l.open);
            if (l.whole) expect((given[i] as number) % MICRO).toBe(0);
            for (const p of l.parts)
              left.set(p.itemId, (left.get(p.itemId) as number) - partQuantity(given[i] as number, p.perSet));
          }
          for (const q of left.values()) expect(q).toBeGreaterThanOrEqual(0);
          // Whoever got less than asked for lacks a part of the next set.
          for (const [i, l] of lines.entries())
            if (l.open - (given[i] as number) >= MICRO)
              expect(l.parts.some((p) => (left.get(p.itemId) as number) < p.perSet)).toBe(true);
        },
      ),
    );
  });
});

const comes = (date: string, quantity: number, cautious = date) => ({ date, cautious, quantity: units(quantity) });
const line = (quantity: number, wanted: string, entry = 1, priority = 5) => ({
  ...{ quantity: units(quantity), wanted, entry, priority },
});

describe('what covers those who wait', () => {
  test('10 on Monday and 10 on Friday: 6 of Monday for the first, 4 of Monday and 4 of Friday for the next', () => {
    const [mon, fri] = [comes('2026-03-09', 10), comes('2026-03-13', 10, '2026-03-20')];
    const [a, b] = coverWaiting([fri, mon], [line(6, '2026-03-10'), line(8, '2026-03-11')]);
    expect(a).toEqual({ covers: [{ from: mon, quantity: units(6) }], missing: 0 });
    expect(b?.covers.map((c) => [c.from.date, c.quantity / MICRO])).toEqual([
      ['2026-03-09', 4],
      ['2026-03-13', 4],
    ]);
    expect(promiseOf(a as never, '2026-03-02')).toEqual({ date: '2026-03-09', cautious: '2026-03-09' });
    expect(promiseOf(b as never, '2026-03-02')).toEqual({ date: '2026-03-13', cautious: '2026-03-20' });
  });

  test('what nothing covers is said, and has no date', () => {
    const [a] = coverWaiting([comes('2026-03-09', 4)], [line(6, '2026-03-10')]);
    expect(a?.missing).toBe(units(2));
    expect(promiseOf(a as never, '2026-03-02')).toBeNull();
    expect(promiseOf({ covers: [], missing: 0 }, '2026-03-02')).toEqual({ date: '2026-03-02', cautious: '2026-03-02' });
  });

  test('when supply moves the promise moves: an order a week later takes the next one in turn with it', () => {
    const waiting = [line(6, '2026-03-10', 1), line(6, '2026-03-10', 2)];
    const before = coverWaiting([comes('2026-03-09', 6), comes('2026-03-11', 6)], waiting);
    const after = coverWaiting([comes('2026-03-16', 6), comes('2026-03-11', 6)], waiting);
    expect(before.map((c) => promiseOf(c, '2026-03-02')?.date)).toEqual(['2026-03-09', '2026-03-11']);
    expect(after.map((c) => promiseOf(c, '2026-03-02')?.date)).toEqual(['2026-03-11', '2026-03-16']);
  });

  const anyDay = fc.integer({ min: 1, max: 28 }).map((d) => `2026-03-${String(d).padStart(2, '0')}`);
  test('nothing is covered twice or forgotten, and who comes first never waits longer', () => {
    const supply = fc.array(fc.tuple(anyDay, fc.integer({ min: 0, max: 30 })), { maxLength: 8 });
    const waiting = fc.array(fc.tuple(anyDay, fc.integer({ min: 0, max: 30 })), { maxLength: 8 });
    fc.assert(
      fc.property(supply, waiting, (s, w) => {
        const supplies = s.map(([d, q]) => comes(d, q));
        const lines = w.map(([d, q], i) => line(q, d, i));
        const found = coverWaiting(supplies, lines);
        const used = new Map<unknown, number>();
        for (const [i, f] of found.entries()) {
          const covered = f.covers.reduce((a, c) => a + c.quantity, 0);
          expect(covered + f.missing).toBe(lines[i]?.quantity);
          for (const c of f.covers) used.set(c.from, (used.get(c.from) ?? 0) + c.quantity);
        }
        for (const [from, q] of used) expect(q).toBeLessThanOrEqual((from as { quantity: number }).quantity);
        const all = (of: readonly { quantity: number }[]) => of.reduce((a, x) => a + x.quantity, 0);
        const missing = found.reduce((a, f) => a + f.missing, 0);
        expect(missing).toBe(Math.max(0, all(lines) - all(supplies)));
        const inTurn = lines
          .map((l, i) => ({ l, f: found[i] as (typeof found)[number] }))
          .filter((x) => x.l.quantity > 0)
          .sort((a, b) => (a.l.wanted < b.l.wanted ? -1 : a.l.wanted > b.l.wanted ? 1 : a.l.entry - b.l.entry));
        const dates = inTurn.map(({ f }) => promiseOf(f, '2026-01-01')?.date ?? '9999');
        expect([...dates].sort()).toEqual(dates);
      }),
    );
  });
});

test('how much may be promised: what is there, also what is on the way, or without limit', () => {
  const there = { free: units(3), coming: units(10), waitedFor: units(4) };
  expect(mayPromise('stock', there)).toBe(0);
  expect(mayPromise('on_the_way', there)).toBe(units(9));
  expect(mayPromise('without_limit', there)).toBeNull();
  expect(mayPromise('stock', { free: units(-3), coming: 0, waitedFor: 0 })).toBe(0);
});

describe('a line of a customer', () => {
  const of = (ordered: number, ready = 0, handedOver = 0, cancelled = 0) => ({
    ...{ ordered: units(ordered), ready: units(ready), handedOver: units(handedOver), cancelled: units(cancelled) },
  });
  test.each([
    ['nothing there', of(12), 'waiting', 12, 12],
    ['some of it lies ready', of(12, 5), 'part_ready', 12, 7],
    ['all of it', of(12, 12), 'ready', 12, 0],
    ['some went out, the rest lies ready', of(12, 5, 7), 'ready', 5, 0],
    ['all went out', of(12, 0, 12), 'handed_over', 0, 0],
    ['some went out, the rest was cancelled', of(12, 0, 7, 5), 'handed_over', 0, 0],
    ['cancelled', of(12, 0, 0, 12), 'cancelled', 0, 0],
  ] as const)('%s', (_, figures, state, open, backordered) => {
    expect(lineStateOf(figures)).toBe(state);
    expect(openOf(figures)).toBe(units(open));
    expect(backorderedOf(figures)).toBe(units(backordered));
  });

  test('what goes out now: what lies ready; of an order that goes out only complete, nothing before all of it does', () => {
    const lines = [of(12, 5), of(3, 3), of(4, 0, 4)];
    expect(handOverNow(lines, 'in_part')).toEqual([units(5), units(3), 0]);
    expect(handOverNow(lines, 'complete')).toEqual([0, 0, 0]);
    expect(handOverNow([of(12, 12), of(3, 3)], 'complete')).toEqual([units(12), units(3)]);
  });

  test('an order that is done or cancelled only tells', () => {
    const actions = ['change', 'allocate', 'hand_over', 'cancel', 'tell'] as const;
    const allowed = customerOrderStates.map((s) => actions.filter((a) => checkCustomerOrder(s, a).ok));
    expect(allowed).toEqual([[...actions], ['tell'], ['tell']]);
    expect(checkCustomerOrder('done', 'cancel')).toEqual({
      ok: false,
      error: { kind: 'customer_order_not_in_this_state', state: 'done', action: 'cancel' },
    });
  });
});
