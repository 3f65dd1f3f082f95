import {
  type Distribution,
  mixture,
  negativeBinomial,
  normal,
  poisson,
  quantile,
  shortageQuantile,
} from '@/core/distributions';
import { MICRO, type Quantity } from '@/core/quantity';
import { leadTimeDemand, type MeanSd, type ServiceTarget, safetyStock, undershoot } from './safetyStock';

/** Fewer pieces than this in a lead time are counted, not taken as normal. */
export const SLOW_BELOW = 20;
/** A count that varies more than this (pieces squared) is no count of single customers any more. */
const WILD = 10_000;

export type AdviceInput = {
  /** Base units a day. */
  readonly demand: MeanSd;
  /** Days; with the lead times that were measured when there are enough of them to be believed. */
  readonly lead: MeanSd & { readonly observed: readonly number[] | null };
  readonly target: ServiceTarget;
  /** What is usually ordered at once, in base units; only a fill rate depends on it. */
  readonly orderQuantity: number;
  /** Days between order slots; 1 or less = every day, which is a daily look with an undershoot. */
  readonly reviewDays: number;
  readonly trigger: 'at_or_below' | 'strictly_below';
  /** Sold by whole pieces. */
  readonly pieces: boolean;
};

/** counts: by the piece, Poisson or negative binomial where they vary more than by chance. */
export type AdviceMethod = 'normal' | 'counts';

/** An advised minimum with its parts, each rounded to a tenth before they are added. In millionths of the base unit. */
export type Advice = {
  readonly method: AdviceMethod;
  /** Over measured lead times as they were, not over a mean and a standard deviation. */
  readonly empirical: boolean;
  readonly leadTimeDemand: Quantity;
  readonly safety: Quantity;
  readonly undershoot: Quantity;
  readonly minimum: Quantity;
  /** How much the undershoot varies, in base units squared; part of what the safety stock covers. */
  readonly undershootVariance: number;
  /** Days that the demand is taken over: lead time, and the review where it counts. */
  readonly days: number;
  readonly reviewDays: number;
  /** Of the normal formula; null where a distribution was read off. */
  readonly z: number | null;
  /** The target alone would ask for less than what is sold in the lead time: the safety stock is 0. */
  readonly clipped: boolean;
};

const tenth = (x: number): Quantity => Math.round(x * 10 + 1e-9) * (MICRO / 10);

/** The minimum that a target asks for: demand in the lead time + safety stock + undershoot of a daily look.
 *  Less than 20 pieces in a lead time are counted (Poisson, negative binomial); more are normal.
 *  With enough measured lead times the demand is taken over each of them (a mixture), which holds for skewed and two-peaked
 *  ones as well. Where orders only go out every R > 1 days the review is covered as well (L + R) and there is no undershoot
 *  besides. Safety stock also covers how much the undershoot varies. Null without demand.
 *  Source: calculations 5; Silver, Pyke & Thomas (from memory). What it achieves: docs/advised-minimum.md. */
export function adviseMinimum(input: AdviceInput): Advice | null {
  const { demand, lead, target, orderQuantity, pieces } = input;
  if (demand.mean <= 0) return null;
  const review = input.reviewDays > 1.5 ? input.reviewDays : 0;
  const ltd = leadTimeDemand(demand, lead, review);
  const byPiece = undershoot(demand, input.trigger);
  const slow = pieces && ltd.mean < SLOW_BELOW && ltd.sd ** 2 + byPiece.variance < WILD;
  const method: AdviceMethod = slow ? 'counts' : 'normal';
  const observed = lead.observed && lead.observed.length > 0 ? lead.observed : null;
  const below = review > 0 ? { mean: 0, variance: 0 } : slow ? byPiece : undershoot(demand, null);
  const parts = (z: number | null, safety: number): Advice => {
    const [expected, fallen] = [tenth(ltd.mean), tenth(below.mean)];
    // Of what is counted, the sum is the whole number that was read off.
    const whole = slow ? tenth(ltd.mean + below.mean + safety) - expected - fallen : tenth(safety);
    const kept = Math.max(0, whole);
    return {
      method,
      empirical: observed !== null,
      leadTimeDemand: expected,
      safety: kept,
      undershoot: fallen,
      undershootVariance: below.variance,
      minimum: expected + kept + fallen,
      days: lead.mean + review,
      reviewDays: review,
      z,
      clipped: safety < 0,
    };
  };
  if (method === 'normal' && !observed) {
    const s = safetyStock({ mean: ltd.mean, sd: Math.hypot(ltd.sd, Math.sqrt(below.variance)) }, target, orderQuantity);
    return parts(s.z, s.safety);
  }
  const over = observed
    ? mixture(observed.map((days) => ({ weight: 1, of: demandOver(demand, days + review, slow, below) })))
    : countsOf(ltd.mean + below.mean, ltd.sd ** 2 + below.variance);
  const point =
    target.kind === 'cycle_service'
      ? quantile(over, target.share)
      : shortageQuantile(over, (1 - target.share) * Math.max(orderQuantity, 1e-6));
  return parts(null, point - ltd.mean - below.mean);
}

type Undershoot = { readonly mean: number; readonly variance: number };

/** Demand over a fixed number of days and what the stock had fallen below its minimum before. */
function demandOver(demand: MeanSd, days: number, slow: boolean, below: Undershoot): Distribution {
  const mean = demand.mean * days + below.mean;
  const variance = demand.sd ** 2 * days + below.variance;
  return slow ? countsOf(mean, variance) : normal(mean, Math.sqrt(variance));
}

/** A count with this mean and variance: negative binomial where it varies more than by chance. */
const countsOf = (mean: number, variance: number): Distribution =>
  mean > 0 && variance > mean * 1.0001 ? negativeBinomial(mean, variance) : poisson(mean);
