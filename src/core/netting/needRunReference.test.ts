import Fraction from 'fraction.js';
import { contentMicro, type Pack, packContent } from '@/core/packs';
import { conversionFactor, type Fraction as Exact, fraction } from '@/core/units';
import { seededNumbers } from '../../../tests/seededNumbers';
import { emptyNeedRunInput, needRun, roundings } from '.';

// Second opinion: the same rules once more in exact fractions of whole units (fraction.js, a general-purpose library).
// Contents: 1 yd = 0.9144 m, 1 lb = 0.45359237 kg (international yard and pound agreement, 1959).
const PAIRS = 750_000;
const CASES = 10_000;
const { upTo, pick } = seededNumbers(42);

/** What packs hold, each of the one before it: pieces in cartons in bales, yards on bolts, pounds on cones, thirds. */
const chains: readonly (readonly Exact[])[] = [
  [fraction(1n)],
  [fraction(36n), fraction(3n)],
  [fraction(10n), fraction(6n), fraction(4n)],
  [yards(15n)],
  [yards(15n), fraction(8n)],
  [yards(1n, 2n), fraction(12n)],
  [pounds(1n), fraction(12n)],
  [fraction(1n, 8n), fraction(3n)],
  [fraction(5n, 2n), fraction(7n)],
];

function yards(n: bigint, d = 1n): Exact {
  return times('YRD', 'MTR', n, d);
}
/** Pounds in grams, so that millionths are exact. */
function pounds(n: bigint): Exact {
  return times('LBR', 'GRM', n, 1n);
}
function times(from: string, to: string, n: bigint, d: bigint): Exact {
  const factor = conversionFactor(from, to);
  if (!factor.ok) throw new Error(factor.error.kind);
  return fraction(factor.value.num * n, factor.value.den * d);
}

const exact = (chain: readonly Exact[]) =>
  chain.reduce((product, f) => product.mul(new Fraction(`${f.num}/${f.den}`)), new Fraction(1));

function packMicroOf(chain: readonly Exact[]): number {
  const packs = new Map<number, Pack>(
    chain.map((count, i) => [i + 1, { id: i + 1, name: `pack ${i + 1}`, count, of: i === 0 ? null : i }]),
  );
  const content = packContent(packs, chain.length);
  const micro = content.ok ? contentMicro(content.value) : content;
  if (!micro.ok) throw new Error(micro.error.kind);
  return micro.value;
}

const packMicros = new Map(chains.map((chain) => [chain, packMicroOf(chain)]));

/** A random figure with 0 to 6 decimals, in millionths. */
function figure(most: number): number {
  const whole = upTo(most) * 1_000_000;
  const coarse = 10 ** upTo(7);
  return whole + upTo(1_000_000 / coarse) * coarse;
}

type Case = {
  onHand: number;
  blocked: number;
  way: number;
  trays: number;
  owed: number;
  min: number;
  to: number;
  least: number;
  chain: readonly Exact[];
  multiple: number;
  mode: (typeof roundings)[number];
  atOrBelow: boolean;
};

/** Need before and after rounding, by the rules of the trade in exact fractions. */
function reference(c: Case): { shortage: Fraction; quantity: Fraction } {
  const f = (millionths: number) => new Fraction(BigInt(millionths), 1_000_000n);
  const here = f(c.onHand).sub(f(c.blocked)).add(f(c.way)).add(f(c.trays)).sub(f(c.owed));
  const fires = (at: Fraction) => (c.atOrBelow ? at.compare(f(c.min)) <= 0 : at.compare(f(c.min)) < 0);
  const shortage = f(c.to).sub(here);
  const none = { shortage: new Fraction(0), quantity: new Fraction(0) };
  if (!fires(here) || shortage.compare(0) <= 0) return none;
  const least = shortage.compare(f(c.least)) >= 0 ? shortage : f(c.least);
  const step = exact(c.chain).mul(c.multiple);
  const up = least.div(step).ceil().mul(step);
  if (c.mode === 'none') return { shortage, quantity: least };
  if (c.mode === 'up') return { shortage, quantity: up };
  const nearest = least.div(step).add(new Fraction(1, 2)).floor().mul(step);
  const enough = nearest.compare(0) > 0 && nearest.compare(f(c.least)) >= 0 && !fires(here.add(nearest));
  return { shortage, quantity: enough ? nearest : up };
}

test(`a need run over ${PAIRS} pairs equals the rules in exact fractions on ${CASES} of them`, () => {
  const input = emptyNeedRunInput(PAIRS);
  const kept: Case[] = [];
  for (let i = 0; i < PAIRS; i += 1) {
    const chain = pick(chains);
    const min = figure(300);
    input.rule[i] = 1;
    input.onHand[i] = upTo(10) === 0 ? -figure(400) : figure(400);
    input.blocked[i] = figure(20);
    input.onTheWay[i] = figure(80);
    input.inTrays[i] = figure(40);
    input.owed[i] = figure(90);
    input.level[i] = min;
    input.refillTo[i] = min + figure(300);
    input.orderMinimum[i] = upTo(3) === 0 ? figure(900) : 0;
    input.packMicro[i] = packMicros.get(chain) as number;
    input.multiplePacks[i] = 1 + upTo(6);
    input.rounding[i] = upTo(3);
    input.atOrBelow[i] = upTo(2);
    if (i % (PAIRS / CASES) !== 0) continue;
    kept.push({
      onHand: input.onHand[i] as number,
      blocked: input.blocked[i] as number,
      way: input.onTheWay[i] as number,
      trays: input.inTrays[i] as number,
      owed: input.owed[i] as number,
      min,
      to: input.refillTo[i] as number,
      least: input.orderMinimum[i] as number,
      chain,
      multiple: input.multiplePacks[i] as number,
      mode: roundings[input.rounding[i] as number] as Case['mode'],
      atOrBelow: input.atOrBelow[i] === 1,
    });
  }
  const out = needRun(input);
  const different: unknown[] = [];
  let raised = 0;
  for (const [k, c] of kept.entries()) {
    const i = k * (PAIRS / CASES);
    const expected = reference(c);
    const [shortage, quantity] = [expected.shortage.mul(1_000_000), expected.quantity.mul(1_000_000)];
    if (quantity.compare(0) > 0) raised += 1;
    const same = shortage.equals(out.shortage[i] as number) && quantity.equals(out.quantity[i] as number);
    if (!same)
      different.push({ ...c, got: [out.shortage[i], out.quantity[i]], wanted: [`${shortage}`, `${quantity}`] });
  }
  expect(different).toEqual([]);
  expect(kept).toHaveLength(CASES);
  expect(raised).toBeGreaterThan(CASES / 4);
}, 60_000);
