import reference from '../../../tests/reference/sS-simulation.json';
import { poisson } from '../distributions';
import { type Measured, type SimulationInput, simulate } from '.';

// biome-ignore lint/suspicious/noExplicitAny: the cases of one file have fields of different types.
type Case = { id: string; kind: string; family: string; input: any; expected: any };
const cases = reference.cases as unknown as Case[];
const of = (kind: string) => cases.filter((c) => c.kind === kind).map((c) => [c.id, c] as const);
const close = (a: number, b: number) => expect(Math.abs(a - b)).toBeLessThanOrEqual(1e-8 * Math.max(1, Math.abs(b)));

const inputOf = ({ input }: Case): SimulationInput => ({
  rule: input,
  mode: input.mode,
  demand: input.demand,
  leadTime: input.lead_time,
  replications: 150,
  days: 728,
  warmUpDays: 252,
  seed: 7,
});

// Source: tests/reference/sS-simulation.json: numpy 1.24.2, about 8,000 years each. Ours plays 300 years; both errors count.
describe('stock rules played through', () => {
  test.each(of('simulation'))('%s', (_, c) => {
    const played = simulate(inputOf(c));
    const near = (ours: Measured, name: string) => {
      const se = Math.hypot(ours.se, c.expected[`${name}_se`]);
      expect(Math.abs(ours.mean - c.expected[name])).toBeLessThanOrEqual(4 * se + 0.0005);
    };
    near(played.fillRate, 'fill_rate');
    near(played.cycleService, 'cycle_service');
    near(played.onHandAtEnd, 'mean_on_hand_end');
  });

  // Palm's theorem, the Erlang loss formula, and the daily closed form; the same file.
  test.each(of('base_stock'))('%s', (_, { input, expected }) => {
    const outstanding = poisson(input.demand_rate * input.lead_time_mean);
    if (input.review.startsWith('daily')) {
      const over = (days: number) => poisson(input.demand_rate * days).shortage(input.S);
      close(1 - (over(input.lead_time_mean + 1) - over(input.lead_time_mean)) / input.demand_rate, expected.fill_rate);
      close(over(input.lead_time_mean + 1), expected.mean_backorders_end);
    } else if (input.mode === 'backorder') {
      close(outstanding.cdf(input.S - 1), expected.fill_rate);
      close(outstanding.shortage(input.S), expected.mean_backorders);
    } else {
      const p = (outstanding.cdf(input.S) - outstanding.cdf(input.S - 1)) / outstanding.cdf(input.S);
      close(1 - p, expected.fill_rate);
    }
  });

  // Position uniform on s + 1 … s + Q; the same file.
  test.each(of('continuous_sQ'))('%s', (_, { input, expected }) => {
    const d = poisson(input.demand_rate * input.lead_time);
    let [served, owed] = [0, 0];
    for (let position = input.s + 1; position <= input.s + input.Q; position += 1) {
      served += d.cdf(position - 1) / input.Q;
      owed += d.shortage(position) / input.Q;
    }
    close(served, expected.fill_rate);
    close(owed, expected.mean_backorders);
  });

  test('every case of the file is of a kind tested here', () => {
    expect([...new Set(cases.map((c) => c.kind))].sort()).toEqual(['base_stock', 'continuous_sQ', 'simulation']);
  });
});
