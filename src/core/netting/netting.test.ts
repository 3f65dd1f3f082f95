import fc from 'fast-check';
import Fraction from 'fraction.js';
import { MICRO, units } from '@/core/quantity';
import type { LevelPlan } from '.';
import {
  emptyNeedRunInput,
  fixedMultiple,
  free,
  itemDigest,
  needRun,
  netRequirement,
  openQuantity,
  position,
  reckon,
  returns,
  roundings,
  roundOrder,
  silences,
  stateFingerprints,
  suggest,
} from '.';

const minMax = (min: number, max: number | null, trigger: LevelPlan['trigger'] = 'at_or_below'): LevelPlan => ({
  rule: 'level',
  kind: 'min_max',
  level: min,
  refillTo: max ?? min,
  max,
  trigger,
  fixed: 0,
  terms: [{ label: max === null ? 'refill_to_min' : 'refill_to_max', quantity: max ?? min }],
});
const upRule = { minimum: 0, packMicro: units(10), multiplePacks: 1, mode: 'up' as const };

// Facts of the trade: common practice.
describe('facts of the trade', () => {
  test('min 24, max 60, strictly below: at 23 order 37, at 24 nothing', () => {
    expect(netRequirement(units(23), units(24), units(60), 'strictly_below')).toBe(units(37));
    expect(netRequirement(units(24), units(24), units(60), 'strictly_below')).toBe(0);
  });

  test('reorder point 8, nothing on hand, 5 promised, 3 on order, up to the point: 10', () => {
    const here = position({ onHand: 0, blocked: 0, onTheWay: units(3), inTrays: 0, owed: units(5), planned: 0 });
    expect(netRequirement(here, units(8), units(8), 'at_or_below')).toBe(units(10));
  });

  test('min 45, stock 31, up to min: 14; min 80, stock 71, supplier’s minimum 24: 24', () => {
    expect(netRequirement(units(31), units(45), units(45), 'strictly_below')).toBe(units(14));
    const found = suggest(units(71), minMax(units(80), null), { ...upRule, packMicro: MICRO, minimum: units(24) });
    expect(found).toEqual({ raw: units(9), quantity: units(24) });
  });
});

describe('position and free stock', () => {
  test('blocked stock and what is owed count against, orders and trays for', () => {
    const parts = {
      onHand: units(20),
      blocked: units(2),
      onTheWay: units(10),
      inTrays: units(5),
      owed: units(8),
      planned: 0,
    };
    expect(position(parts)).toBe(units(25));
  });

  test('free is negative only when on hand is', () => {
    expect(free({ onHand: units(-2), allocated: 0, inspection: 0, blocked: 0 })).toBe(units(-2));
    expect(free({ onHand: units(10), allocated: units(4), inspection: units(3), blocked: units(1) })).toBe(units(2));
  });

  test('an over-delivered part is not open below zero', () => {
    expect(openQuantity({ ordered: units(10), received: units(12), cancelled: 0 })).toBe(0);
    expect(openQuantity({ ordered: units(10), received: units(4), cancelled: units(1) })).toBe(units(5));
  });
});

const quantity = fc.integer({ min: 0, max: 5_000_000_000 });
const rule = fc.record({
  minimum: fc.oneof(fc.constant(0), quantity),
  packMicro: fc.integer({ min: 1, max: 400_000_000 }),
  multiplePacks: fc.integer({ min: 1, max: 12 }),
  mode: fc.constantFrom(...roundings),
});

