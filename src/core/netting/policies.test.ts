import fc from 'fast-check';
import { type EffectivePolicy, effectivePolicy, emptySetting, type PolicySetting } from '../policy';
import { lotForLot } from '../projection';
import { MICRO, toDecimal, units } from '../quantity';
import {
  type DatedPlan,
  emptyNeedRunInput,
  excessOf,
  fairShare,
  forThoseWhoWait,
  isBelow,
  type LevelPlan,
  needRun,
  type PlanFigures,
  type PositionParts,
  planOf,
  planRules,
  position,
  type Reckoning,
  reckon,
  reckonLot,
  surplusOf,
} from '.';

const policy = (change: Partial<PolicySetting>): EffectivePolicy =>
  effectivePolicy([{ origin: 'item', setting: { ...emptySetting, ...change } }], '2026-11-25');
const figures: PlanFigures = {
  perDay: units(2),
  sdPerDay: 1.5,
  lead: { mean: 8, sd: 0, observed: null },
  reviewDays: 1,
  packMicro: units(10),
  unitMicro: MICRO,
};
const rule = { minimum: 0, packMicro: units(10), multiplePacks: 1, mode: 'up' as const };
const parts = (onHand: number, change: Partial<Record<keyof PositionParts, number>> = {}): PositionParts => ({
  onHand: units(onHand),
  blocked: units(change.blocked ?? 0),
  onTheWay: units(change.onTheWay ?? 0),
  inTrays: units(change.inTrays ?? 0),
  owed: units(change.owed ?? 0),
  planned: units(change.planned ?? 0),
});
const levelOf = (change: Partial<PolicySetting>, f = figures) => planOf(policy(change), f) as LevelPlan;
const printed = (r: Reckoning) => [
  ...r.terms.filter((t) => t.quantity !== 0).map((t) => `${t.operator} ${toDecimal(t.quantity)} ${t.label}`),
  `= ${toDecimal(r.toBuy)}`,
  ...r.steps.map((s) => `→ ${toDecimal(s.quantity)} ${s.label}`),
];

