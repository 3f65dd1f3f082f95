import fc from 'fast-check';
import { type EffectivePolicy, effectivePolicy, emptySetting, type PolicySetting } from '@/core/policy';
import { MICRO, units } from '@/core/quantity';
import {
  emptyNeedRunInput,
  type LevelPlan,
  minMaxTerm,
  type NeedRunInput,
  needRun,
  planOf,
  planWithAccepted,
  reckon,
  reckoningOfPlan,
  roundings,
  type SlotPlan,
  slotOfPlan,
  slotPlan,
  stateFingerprints,
  termsDigest,
} from './index';

/** Places of one item: the first is bought for, each other may be sent to by one before it. */
const place = fc.record({
  onHand: fc.integer({ min: -20, max: 200 }),
  blocked: fc.integer({ min: 0, max: 5 }),
  promised: fc.integer({ min: 0, max: 30 }),
  backordered: fc.constantFrom(0, 0, 4, 25),
  onTheWay: fc.integer({ min: 0, max: 40 }),
  inTrays: fc.integer({ min: 0, max: 20 }),
  asked: fc.integer({ min: 0, max: 10 }),
  perDay: fc.integer({ min: 0, max: 9 }),
  level: fc.integer({ min: 0, max: 80 }),
  above: fc.integer({ min: 0, max: 80 }),
  fixed: fc.constantFrom(0, 0, 12),
  minimum: fc.integer({ min: 0, max: 50 }),
  pack: fc.integer({ min: 1, max: 12 }),
  rule: fc.constantFrom(0, 1, 1, 1, 3),
  atOrBelow: fc.constantFrom(0, 1),
  rounding: fc.integer({ min: 0, max: roundings.length - 1 }),
  decidedOpen: fc.constantFrom(0, 0, 7),
  inWindow: fc.constantFrom(0, 0, 0, 1),
  // Beside the policy: nothing, asked for by hand, put aside at a shortage, with so many waited for.
  byHand: fc.constantFrom(-1, -1, 0, 9),
  aside: fc.constantFrom(-1, 0, 30),
  waited: fc.constantFrom(0, 4),
  sender: fc.nat(),
});
const places = fc.array(place, { minLength: 1, maxLength: 5 });
type Place = { readonly [K in typeof place extends fc.Arbitrary<infer T> ? keyof T : never]: number };

/** The plan of a place with a policy: a min and a max, or a fixed quantity. */
const planAt = (p: Place): LevelPlan | null =>
  p.rule !== 1
    ? null
    : {
        ...{ rule: 'level', level: units(p.level), refillTo: units(p.level + p.above), max: units(p.level + p.above) },
        ...{ kind: p.fixed > 0 ? 'fixed_quantity' : 'min_max', fixed: units(p.fixed) },
        trigger: p.atOrBelow === 1 ? 'at_or_below' : 'strictly_below',
        terms: [{ label: p.fixed > 0 ? 'reorder_point' : 'refill_to_max', quantity: units(p.level + p.above) }],
      };

function inputOf(all: readonly Place[]): NeedRunInput {
  const input = emptyNeedRunInput(all.length, all.length);
  for (const [at, p] of all.entries()) {
    const put = (array: Float64Array, units: number) => {
      array[at] = units * MICRO;
    };
    for (const column of ['onHand', 'blocked', 'onTheWay', 'inTrays', 'asked', 'perDay', 'level', 'fixed'] as const)
      put(input[column], p[column]);
    put(input.backordered, p.backordered);
    put(input.owed, p.promised + p.backordered);
    put(input.refillTo, p.level + p.above);
    put(input.max, p.level + p.above);
    put(input.orderMinimum, p.minimum);
    put(input.packMicro, p.pack);
    input.multiplePacks[at] = 1;
    input.rule[at] = p.rule;
    input.atOrBelow[at] = p.atOrBelow;
    input.rounding[at] = p.rounding;
    put(input.decidedOpen, p.decidedOpen);
    put(input.decidedShortage, p.decidedOpen);
    input.decidedInWindow[at] = p.inWindow;
    if (p.byHand >= 0)
      input.beside.set(at, {
        byHand: p.byHand * MICRO,
        aside: p.aside < 0 ? -1 : p.aside * MICRO,
        waited: p.waited * MICRO,
      });
    const made = planAt(p);
    if (made) input.madeOf[at] = termsDigest(made.kind, made.terms);
    if (at > 0) input.suppliedBy[at] = p.sender % (at + 1);
  }
  return input;
}

