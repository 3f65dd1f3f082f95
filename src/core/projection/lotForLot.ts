import type { Quantity } from '@/core/quantity';
import { firstBelow, type ProjectedDay, type ProjectionInput, project } from './project';

export type LotForLotRule = {
  readonly safety: Quantity;
  readonly useStock: boolean;
  readonly keepSafety: boolean;
  /** A need is raised for a shortage up to this day (0 = today); the arrival of the order after the next. */
  readonly horizonDay: number;
  readonly windowDays: number;
};

export type LotForLot = {
  /** The first day that falls below; null = no need. */
  readonly day: number | null;
  /** Net demand of the window from that day on. */
  readonly quantity: Quantity;
  readonly days: readonly ProjectedDay[];
};

/** Lot-for-lot: where projected stock falls below safety stock inside the horizon, one order over the net demand of the
 *  grouping window that begins that day: the deepest shortage in it. Without "use stock" only what is on the way counts;
 *  without "keep safety" stock may go down to 0.
 *  Source: common practice (lot-for-lot with period grouping).
 *  @example stock 10, safety 5, 4 a day, window 7 → day 1 closes at 2 < 5; over days 1–7: 5 − (10 − 32) = 27 */
export function lotForLot(input: Omit<ProjectionInput, 'days'>, rule: LotForLotRule): LotForLot {
  const days = project({
    ...input,
    stock: rule.useStock ? input.stock : Math.min(0, input.stock),
    days: rule.horizonDay + rule.windowDays + 1,
  });
  const floor = rule.keepSafety ? rule.safety : 0;
  const day = firstBelow(days.slice(0, rule.horizonDay + 1), floor);
  if (day === null) return { day, quantity: 0, days };
  const window = days.slice(day, day + rule.windowDays);
  return { day, quantity: Math.max(...window.map((d) => floor - d.closing)), days };
}