describe('rounding to an order quantity', () => {
  test('up: 0 ≤ result − max(need, minimum) < one multiple, in whole multiples', () => {
    fc.assert(
      fc.property(fc.integer({ min: 1, max: 5_000_000_000 }), rule, (need, r) => {
        const q = roundOrder(need, { ...r, mode: 'up' });
        const step = r.packMicro * r.multiplePacks;
        const over = q - Math.max(need, r.minimum);
        expect(over).toBeGreaterThanOrEqual(0);
        expect(over).toBeLessThan(step);
        expect(q % step).toBe(0);
      }),
    );
  });

  test('nearest never yields 0 nor a quantity after which a need would still be raised', () => {
    fc.assert(
      fc.property(quantity, quantity, quantity, rule, fc.boolean(), (at, a, b, r, atOrBelow) => {
        const [min, max] = [Math.min(a, b), Math.max(a, b)];
        const policy = minMax(min, max, atOrBelow ? 'at_or_below' : 'strictly_below');
        const { raw, quantity: q } = suggest(at, policy, { ...r, mode: 'nearest' });
        if (raw === 0) return expect(q).toBe(0);
        expect(q).toBeGreaterThan(0);
        expect(q).toBeGreaterThanOrEqual(r.minimum);
        // Refilling to a maximum equal to the minimum can stay at the level by policy; otherwise the trigger is silent.
        if (q !== raw || max > min) expect(netRequirement(at + q, min, min + 1, policy.trigger)).toBe(0);
      }),
    );
  });

  test('rounding again changes nothing; nothing needed rounds to nothing', () => {
    fc.assert(
      fc.property(fc.integer({ min: 1, max: 5_000_000_000 }), rule, (need, r) => {
        const q = roundOrder(need, { ...r, mode: 'up' });
        expect(roundOrder(q, { ...r, mode: 'up' })).toBe(q);
        expect(roundOrder(0, r)).toBe(0);
      }),
    );
  });

  test('the order multiple counts packs: a layer of 4 cartons of 36', () => {
    const layer = { minimum: 0, packMicro: units(36), multiplePacks: 4, mode: 'up' as const };
    expect(roundOrder(units(50), layer)).toBe(units(144));
    expect(roundOrder(units(145), layer)).toBe(units(288));
  });

  test('what silences the trigger', () => {
    expect(silences(units(3), units(10), true)).toBe(units(7) + 1);
    expect(silences(units(3), units(10), false)).toBe(units(7));
    expect(silences(units(30), units(10), true)).toBe(1);
  });
});

describe('min/max', () => {
  test('after the order the trigger is silent and a lower position never orders less', () => {
    fc.assert(
      fc.property(quantity, quantity, quantity, rule, (at, a, b, r) => {
        const policy = minMax(Math.min(a, b), Math.max(a, b) + 1);
        const first = suggest(at, policy, { ...r, mode: 'up' });
        const lower = suggest(at - 1_000_000, policy, { ...r, mode: 'up' });
        expect(lower.quantity).toBeGreaterThanOrEqual(first.quantity);
        if (first.quantity > 0) expect(suggest(at + first.quantity, policy, r).quantity).toBe(0);
      }),
    );
  });

  test('the same shortage is never bought twice: what is in trays counts', () => {
    const policy = minMax(units(28), units(76));
    const parts = { onHand: units(12), blocked: 0, onTheWay: units(10), inTrays: 0, owed: 0, planned: 0 };
    const { quantity: q } = suggest(position(parts), policy, upRule);
    expect(q).toBe(units(60));
    expect(suggest(position({ ...parts, inTrays: q }), policy, upRule).quantity).toBe(0);
  });

  test('fixed order quantity: the fewest multiples after which the trigger no longer fires', () => {
    fc.assert(
      fc.property(
        fc.integer({ min: -1000, max: 1000 }),
        fc.integer({ min: 0, max: 500 }),
        fc.integer({ min: 1, max: 90 }),
        (at, level, fixed) => {
          const q = fixedMultiple(units(at), units(level), units(fixed), 'at_or_below');
          if (at > level) return expect(q).toBe(0);
          expect(q % units(fixed)).toBe(0);
          expect(units(at) + q).toBeGreaterThan(units(level));
          expect(q === units(fixed) || units(at) + q - units(fixed) <= units(level)).toBe(true);
        },
      ),
    );
    expect(() => fixedMultiple(0, 0, 0, 'at_or_below')).toThrow(RangeError);
  });

  test('a need of 0 is none: trigger at the level, refill to the level', () => {
    expect(suggest(units(30), minMax(units(30), null), upRule)).toEqual({ raw: 0, quantity: 0 });
  });
});

