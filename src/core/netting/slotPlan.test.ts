import fc from 'fast-check';
import { MICRO } from '@/core/quantity';
import {
  emptyNeedRunInput,
  type NeedRunInput,
  needRun,
  roundings,
  slotOfPlan,
  slotPlan,
  stateFingerprints,
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
      const kept = slotPlan(before, needRun(before).planned[at] as number, at);
      const after = inputOf(all.map((p, i) => (i === at ? { ...p, onHand: p.onHand + moved } : p)));
      const whole = needRun(after);

      const from = after.suppliedBy[at] as number;
      const stock = {
        onHand: after.onHand[at] as number,
        blocked: after.blocked[at] as number,
        promised: (after.owed[at] as number) - (after.backordered[at] as number),
      };
      // Through text, as the database keeps it.
      const own = slotOfPlan(JSON.parse(JSON.stringify(kept)) as number[], stock, from > 0);
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
  expect(slotPlan(input, 0, 0)).toBeNull();
  expect(() => slotOfPlan([1, 2, 3], { onHand: 0, blocked: 0, promised: 0 }, false)).toThrow('a plan of 3 figures');
});
