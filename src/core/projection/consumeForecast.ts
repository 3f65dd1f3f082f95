import type { Quantity } from '@/core/quantity';

/** How far back a dated order eats forecast, where nothing else is said. */
export const CONSUME_BACK_DAYS = 7;

/** What is left of a daily forecast after dated customer orders have eaten it: taken in date order, each eats the forecast of
 *  its own day, then of earlier days back to so many; what the forecast cannot cover is extra demand. Demand of a day =
 *  its orders + what is left of its forecast.
 *  Units: days counted from today (0), quantities in millionths. Orders before today or after the last day eat nothing.
 *  Source: common practice (forecast consumption, backward).
 *  @example forecast 2 a day, an order of 9 on day 5 → days 5, 4, 3, 2 go to 0, days 1 and 6 keep 2 */
export function consumeForecast(
  forecast: readonly Quantity[],
  orders: readonly { readonly day: number; readonly quantity: Quantity }[],
  backDays = CONSUME_BACK_DAYS,
): Quantity[] {
  const left = [...forecast];
  for (const { day, quantity } of [...orders].sort((a, b) => a.day - b.day)) {
    if (day < 0 || day >= left.length) continue;
    let open = quantity;
    for (let d = day; d >= Math.max(0, day - backDays) && open > 0; d -= 1) {
      const eaten = Math.min(open, left[d] as number);
      left[d] = (left[d] as number) - eaten;
      open -= eaten;
    }
  }
  return left;
}
