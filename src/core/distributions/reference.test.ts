import discrete from '../../../tests/reference/discrete.json';
import normals from '../../../tests/reference/normal.json';
import {
  type Distribution,
  gamma,
  inverseLoss,
  mixture,
  negativeBinomial,
  normal,
  normalCdf,
  normalDensity,
  normalQuantile,
  normalTail,
  poisson,
  quantile,
  shortageQuantile,
  unitLoss,
} from '.';

// biome-ignore lint/suspicious/noExplicitAny: the cases of one file have fields of different types.
type Case = { id: string; kind: string; input: any; expected: any };
const of = (cases: unknown[], kind: string) =>
  (cases as Case[]).filter((c) => c.kind === kind).map((c) => [c.id, c] as const);
const close = (a: number, b: number, rel: number, abs: number) =>
  expect(Math.abs(a - b)).toBeLessThanOrEqual(Math.max(abs, rel * Math.abs(b)));

// Source: tests/reference/normal.json: scipy 1.10.1 stats.norm; the loss by integrate.quad, its inverse by brentq.
describe('normal reference', () => {
  test.each(of(normals.cases, 'normal_quantile'))('%s', (_, { input, expected }) => {
    close(normalQuantile(input.p), expected.z, 0, 1e-9);
  });

  test.each(of(normals.cases, 'normal_point'))('%s', (_, { input, expected }) => {
    close(normalDensity(input.z), expected.pdf, 1e-7, 1e-9);
    close(normalCdf(input.z), expected.cdf, 1e-7, 1e-9);
    close(normalTail(input.z), expected.upper_tail, 1e-7, 1e-9);
    close(unitLoss(input.z), expected.loss, 1e-7, 1e-9);
  });

  test.each(of(normals.cases, 'inverse_loss'))('%s', (_, { input, expected }) => {
    close(inverseLoss(input.loss), expected.z, 0, 1e-6);
  });

  test.each(of(normals.cases, 'safety_factor_for_fill_rate'))('%s', (_, { input, expected }) => {
    const target = ((1 - input.fill_rate) * input.order_quantity) / input.sd_lead_time_demand;
    close(target, expected.target_loss, 1e-12, 0);
    close(inverseLoss(target), expected.z, 0, 1e-6);
  });

  test('every case of the file is of a kind tested here', () => {
    expect([...new Set((normals.cases as Case[]).map((c) => c.kind))].sort()).toEqual([
      'inverse_loss',
      'normal_point',
      'normal_quantile',
      'safety_factor_for_fill_rate',
    ]);
  });
});

// Source: tests/reference/discrete.json: scipy 1.10.1 stats.poisson, nbinom, gamma; sums and quadrature.
describe('lead-time demand reference', () => {
  const check = (d: Distribution, { input, expected }: Case, rel: number) => {
    for (const [i, x] of input.x.entries()) {
      close(d.cdf(x), (expected.cdf ?? expected.cdf_at_x)[i], rel, 1e-10);
      close(d.shortage(x), expected.expected_shortage[i], rel, 1e-10);
    }
    for (const [i, p] of input.p.entries()) {
      if (d.discrete) expect(quantile(d, p)).toBe(expected.quantile[i]);
      else close(quantile(d, p), expected.quantile[i], rel, 1e-9);
    }
  };
  test.each(of(discrete.cases, 'poisson'))('%s', (_, c) => check(poisson(c.input.mean), c, 1e-8));
  test.each(of(discrete.cases, 'negative_binomial'))('%s', (_, c) =>
    check(negativeBinomial(c.input.mean, c.input.variance), c, 1e-7),
  );
  test.each(of(discrete.cases, 'gamma'))('%s', (_, c) => check(gamma(c.input.mean, c.input.sd), c, 1e-6));
  test.each(of(discrete.cases, 'poisson_mixture'))('%s', (_, c) => {
    const parts = c.input.lead_times.map((days: number, i: number) => ({
      weight: c.input.weights[i],
      of: poisson(c.input.daily_mean * days),
    }));
    const d = mixture(parts);
    close(d.mean, c.expected.mean, 1e-12, 0);
    close(d.variance, c.expected.variance, 1e-9, 0);
    check(d, c, 1e-7);
  });

  test('every case of the file is of a kind tested here', () => {
    expect([...new Set((discrete.cases as Case[]).map((c) => c.kind))].sort()).toEqual([
      'gamma',
      'negative_binomial',
      'poisson',
      'poisson_mixture',
    ]);
  });
});

test('the least stock with a given expected shortage', () => {
  const d = normal(40, 6);
  // E[(D − 49.869)+] = 0.12536 of tests/reference/reorder.json, case reorder-001.
  expect(shortageQuantile(d, 0.12535775416678616)).toBeCloseTo(49.86912176, 6);
  expect(shortageQuantile(normal(40, 0), 3)).toBe(37);
  const slow = poisson(1);
  const s = shortageQuantile(slow, 0.05);
  expect(slow.shortage(s)).toBeLessThanOrEqual(0.05);
  expect(slow.shortage(s - 1)).toBeGreaterThan(0.05);
});

test('what makes no distribution is a defect', () => {
  for (const wrong of [
    () => normalQuantile(0),
    () => normalQuantile(1),
    () => inverseLoss(0),
    () => quantile(normal(1, 1), 1),
    () => normal(1, -1),
    () => gamma(0, 1),
    () => poisson(-1),
    () => negativeBinomial(2, 2),
    () => negativeBinomial(2, 100_001),
    () => mixture([]),
    () => shortageQuantile(normal(1, 1), -1),
  ])
    expect(wrong).toThrow(RangeError);
});
