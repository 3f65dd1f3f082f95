import { MICRO } from '@/core/quantity';
import { type Beside, emptyNeedRunInput, needRun, needStates, reckon, reckonByHand } from './index';

const units = (n: number) => n * MICRO;

/** Min 24, max 60, packs of 10, so many on hand; what is said beside the policy. */
function run(
  onHand: number,
  beside: Partial<Beside> | null,
  more: { rule?: number; waits?: number; decided?: number } = {},
) {
  const input = emptyNeedRunInput(1);
  input.onHand[0] = units(onHand);
  input.rule[0] = more.rule ?? 1;
  input.level[0] = units(24);
  input.refillTo[0] = units(60);
  input.max[0] = units(60);
  input.packMicro[0] = units(10);
  input.multiplePacks[0] = 1;
  input.backordered[0] = input.owed[0] = units(more.waits ?? 0);
  if (more.decided) {
    input.inTrays[0] = units(more.decided);
    input.decidedOpen[0] = units(more.decided);
    input.decidedShortage[0] = units(58);
  }
  if (beside) input.beside.set(0, { byHand: 0, aside: -1, waited: 0, ...beside });
  const out = needRun(input);
  return [needStates[out.state[0] as number], (out.shortage[0] as number) / MICRO, (out.quantity[0] as number) / MICRO];
}

// Source: calculations 2 and 3 (a decided need, one put off, one left out: when each comes back).
describe('put off or left out', () => {
  const aside = { aside: units(40) };
  test('it stays away while its shortage has not grown by a pack', () => {
    expect(run(20, null)).toEqual(['open', 40, 40]);
    expect(run(20, aside)).toEqual(['aside', 40, 40]);
    expect(run(11, aside)).toEqual(['aside', 49, 50]);
  });
  test('it comes back once the shortage has grown by a pack', () => expect(run(10, aside)).toEqual(['open', 50, 50]));
  test('it comes back when more customers wait than did then', () => {
    expect(run(23, { aside: units(40), waited: units(3) }, { waits: 3 })).toEqual(['aside', 40, 40]);
    expect(run(23, { aside: units(40), waited: units(2) }, { waits: 3 })).toEqual(['open', 40, 40]);
  });
  test('it is none once nothing is short any more', () => expect(run(30, aside)).toEqual(['none', 0, 0]));
});

test('a decided need comes back when more customers wait than did when it was decided', () => {
  expect(run(2, { waited: units(0) }, { decided: 20, waits: 0 })).toEqual(['decided', 38, 40]);
  expect(run(3, { waited: units(1) }, { decided: 20, waits: 1 })).toEqual(['decided', 38, 40]);
  expect(run(4, { waited: units(1) }, { decided: 20, waits: 2 })).toEqual(['open', 38, 40]);
});

describe('asked for by hand', () => {
  test('on top of what the policy is short of', () => expect(run(20, { byHand: units(5) })).toEqual(['open', 45, 50]));
  test('where the policy is silent, and without a policy', () => {
    expect(run(50, { byHand: units(5) })).toEqual(['open', 5, 10]);
    expect(run(0, { byHand: units(5) }, { rule: 0 })).toEqual(['open', 5, 10]);
  });
  test('also where the policy’s own need was decided', () =>
    expect(run(2, { byHand: units(1) }, { decided: 20 })).toEqual(['open', 39, 40]));
  test('it can be put off like any other', () =>
    expect(run(0, { byHand: units(5), aside: units(5) }, { rule: 0 })).toEqual(['aside', 5, 10]));
});

describe('its sum', () => {
  const parts = { onHand: units(20), blocked: 0, onTheWay: 0, inTrays: 0, owed: 0, planned: 0 };
  const rule = { minimum: 0, packMicro: units(10), multiplePacks: 1, mode: 'up' as const };
  const plan = {
    ...{ rule: 'level' as const, kind: 'min_max' as const, level: units(24), refillTo: units(60), max: units(60) },
    ...{
      trigger: 'strictly_below' as const,
      fixed: 0,
      terms: [{ label: 'refill_to_max' as const, quantity: units(60) }],
    },
  };
  const added = (sum: ReturnType<typeof reckon>) =>
    sum.terms.reduce((a, t) => a + (t.operator === '+' ? t.quantity : -t.quantity), 0);

  test.each([
    ['beside the policy', plan, 45, 50],
    [
      'beside a fixed quantity of 30',
      { ...plan, fixed: units(30), terms: [{ label: 'reorder_point' as const, quantity: units(24) }] },
      9,
      40,
    ],
    ['where the policy is silent', { ...plan, level: units(12), refillTo: units(12) }, 5, 10],
  ])('%s: the terms add up to what is needed, the steps to what is ordered', (_, p, toBuy, quantity) => {
    const sum = reckon(parts, p, rule, units(5));
    expect([added(sum), sum.toBuy, sum.quantity]).toEqual([units(toBuy), units(toBuy), units(quantity)]);
    expect(sum.steps.reduce((a, s) => a + s.added, sum.toBuy)).toBe(sum.quantity);
  });

  test('without a policy it is all there is', () => {
    const sum = reckonByHand(units(5), rule);
    expect([sum.terms.map((t) => t.label), sum.toBuy, sum.quantity]).toEqual([['by_hand'], units(5), units(10)]);
  });
});