// Each kind once by hand, the sum written out. Trade names and rules: calculations 3, common practice.
describe('every kind of policy, worked by hand', () => {
  test('min/max (s,S): 60 − 18 = 42, in tens 50', () => {
    const r = reckon(parts(18), levelOf({ kind: 'min_max', min: units(24), max: units(60) }), rule);
    expect(printed(r)).toEqual(['+ 60 refill_to_max', '- 18 on_hand', '= 42', '→ 50 whole_packs']);
    // 25 is above 24: nothing.
    expect(reckon(parts(25), levelOf({ kind: 'min_max', min: units(24), max: units(60) }), rule).quantity).toBe(0);
  });

  test('min/max up to min: 45 − 31 = 14', () => {
    const to = levelOf({ kind: 'min_max', min: units(45), max: units(90), refill: 'up_to_min' });
    expect(printed(reckon(parts(31), to, { ...rule, packMicro: MICRO }))).toEqual([
      '+ 45 refill_to_min',
      '- 31 on_hand',
      '= 14',
      '→ 14 whole_packs',
    ]);
  });

  test('fixed order quantity (s,Q): at 3 with the point at 6, Q 2: 3 + 2 × 2 = 7 > 6, so two; in tens 10', () => {
    const plan = levelOf({ kind: 'fixed_quantity', min: units(6), fixed: units(2) });
    const r = reckon(parts(3), plan, rule);
    expect(printed(r)).toEqual(['+ 6 reorder_point', '- 3 on_hand', '= 3', '→ 4 fixed_multiples', '→ 10 whole_packs']);
    expect(r.steps[0]).toMatchObject({ times: 2, added: units(1) });
    // At the point itself one Q is bought, though nothing is missing to it.
    expect(printed(reckon(parts(6), plan, { ...rule, packMicro: MICRO }))).toEqual([
      '+ 6 reorder_point',
      '- 6 on_hand',
      '= 0',
      '→ 2 fixed_multiples',
      '→ 2 whole_packs',
    ]);
    expect(reckon(parts(7), plan, rule)).toMatchObject({ raised: false, quantity: 0 });
  });

  test('periodic (R,S): 2 a day over 8 + 7 days = 30, safety 1.645 × √15 × 1.5 = 9.6, S = 40; 40 − 12 = 28', () => {
    const plan = levelOf({ kind: 'periodic' }, { ...figures, reviewDays: 7, unitMicro: MICRO });
    expect(printed(reckon(parts(12), plan, rule))).toEqual([
      '+ 30 lead_time_demand',
      '+ 9.6 safety_stock',
      '+ 0.4 to_whole',
      '- 12 on_hand',
      '= 28',
      '→ 30 whole_packs',
    ]);
    // Anything below S is ordered on an order day; an S said by hand, and safety stock said by hand, take the place of the sum.
    expect(reckon(parts(39), plan, { ...rule, packMicro: MICRO }).quantity).toBe(units(1));
    expect(reckon(parts(40), plan, rule).quantity).toBe(0);
    expect(levelOf({ kind: 'periodic', max: units(140) }).refillTo).toBe(units(140));
    expect(levelOf({ kind: 'periodic', safety: units(5) }, { ...figures, reviewDays: 7 }).refillTo).toBe(units(35));
  });

  test('days of cover: 2 a day over 8 days = 16, counted by the piece; minimum whole, maximum 14 days more', () => {
    const plan = levelOf({ kind: 'days_of_cover', coverDays: 14 });
    // 16 + safety + undershoot; the distribution is checked against tests/reference/discrete.json, the sum here.
    const sum = plan.terms.slice(0, 3).reduce((a, t) => a + t.quantity, 0);
    expect(plan.level).toBe(Math.ceil(sum / MICRO) * MICRO);
    expect(plan.refillTo).toBe(plan.level + units(28));
    expect(plan.terms[0]).toEqual({
      label: 'lead_time_demand',
      quantity: units(16),
      over: { perDay: units(2), days: 8 },
    });
    expect(plan.terms.find((t) => t.label === 'cover_demand')).toMatchObject({
      quantity: units(28),
      over: { days: 14 },
    });
    expect(plan.terms.reduce((a, t) => a + t.quantity, 0)).toBe(plan.refillTo);
    // Nothing sold: nothing to keep.
    expect(planOf(policy({ kind: 'days_of_cover', coverDays: 14 }), { ...figures, perDay: 0, sdPerDay: 0 })).toEqual({
      rule: 'none',
    });
  });

  test('lot-for-lot: 10 in stock, 4 a day, safety 5, a week at once: 5 + 32 − 10 = 27, in tens 30', () => {
    const plan = planOf(policy({ kind: 'lot_for_lot', safety: units(5) }), figures) as DatedPlan;
    expect(plan).toMatchObject({ rule: 'dated', safety: units(5), windowDays: 7, useStock: true, keepSafety: true });
    const found = lotForLot(
      { stock: units(10), owed: 0, receipts: [], orders: [], dependent: [], perDay: units(4) },
      { ...plan, horizonDay: 10 },
    );
    const r = reckonLot(parts(10), plan, found, rule);
    // Days 0 to 7 use 8 × 4 = 32.
    expect(printed(r)).toEqual([
      '+ 5 safety_floor',
      '+ 32 asked_in_window',
      '- 10 on_hand',
      '= 27',
      '→ 30 whole_packs',
    ]);
    expect(r).toMatchObject({ day: 1, raised: true });
  });

  test('per demand, phase-out, not carried, none and unfinished ones raise no need from stock', () => {
    for (const kind of ['per_demand', 'phase_out', 'not_carried', 'min_max', 'fixed_quantity', null] as const)
      expect(planOf(policy({ kind }), figures)).toEqual({ rule: 'none' });
  });

  test('what has to lie on the shelf is a floor: minimum 3 but 6 on display', () => {
    const plan = levelOf({ kind: 'min_max', min: units(3), max: units(5), displayMin: units(6) });
    expect(plan).toMatchObject({ level: units(6), refillTo: units(6) });
    expect(printed(reckon(parts(2), plan, { ...rule, packMicro: MICRO }))).toEqual([
      '+ 6 display_min',
      '- 2 on_hand',
      '= 4',
      '→ 4 whole_packs',
    ]);
  });
});

