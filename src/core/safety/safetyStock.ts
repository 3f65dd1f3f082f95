import { inverseLoss, normalQuantile, unitLoss } from '@/core/distributions';

/** Mean and standard deviation of demand a day, of a lead time in days. */
export type MeanSd = { readonly mean: number; readonly sd: number };

/** What is promised: that so large a share of order cycles end without a shortage, or that so large a share of pieces asked
 *  for is handed over at once. */
export type ServiceTarget = { readonly kind: 'cycle_service' | 'fill_rate'; readonly share: number };

/** Demand over one lead time, and over the review period as well where orders can only go out every R days:
 *  mean d·(L + R), sd √((L + R)·σd² + d²·σL²).
 *  Units: demand in base units per day, times in days; unrounded. Errors: throws RangeError for a negative figure.
 *  Assumes demand and lead time independent. Source: Silver, Pyke & Thomas; Nahmias (from memory); tests/reference/reorder.json.
 *  @example leadTimeDemand({ mean: 20, sd: 5 }, { mean: 9, sd: 2 })  // mean 180, sd 42.72… */
export function leadTimeDemand(demand: MeanSd, lead: MeanSd, reviewDays = 0): MeanSd {
  if ([demand.mean, demand.sd, lead.mean, lead.sd, reviewDays].some((x) => !(x >= 0)))
    throw new RangeError('demand and lead time are not negative');
  const days = lead.mean + reviewDays;
  return {
    mean: demand.mean * days,
    sd: Math.sqrt(days * demand.sd ** 2 + demand.mean ** 2 * lead.sd ** 2),
  };
}

export type SafetyStock = {
  readonly z: number;
  /** May be negative for a low fill rate: then nothing is kept in reserve. */
  readonly safety: number;
  /** Pieces short in a cycle, on average. */
  readonly shortagePerCycle: number;
};

/** Safety stock by the normal formula: z·σ with z the quantile of a cycle-service target, or with G(z) = (1 − fill)·Q ÷ σ for
 *  a fill rate of orders of Q. σ = 0 needs none.
 *  Errors: throws RangeError for a share outside 0…1 or an order quantity of 0 with a fill rate.
 *  Source: as leadTimeDemand. It assumes that orders go out exactly at the reorder point; see adviseMinimum. */
export function safetyStock(ltd: MeanSd, target: ServiceTarget, orderQuantity: number): SafetyStock {
  if (!(target.share > 0 && target.share < 1)) throw new RangeError('a service target lies between 0 and 1');
  if (ltd.sd === 0) return { z: 0, safety: 0, shortagePerCycle: 0 };
  if (target.kind === 'fill_rate' && !(orderQuantity > 0)) throw new RangeError('a fill rate needs an order quantity');
  const z =
    target.kind === 'cycle_service'
      ? normalQuantile(target.share)
      : inverseLoss(((1 - target.share) * orderQuantity) / ltd.sd);
  return { z, safety: z * ltd.sd, shortagePerCycle: ltd.sd * unitLoss(z) };
}

/** How far below the reorder point stock has fallen when a daily look finds it there, as mean and variance:
 *  E[D²] ÷ 2E[D] = (σ² + d²) ÷ 2d, and E[D³] ÷ 3E[D] − mean². Of things sold by the piece the steps are whole: half a piece
 *  less when the trigger is "at or below", half a piece more when it is "strictly below" (the point itself is then one of the
 *  steps), variance 1/12 less; their third moment is that of a negative binomial, else of a normal.
 *  Units: base units. Never below 0. Source: renewal theory (overshoot of a renewal process: Silver, Pyke & Thomas; from memory).
 *  @example undershoot({ mean: 2.1, sd: 1.6 }, null).mean  // 1.659… */
export function undershoot(
  demand: MeanSd,
  pieces: 'at_or_below' | 'strictly_below' | null,
): { readonly mean: number; readonly variance: number } {
  const { mean: d, sd } = demand;
  if (d <= 0) return { mean: 0, variance: 0 };
  const v = sd * sd;
  const skew = pieces === null ? 0 : (v * Math.max(0, 2 * v - d)) / d;
  const mean = (v + d * d) / (2 * d);
  const variance = (d ** 3 + 3 * d * v + skew) / (3 * d) - mean ** 2 - (pieces === null ? 0 : 1 / 12);
  const shift = pieces === null ? 0 : pieces === 'at_or_below' ? -0.5 : 0.5;
  return { mean: Math.max(0, mean + shift), variance: Math.max(0, variance) };
}