describe('reckoning', () => {
  const parts = { onHand: units(20), blocked: 0, onTheWay: units(10), inTrays: 0, owed: units(8), planned: 0 };

  test('the terms add up to the number, the steps say what rounding made of it', () => {
    const sum = reckon(parts, minMax(units(28), units(76)), upRule);
    expect(sum.toBuy).toBe(units(54));
    expect(sum.quantity).toBe(units(60));
    expect(sum.steps).toEqual([{ label: 'whole_packs', quantity: units(60), added: units(6) }]);
    expect(sum.terms.map((t) => `${t.operator}${t.label} ${t.quantity / MICRO}`)).toEqual([
      '+refill_to_max 76',
      '-on_hand 20',
      '+blocked 0',
      '-on_the_way 10',
      '-in_trays 0',
      '+owed 8',
      '+planned 0',
    ]);
  });

  test('negative stock is added, not subtracted', () => {
    const sum = reckon({ ...parts, onHand: units(-2) }, minMax(units(28), units(76)), upRule);
    expect(sum.terms[1]).toEqual({ label: 'on_hand', operator: '+', quantity: units(2) });
    expect(sum.toBuy).toBe(units(76));
  });

  test('for any figures: signed terms = to buy whenever a need is raised, and the last step is the quantity', () => {
    const any = fc.integer({ min: -3_000_000_000, max: 3_000_000_000 });
    fc.assert(
      fc.property(
        any,
        quantity,
        quantity,
        quantity,
        quantity,
        quantity,
        rule,
        (onHand, blocked, onTheWay, owed, a, b, r) => {
          const policy = minMax(Math.min(a, b), Math.max(a, b));
          const sum = reckon({ onHand, blocked, onTheWay, inTrays: 0, owed, planned: 0 }, policy, r);
          const added = sum.terms.reduce((s, t) => s + (t.operator === '+' ? t.quantity : -t.quantity), 0);
          if (sum.toBuy > 0) expect(added).toBe(sum.toBuy);
          expect(sum.toBuy + sum.steps.reduce((s, x) => s + x.added, 0)).toBe(
            r.mode === 'none' ? Math.max(sum.quantity, sum.toBuy) : sum.quantity,
          );
        },
      ),
    );
  });
});

describe('fingerprint of a state', () => {
  const columns = ['onHand', 'blocked', 'onTheWay', 'inTrays', 'owed'] as const;
  const of = (figures: readonly number[], source: number, location = 1, due = 0) => {
    const input = emptyNeedRunInput(1);
    for (const [i, column] of columns.entries()) input[column][0] = figures[i] as number;
    return stateFingerprints(
      input,
      needRun(input),
      Uint32Array.of(source),
      [location],
      Float64Array.of(due),
    )[0] as number;
  };
  const figure = fc.integer({ min: -1_000_000_000_000_000, max: 1_000_000_000_000_000 });

  test('equal states have equal ones; one figure, its sign or its place makes another', () => {
    fc.assert(
      fc.property(
        fc.array(figure, { minLength: 5, maxLength: 5 }),
        fc.integer({ min: 0, max: 4 }),
        figure,
        (figures, at, other) => {
          const same = of(figures, 3);
          expect(of([...figures], 3)).toBe(same);
          expect(Number.isSafeInteger(same) && same >= 0).toBe(true);
          expect(of(figures, 4)).not.toBe(same);
          expect(of(figures, 3, 2)).not.toBe(same);
          expect(of(figures, 3, 1, 1_794_092_400_000)).not.toBe(same);
          const changed = figures.map((f, i) => (i === at ? other : f));
          if (other !== figures[at]) expect(of(changed, 3)).not.toBe(same);
          const turned = [...figures].reverse();
          if (turned.some((f, i) => f !== figures[i])) expect(of(turned, 3)).not.toBe(same);
        },
      ),
    );
  });
});