test('whatever the kind and the figures: the terms add up to what is to buy, and nothing is raised after buying it', () => {
  const q = fc.integer({ min: 0, max: 400 });
  const setting = fc.record({
    kind: fc.constantFrom('min_max' as const, 'fixed_quantity' as const, 'periodic' as const, 'days_of_cover' as const),
    min: q.map(units),
    max: fc.option(q.map((n) => units(n + 400))),
    fixed: q.map((n) => units(n + 1)),
    coverDays: fc.integer({ min: 1, max: 60 }),
    displayMin: fc.option(q.map((n) => units(n % 12))),
    trigger: fc.constantFrom('at_or_below' as const, 'strictly_below' as const),
    refill: fc.constantFrom('up_to_max' as const, 'up_to_min' as const),
    targetKind: fc.constantFrom('cycle_service' as const, 'fill_rate' as const),
  });
  const use = fc.record({
    perDay: fc.integer({ min: 0, max: 9_000_000 }),
    sdPerDay: fc.double({ min: 0, max: 6, noNaN: true }),
  });
  fc.assert(
    fc.property(
      setting,
      use,
      fc.integer({ min: -50, max: 900 }),
      fc.integer({ min: 1, max: 30 }),
      (s, u, onHand, days) => {
        const plan = planOf(policy(s), { ...figures, ...u, lead: { mean: days, sd: 0, observed: null } });
        if (plan.rule !== 'level') return;
        const r = reckon(parts(onHand, { onTheWay: 5, owed: 3, planned: 2 }), plan, rule);
        const added = r.terms.reduce((a, t) => a + (t.operator === '+' ? t.quantity : -t.quantity), 0);
        if (r.raised) expect(r.toBuy).toBe(Math.max(0, added));
        expect(plan.refillTo).toBeGreaterThanOrEqual(plan.level);
        const after = reckon(
          parts(onHand, { onTheWay: 5, owed: 3, planned: 2, inTrays: r.quantity / MICRO }),
          plan,
          rule,
        );
        expect(after.quantity).toBe(0);
      },
    ),
    { numRuns: 500 },
  );
});

