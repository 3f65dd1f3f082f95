import reference from '../../../tests/reference/reorder.json';
import { leadTimeDemand, safetyStock } from '.';

// biome-ignore lint/suspicious/noExplicitAny: the cases of one file have fields of different types.
type Case = { id: string; kind: string; input: any; expected: any };
const cases = reference.cases as unknown as Case[];
const close = (a: number, b: number) =>
  expect(Math.abs(a - b)).toBeLessThanOrEqual(Math.max(1e-12, 1e-6 * Math.abs(b)));

// Source: tests/reference/reorder.json: Silver, Pyke & Thomas; Nahmias (from memory), quantiles by scipy 1.10.1.
test.each(cases.map((c) => [c.id, c] as const))('%s', (_, { kind, input, expected }) => {
  expect(kind).toBe('safety_stock');
  const ltd = leadTimeDemand(
    { mean: input.demand_mean, sd: input.demand_sd },
    { mean: input.lead_time_mean, sd: input.lead_time_sd },
    input.review_period,
  );
  const target =
    input.cycle_service_target === undefined
      ? { kind: 'fill_rate' as const, share: input.fill_rate_target }
      : { kind: 'cycle_service' as const, share: input.cycle_service_target };
  const s = safetyStock(ltd, target, input.order_quantity ?? 0);
  close(ltd.mean, expected.mean_ltd);
  close(ltd.sd, expected.sd_ltd);
  close(s.safety, expected.safety_stock);
  close(ltd.mean + s.safety, expected.reorder_point ?? expected.order_up_to_level);
  if (expected.z !== undefined) close(s.z, expected.z);
  if (expected.expected_shortage_per_cycle !== undefined)
    close(s.shortagePerCycle, expected.expected_shortage_per_cycle);
});
