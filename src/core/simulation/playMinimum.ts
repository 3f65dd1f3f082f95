import { MICRO } from '@/core/quantity';
import { type AdviceInput, adviseMinimum, leadTimeDemand, safetyStock } from '@/core/safety';
import { type DemandModel, type SimulationResult, simulate } from './dailySystem';

export type PlayedCase = {
  readonly demand: DemandModel;
  readonly leadTime: readonly { readonly days: number; readonly probability: number }[];
  readonly target: number;
  /** What is ordered beyond the minimum each time: max = min + this. */
  readonly lot: number;
};

/** formula: demand + z·σ alone. undershoot: the same with the undershoot. advised: adviseMinimum with the lead times as they
 *  are. */
export type MinimumMethod = 'formula' | 'undershoot' | 'advised';

/** The minimum that a method gives for a cycle-service target, in whole units for demand by the piece. */
export function minimumBy(c: PlayedCase, method: MinimumMethod): number {
  const { demand, leadTime } = c;
  const mean = leadTime.reduce((a, l) => a + l.probability * l.days, 0);
  const variance = leadTime.reduce((a, l) => a + l.probability * (l.days - mean) ** 2, 0);
  const figures = { mean: demand.mean, sd: demand.type === 'normal' ? demand.sd : Math.sqrt(demand.mean) };
  const lead = { mean, sd: Math.sqrt(variance) };
  const target = { kind: 'cycle_service' as const, share: c.target };
  const pieces = demand.type === 'poisson';
  const whole = (x: number) => (pieces ? Math.ceil(x - 1e-9) : x);
  if (method === 'formula') {
    const ltd = leadTimeDemand(figures, lead);
    return whole(ltd.mean + Math.max(0, safetyStock(ltd, target, c.lot).safety));
  }
  const observed =
    method === 'advised'
      ? leadTime.flatMap((l) => new Array<number>(Math.round(l.probability * 100)).fill(l.days))
      : null;
  const input: AdviceInput = {
    demand: figures,
    lead: { ...lead, observed },
    target,
    orderQuantity: c.lot,
    reviewDays: 1,
    trigger: 'at_or_below',
    pieces: method === 'advised' && pieces,
  };
  return whole((adviseMinimum(input)?.minimum ?? 0) / MICRO);
}

/** What a minimum really achieves: (s,S) with a daily look, played through in backorder mode.
 *  Units: replications of two years after warming up. */
export const playMinimum = (c: PlayedCase, s: number, replications: number, seed: number): SimulationResult =>
  simulate({
    rule: { policy: 'sS', s, S: s + c.lot },
    mode: 'backorder',
    demand: c.demand,
    leadTime: c.leadTime,
    replications,
    days: 728,
    warmUpDays: 252,
    seed,
  });