describe('a network in one run', () => {
  // Three places of one item: a shop (0) sent to by a warehouse (2), another shop (1) by the first.
  const build = (suppliedBy: number[], onHand: number[]) => {
    const input = emptyNeedRunInput(3, 3);
    input.onHand.set(onHand.map(units));
    input.rule.fill(1);
    input.level.set([10, 10, 50].map(units));
    input.refillTo.set([20, 20, 100].map(units));
    input.packMicro.fill(MICRO);
    input.multiplePacks.fill(1);
    input.atOrBelow.fill(1);
    input.suppliedBy.set(suppliedBy);
    return input;
  };
  const shown = (input: ReturnType<typeof build>) => {
    const out = needRun(input);
    return [0, 1, 2].map((i) => [out.planned[i], out.position[i], out.quantity[i]].map((n) => (n as number) / MICRO));
  };

  test('suggestions of shops are planned demand where they are sent from, in turn', () => {
    // Shop 1 has 4: 16 from shop 0. Shop 0 has 12 − 16 = −4: 24 from the warehouse. That has 60 − 24 = 36: 64 to buy.
    expect(shown(build([3, 1, 0], [12, 4, 60]))).toEqual([
      [16, -4, 24],
      [0, 4, 16],
      [24, 36, 64],
    ]);
    // Nothing asked, nothing planned.
    expect(shown(build([3, 1, 0], [30, 30, 60]))).toEqual([
      [0, 30, 0],
      [0, 30, 0],
      [0, 60, 0],
    ]);
  });

  test('a decided suggestion is planned no longer: what was decided is promised there', () => {
    const input = build([3, 0, 0], [4, 30, 60]);
    input.decidedOpen[0] = units(3);
    input.decidedShortage[0] = units(16);
    input.inTrays[0] = units(3);
    const out = needRun(input);
    expect(out.state[0]).toBe(2);
    expect(out.planned[2]).toBe(0);
  });

  test('a circle does not hang the run', () => {
    const out = needRun(build([2, 1, 0], [0, 0, 0]));
    expect(out.quantity[0]).toBeGreaterThan(0);
  });

  test('over random networks: what a place plans for others is exactly what they are suggested', () => {
    fc.assert(
      fc.property(
        fc.array(fc.nat(200), { minLength: 6, maxLength: 6 }),
        fc.array(fc.nat(5), { minLength: 6, maxLength: 6 }),
        (onHand, by) => {
          const input = emptyNeedRunInput(6, 6);
          input.onHand.set(onHand.map(units));
          input.rule.fill(1);
          input.level.fill(units(50));
          input.refillTo.fill(units(120));
          input.packMicro.fill(units(7));
          input.multiplePacks.fill(1);
          // Only to a higher place, so there is no circle.
          input.suppliedBy.set(by.map((b, i) => (b > i ? b + 1 : 0)));
          const out = needRun(input);
          for (let i = 0; i < 6; i += 1) {
            const asked = [0, 1, 2, 3, 4, 5]
              .filter((l) => input.suppliedBy[l] === i + 1 && out.state[l] === 1)
              .reduce((a, l) => a + (out.quantity[l] as number), 0);
            expect(out.planned[i]).toBe(asked);
            expect(out.position[i]).toBe((input.onHand[i] as number) - asked);
          }
        },
      ),
    );
  });

  test('periodic: once decided since its order day, quiet until the next', () => {
    const input = build([0, 0, 0], [5, 30, 200]);
    expect(needRun(input).state[0]).toBe(1);
    input.decidedInWindow[0] = 1;
    expect(needRun(input).state[0]).toBe(2);
  });

  test('lot-for-lot in a run equals the look ahead', () => {
    const input = build([0, 0, 0], [10, 30, 200]);
    input.rule[0] = 2;
    input.perDay[0] = units(4);
    input.dated.set(0, {
      plan: { rule: 'dated', kind: 'lot_for_lot', safety: units(5), windowDays: 7, useStock: true, keepSafety: true },
      receipts: [],
      orders: [],
      horizonDay: 10,
    });
    const out = needRun(input);
    expect(out.shortage[0]).toBe(units(27));
    expect(out.state[0]).toBe(1);
  });
});

describe('fair share', () => {
  const claim = (asked: number, stock: number, perDay: number) => ({
    asked: units(asked),
    stock: units(stock),
    perDay: units(perDay),
  });
  test('the fewest days of cover first: 10 for two that ask for 10 each, with 0 and 5', () => {
    expect(fairShare(units(10), [claim(10, 0, 1), claim(10, 5, 1)], MICRO)).toEqual([units(7), units(3)]);
    expect(fairShare(units(30), [claim(10, 0, 1), claim(10, 5, 1)], MICRO)).toEqual([units(10), units(10)]);
    expect(fairShare(units(12), [claim(10, 0, 2), claim(10, 0, 1)], units(2))).toEqual([units(8), units(4)]);
    expect(fairShare(units(3), [claim(9, 0, 0), claim(9, 0, 0)], MICRO)).toEqual([units(2), units(1)]);
    expect(fairShare(-5, [claim(9, 0, 1)], MICRO)).toEqual([0]);
    expect(() => fairShare(1, [], 0)).toThrow(RangeError);
  });

  test('never more than there is nor than was asked, and nothing kept back that a step could still send', () => {
    const claims = fc.array(
      fc.record({ asked: fc.nat(300), stock: fc.integer({ min: -20, max: 300 }), perDay: fc.nat(9) }),
      { maxLength: 6 },
    );
    fc.assert(
      fc.property(
        fc.integer({ min: -10, max: 900 }),
        claims,
        fc.integer({ min: 1, max: 20 }),
        (available, asked, step) => {
          const given = fairShare(available, asked, step);
          const sum = given.reduce((a, b) => a + b, 0);
          expect(sum).toBeLessThanOrEqual(Math.max(0, available));
          for (const [i, g] of given.entries()) expect(g).toBeLessThanOrEqual((asked[i] as { asked: number }).asked);
          const open = asked.filter((c, i) => c.asked > (given[i] as number));
          if (open.length > 0) expect(available - sum).toBeLessThan(step);
        },
      ),
    );
  });
});