const found = ['planned', 'position', 'shortage', 'quantity', 'cover', 'excess', 'below', 'state'] as const;
const locations = [11, 12, 13, 14, 15];
const due = 1_794_092_400_000;
const fingerprintsOf = (input: NeedRunInput, ids: readonly number[]) =>
  stateFingerprints(
    input,
    needRun(input),
    new Uint32Array(input.count).fill(7),
    ids,
    new Float64Array(input.count).fill(due),
  );

test('a slot of which only the stock has moved, run by its plan, is what a run over all places finds, with the same fingerprint', () => {
  fc.assert(
    fc.property(places, fc.nat(), fc.integer({ min: -60, max: 60 }), (all, which, moved) => {
      const at = which % all.length;
      const before = inputOf(all);
      const kept = slotPlan(before, needRun(before).planned[at] as number, at, planAt(all[at] as Place));
      const after = inputOf(all.map((p, i) => (i === at ? { ...p, onHand: p.onHand + moved } : p)));
      const whole = needRun(after);

      const from = after.suppliedBy[at] as number;
      const stock = {
        onHand: after.onHand[at] as number,
        blocked: after.blocked[at] as number,
        promised: (after.owed[at] as number) - (after.backordered[at] as number),
      };
      // Through text, as the database keeps it.
      const own = slotOfPlan(JSON.parse(JSON.stringify(kept)) as SlotPlan, stock, from > 0);
      const alone = needRun(own);
      for (const f of found) expect([f, alone[f][0]]).toEqual([f, whole[f][at]]);

      const ids = [locations[at] as number, ...(from > 0 ? [locations[from - 1] as number] : [])];
      expect(fingerprintsOf(own, ids)[0]).toBe(fingerprintsOf(after, locations.slice(0, all.length))[at]);
    }),
    { numRuns: 500 },
  );
});

test('a plan that changes makes another fingerprint, also where nothing is short yet', () => {
  const well = {
    onHand: 150,
    blocked: 0,
    promised: 0,
    backordered: 0,
    onTheWay: 0,
    inTrays: 0,
    asked: 0,
    perDay: 0,
    level: 20,
    above: 30,
  };
  const rest = {
    minimum: 5,
    pack: 4,
    rule: 1,
    atOrBelow: 1,
    rounding: 0,
    decidedOpen: 0,
    inWindow: 0,
    sender: 0,
    byHand: 0,
    aside: -1,
    waited: 0,
  };
  const slot: Place = { ...well, ...rest, fixed: 0 };
  const of = (change: Partial<Place>) => fingerprintsOf(inputOf([{ ...slot, ...change }]), [11])[0];
  const changes: Partial<Place>[] = [
    { perDay: 3 },
    { fixed: 12 },
    { minimum: 6 },
    { pack: 5 },
    { atOrBelow: 0 },
    { rounding: 1 },
    { decidedOpen: 7 },
    { inWindow: 1 },
    { rule: 0 },
    { byHand: 9 },
    { aside: 30 },
    { waited: 4 },
  ];
  const all = [of({}), ...changes.map(of)];
  expect(new Set(all).size).toBe(all.length);
});

test('what is looked at day by day has no plan to be kept; a plan of another shape is refused', () => {
  const input = emptyNeedRunInput(1);
  input.dated.set(0, {
    plan: { rule: 'dated', kind: 'lot_for_lot', safety: 0, windowDays: 7, useStock: true, keepSafety: true },
    ...{ receipts: [], orders: [], horizonDay: 30 },
  });
  expect(slotPlan(input, 0, 0, null)).toBeNull();
  expect(() => slotOfPlan({ figures: [1, 2, 3] }, { onHand: 0, blocked: 0, promised: 0 }, false)).toThrow(
    'a plan of 3 figures',
  );
});

test('a need accepted into trays, worked out on the kept plan, is what a run over all places finds, with the same fingerprint', () => {
  const quantities = fc.record({ all: fc.integer({ min: 1, max: 60 }), last: fc.integer({ min: 1, max: 60 }) });
  fc.assert(
    fc.property(place, quantities, fc.integer({ min: 0, max: 60 }), (p, { all, last }, shortage) => {
      const before = inputOf([p]);
      const kept = slotPlan(before, before.asked[0] as number, 0, planAt(p)) as SlotPlan;
      const accepted = { all: units(all), last: units(last), shortage: units(shortage), waited: units(p.backordered) };
      const next = planWithAccepted(kept, accepted);
      if (p.byHand >= 0 && p.aside >= 0) {
        // What was put aside until a day: that day is no longer one on which time alone changes it.
        expect(next).toBeNull();
        return;
      }
      const after = inputOf([{ ...p, inTrays: p.inTrays + all, byHand: 0, aside: -1, waited: p.backordered }]);
      after.decidedShortage[0] = units(shortage);
      after.decidedOpen[0] = units(last);
      const stock = { onHand: units(p.onHand), blocked: units(p.blocked), promised: units(p.promised) };
      const own = slotOfPlan(next as SlotPlan, stock, false);
      const [alone, whole] = [needRun(own), needRun(after)];
      for (const f of found) expect([f, alone[f][0]]).toEqual([f, whole[f][0]]);
      expect(fingerprintsOf(own, [11])).toEqual(fingerprintsOf(after, [11]));
    }),
    { numRuns: 500 },
  );
});