describe('digest of an item', () => {
  const digest52 = fc.bigInt({ min: 0n, max: 2n ** 52n - 1n });

  test('is the exclusive or of its fingerprints, as the database makes it; nothing gives 0', () => {
    fc.assert(
      fc.property(fc.array(digest52, { maxLength: 12 }), (parts) => {
        const expected = parts.reduce((sum, part) => sum ^ part, 0n);
        expect(BigInt(itemDigest(Float64Array.from(parts, Number)))).toBe(expected);
      }),
    );
  });

  test('two places that change roles give another digest', () => {
    const of = (first: number, second: number) => {
      const input = emptyNeedRunInput(2, 2);
      input.onHand.set([first, second]);
      return itemDigest(stateFingerprints(input, needRun(input), new Uint32Array(2), [1, 2], new Float64Array(2)));
    };
    expect(of(3 * MICRO, 5 * MICRO)).not.toBe(of(5 * MICRO, 3 * MICRO));
  });
});

describe('need run', () => {
  const one = (fill: Partial<Record<keyof ReturnType<typeof emptyNeedRunInput>, number>>) => {
    const input = emptyNeedRunInput(1);
    for (const [key, value] of Object.entries({
      packMicro: MICRO,
      multiplePacks: 1,
      rule: 1,
      max: -1,
      atOrBelow: 1,
      ...fill,
    })) {
      (input[key as 'onHand'] as Float64Array)[0] = value as number;
    }
    const out = needRun(input);
    return { position: out.position[0], shortage: out.shortage[0], quantity: out.quantity[0], state: out.state[0] };
  };

  test('equals the reckoning and a fraction-based reference on random cases', () => {
    const any = fc.integer({ min: -2_000_000_000, max: 4_000_000_000 });
    fc.assert(
      fc.property(
        any,
        quantity,
        quantity,
        quantity,
        quantity,
        rule,
        fc.boolean(),
        (onHand, onTheWay, owed, a, b, r, atOrBelow) => {
          const [min, max] = [Math.min(a, b), Math.max(a, b)];
          const run = one({
            onHand,
            onTheWay,
            owed,
            level: min,
            refillTo: max,
            atOrBelow: atOrBelow ? 1 : 0,
            orderMinimum: r.minimum,
            packMicro: r.packMicro,
            multiplePacks: r.multiplePacks,
            rounding: 0,
          });
          const policy = minMax(min, max, atOrBelow ? 'at_or_below' : 'strictly_below');
          const sum = reckon({ onHand, blocked: 0, onTheWay, inTrays: 0, owed, planned: 0 }, policy, {
            ...r,
            mode: 'up',
          });
          expect(run).toMatchObject({ position: sum.position, shortage: sum.toBuy, quantity: sum.quantity });
          // Second opinion with fraction.js.
          const here = new Fraction(onHand).add(onTheWay).sub(owed);
          const fires = atOrBelow ? here.compare(min) <= 0 : here.compare(min) < 0;
          const raw = fires ? new Fraction(max).sub(here) : new Fraction(0);
          const step = new Fraction(r.packMicro).mul(r.multiplePacks);
          const least = raw.compare(r.minimum) < 0 ? new Fraction(r.minimum) : raw;
          const wanted = raw.compare(0) > 0 ? least.div(step).ceil().mul(step).valueOf() : 0;
          expect(run.quantity).toBe(wanted);
        },
      ),
      { numRuns: 2000 },
    );
  });

  test('no policy, no need', () => {
    expect(one({ rule: 0, onHand: 0, level: units(5), refillTo: units(9) })).toEqual({
      position: 0,
      shortage: 0,
      quantity: 0,
      state: 0,
    });
  });

  test('a need accepted smaller than suggested stays away until the shortage has grown by a usual pack', () => {
    const decided = {
      level: units(30),
      refillTo: units(60),
      packMicro: units(10),
      onHand: units(5),
      inTrays: units(10),
      decidedShortage: units(55),
      decidedOpen: units(10),
    };
    expect(one(decided).state).toBe(2);
    expect(one({ ...decided, onHand: units(-4) }).state).toBe(2);
    expect(one({ ...decided, onHand: units(-5) }).state).toBe(1);
    expect(returns(units(64), units(55), units(10))).toBe(false);
    expect(returns(units(65), units(55), units(10))).toBe(true);
  });

  test('a position beyond the books is a defect, not a number', () => {
    expect(() => one({ onHand: 9e15, onTheWay: 9e15 })).toThrow(RangeError);
  });
});