describe('too much, too little, to spare', () => {
  // Facts of the trade (common practice): a receipt of 130 on 0 with max 115 is 15 over; 99 sold leave 31, under a min of 45.
  test('beyond the maximum and a pack', () => {
    expect(excessOf(units(130), units(115), units(10))).toBe(units(15));
    expect(excessOf(units(125), units(115), units(10))).toBe(0);
    expect(excessOf(units(999), null, units(10))).toBe(0);
    const below = { level: units(45), trigger: 'at_or_below' as const };
    expect(isBelow(units(130 - 99), below)).toBe(true);
    expect(isBelow(units(46), below)).toBe(false);
    expect(isBelow(0, { ...below, level: 0 })).toBe(false);
  });

  test('surplus = free − minimum − demand until it can refill, never below 0', () => {
    const f = { free: units(40), min: units(20), reserve: 0, perDay: units(1.5), daysToRefill: 8 };
    expect(surplusOf(f)).toBe(units(8));
    expect(surplusOf({ ...f, reserve: units(25) })).toBe(units(3));
    expect(surplusOf({ ...f, free: units(20) })).toBe(0);
  });
});

test('position counts what is planned for others', () => {
  expect(position(parts(20, { planned: 6, owed: 2 }))).toBe(units(12));
});

// Common practice: what a customer has ordered is bought, also of what nobody keeps in stock.
test.each([
  ['nothing there, a customer waits for 5: 5 are bought, a bag of 10', 0, 0, 5, 0, 5, 10],
  ['3 there that nobody was promised: 2 are missing', 3, 0, 5, 0, 2, 10],
  ['10 on the way: nothing is missing', 0, 10, 5, 0, 0, 0],
  ['nobody waits: 2 below zero raise nothing without a policy', -2, 0, 0, 0, 0, 0],
  ['books below zero: what is missing is made up for as well', -2, 0, 5, 0, 7, 10],
])('without a policy: %s', (_, onHand, onTheWay, backordered, promised, shortage, quantity) => {
  const input = emptyNeedRunInput(1);
  input.rule[0] = planRules.indexOf('waiting');
  input.onHand[0] = units(onHand);
  input.onTheWay[0] = units(onTheWay);
  input.backordered[0] = units(backordered);
  input.owed[0] = units(backordered + promised);
  input.packMicro[0] = units(10);
  input.multiplePacks[0] = 1;
  input.max[0] = -1;
  const out = needRun(input);
  expect([out.shortage[0], out.quantity[0], out.state[0]]).toEqual([
    units(shortage),
    units(quantity),
    shortage > 0 ? 1 : 0,
  ]);
  if (backordered === 0) return;
  const sum = reckon(parts(onHand, { onTheWay, owed: backordered + promised }), forThoseWhoWait, rule);
  expect([sum.kind, sum.toBuy, sum.quantity]).toEqual(['no_policy', units(shortage), units(quantity)]);
});

test('what customers wait for moves the position, not the mark of what lies there unpromised', () => {
  const input = emptyNeedRunInput(1);
  input.rule[0] = planRules.indexOf('level');
  input.onHand[0] = units(20);
  input.backordered[0] = units(15);
  input.owed[0] = units(15);
  input.level[0] = units(10);
  input.refillTo[0] = units(30);
  input.packMicro[0] = units(1);
  input.multiplePacks[0] = 1;
  const out = needRun(input);
  expect([out.position[0], out.shortage[0], out.below[0]]).toEqual([units(5), units(25), 0]);
});