const policy = (change: Partial<PolicySetting>): EffectivePolicy =>
  effectivePolicy([{ origin: 'item', setting: { ...emptySetting, ...change } }], '2026-11-25');
const use = {
  ...{ perDay: units(2), sdPerDay: 1.5, lead: { mean: 8, sd: 2, observed: null }, reviewDays: 5 },
  ...{ packMicro: units(10), unitMicro: MICRO },
};
const levelOf = (p: EffectivePolicy): LevelPlan => {
  const plan = planOf(p, use);
  if (plan.rule !== 'level') throw new Error('no level');
  return plan;
};

test('the sum behind a need is the same from its kept plan as from its policy', () => {
  const policies = [
    policy({ kind: 'min_max', min: units(20), max: units(60) }),
    policy({ kind: 'min_max', min: units(20), max: units(60), displayMin: units(90) }),
    policy({ kind: 'fixed_quantity', min: units(20), fixed: units(30), trigger: 'at_or_below' }),
    policy({ kind: 'days_of_cover', coverDays: 21, targetKind: 'fill_rate', targetThousandths: 970 }),
    policy({ kind: 'periodic', targetKind: 'cycle_service', targetThousandths: 950 }),
  ];
  const parts = {
    ...{ onHand: units(11), blocked: units(2), onTheWay: units(3), inTrays: units(1) },
    ...{ owed: units(6), planned: units(4) },
  };
  const rule = { minimum: units(15), packMicro: units(10), multiplePacks: 2, mode: 'up' as const };
  for (const [p, byHand] of policies.flatMap((q) => [[q, 0] as const, [q, units(7)] as const])) {
    const plan = levelOf(p);
    const input = emptyNeedRunInput(1);
    input.rule[0] = 1;
    input.level[0] = plan.level;
    input.refillTo[0] = plan.refillTo;
    input.max[0] = plan.max ?? -1;
    input.fixed[0] = plan.fixed;
    input.atOrBelow[0] = plan.trigger === 'at_or_below' ? 1 : 0;
    input.orderMinimum[0] = rule.minimum;
    input.packMicro[0] = rule.packMicro;
    input.multiplePacks[0] = rule.multiplePacks;
    input.rounding[0] = roundings.indexOf(rule.mode);
    if (byHand > 0) input.beside.set(0, { byHand, aside: -1, waited: 0 });
    const kept = JSON.parse(JSON.stringify(slotPlan(input, 0, 0, plan))) as SlotPlan;
    expect(reckoningOfPlan(kept, parts)).toEqual(reckon(parts, plan, rule, byHand));
  }
});

test('a sum that is made up otherwise and comes to the same is another plan', () => {
  const digest = (p: PolicySetting['kind'], of: LevelPlan['terms']) => termsDigest(p ?? 'no_policy', of);
  const over = { perDay: units(2), days: 7.5 };
  const all = [
    digest('min_max', []),
    digest('fixed_quantity', []),
    digest('min_max', [{ label: 'refill_to_max', quantity: units(20) }]),
    digest('min_max', [{ label: 'refill_to_min', quantity: units(20) }]),
    digest('days_of_cover', [{ label: 'cover_demand', quantity: units(15), over }]),
    digest('days_of_cover', [{ label: 'cover_demand', quantity: units(15), over: { ...over, days: 7.25 } }]),
    digest('days_of_cover', [{ label: 'cover_demand', quantity: units(15), over: { ...over, perDay: units(3) } }]),
    digest('days_of_cover', [
      { label: 'safety_stock', quantity: units(5) },
      { label: 'cover_demand', quantity: units(10), over },
    ]),
  ];
  expect(new Set(all).size).toBe(all.length);
});

test('a min and a max that stand by themselves are made of the one term that their policy says', () => {
  const pairs = [
    { min: 20, max: 60 },
    { min: 20, max: 20 },
    { min: 20, max: 12 },
    { min: 0, max: 5 },
  ];
  for (const { min, max } of pairs)
    for (const refill of ['up_to_max', 'up_to_min'] as const) {
      const p = policy({ kind: 'min_max', min: units(min), max: units(max), refill });
      expect(levelOf(p).terms).toEqual([minMaxTerm(units(min), units(max), refill === 'up_to_min')]);
    }
});
