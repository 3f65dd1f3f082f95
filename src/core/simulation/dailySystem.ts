import { normalDraw, poissonDraw, randomNumbers } from './random';

export type DemandModel =
  | { readonly type: 'poisson'; readonly mean: number }
  /** max(0, N(mean, sd)), continuous. */
  | { readonly type: 'normal'; readonly mean: number; readonly sd: number };

export type StockRule =
  | { readonly policy: 'sS'; readonly s: number; readonly S: number }
  | { readonly policy: 'sQ'; readonly s: number; readonly Q: number }
  | { readonly policy: 'RS'; readonly R: number; readonly S: number };

export type SimulationInput = {
  readonly rule: StockRule;
  readonly mode: 'backorder' | 'lost';
  readonly demand: DemandModel;
  /** Days with their probability; independent per order, so that orders may overtake each other. */
  readonly leadTime: readonly { readonly days: number; readonly probability: number }[];
  readonly replications: number;
  readonly days: number;
  readonly warmUpDays: number;
  readonly seed: number;
};

/** Mean over the replications with its standard error. */
export type Measured = { readonly mean: number; readonly se: number };
export type SimulationResult = {
  /** 1 − units not served from stock at once ÷ units asked for. */
  readonly fillRate: Measured;
  /** Share of the times from one receipt to the next without unmet demand. */
  readonly cycleService: Measured;
  readonly onHandAtEnd: Measured;
};

type Counts = { asked: number; unmet: number; cycles: number; good: number; stock: number };

/** Plays a stock rule through many days: 1 what is due comes in, 2 demand, 3 at the end of the day stock is measured, then
 *  looked at and ordered. An order at the end of day t with lead time L is there at the start of day t + L + 1.
 *  Position = on hand − backordered + on order. Source of the conventions: tests/reference/sS-simulation.json. */
export function simulate(input: SimulationInput): SimulationResult {
  const random = randomNumbers(input.seed);
  const runs: Counts[] = [];
  for (let n = 0; n < input.replications; n += 1) runs.push(play(input, random));
  return {
    fillRate: ratio(
      runs,
      (r) => r.asked - r.unmet,
      (r) => r.asked,
    ),
    cycleService: ratio(
      runs,
      (r) => r.good,
      (r) => r.cycles,
    ),
    onHandAtEnd: ratio(
      runs,
      (r) => r.stock,
      () => input.days,
    ),
  };
}

function play({ rule, mode, demand, leadTime, days, warmUpDays }: SimulationInput, random: () => number): Counts {
  const draw = () =>
    demand.type === 'poisson'
      ? poissonDraw(random, demand.mean)
      : Math.max(0, demand.mean + demand.sd * normalDraw(random));
  const longest = Math.max(...leadTime.map((l) => l.days));
  const due = new Float64Array(longest + 2);
  const counts: Counts = { asked: 0, unmet: 0, cycles: 0, good: 0, stock: 0 };
  let [onHand, owed, onOrder] = [rule.policy === 'sQ' ? rule.s + rule.Q : rule.S, 0, 0];
  let short = false;
  let begun = false;
  for (let t = 0; t < warmUpDays + days; t += 1) {
    const counted = t >= warmUpDays;
    const slot = t % due.length;
    const came = due[slot] as number;
    due[slot] = 0;
    if (came > 0) {
      // A cycle runs from receipt to receipt; the one that the counting began in is not whole.
      if (counted && begun) {
        counts.cycles += 1;
        if (!short) counts.good += 1;
      }
      begun = counted;
      short = false;
      onOrder -= came;
      const served = Math.min(owed, came);
      owed -= served;
      onHand += came - served;
    }
    const asked = draw();
    const unmet = Math.max(0, asked - onHand);
    onHand -= asked - unmet;
    if (mode === 'backorder') owed += unmet;
    if (unmet > 0) short = true;
    if (counted) {
      counts.asked += asked;
      counts.unmet += unmet;
      counts.stock += onHand;
    }
    const quantity = order(rule, onHand - owed + onOrder, t);
    if (quantity <= 0) continue;
    onOrder += quantity;
    let u = random();
    let lead = leadTime[leadTime.length - 1]?.days ?? 0;
    for (const l of leadTime) {
      u -= l.probability;
      if (u < 0) {
        lead = l.days;
        break;
      }
    }
    const at = (t + lead + 1) % due.length;
    due[at] = (due[at] as number) + quantity;
  }
  return counts;
}

function order(rule: StockRule, position: number, day: number): number {
  if (rule.policy === 'RS') return day % rule.R === 0 ? rule.S - position : 0;
  if (position > rule.s) return 0;
  return rule.policy === 'sS' ? rule.S - position : rule.Q * (Math.floor((rule.s - position) / rule.Q) + 1);
}

/** Ratio of two sums over independent runs; standard error by the delta method. */
function ratio(runs: readonly Counts[], of: (r: Counts) => number, over: (r: Counts) => number): Measured {
  const n = runs.length;
  const [top, bottom] = [sum(runs.map(of)), sum(runs.map(over))];
  const mean = top / bottom;
  const squares = sum(runs.map((r) => (of(r) - mean * over(r)) ** 2));
  return { mean, se: Math.sqrt(squares / (n * Math.max(1, n - 1))) / (bottom / n) };
}

const sum = (xs: readonly number[]): number => xs.reduce((a, b) => a + b, 0);
