import type { Quantity } from '@/core/quantity';
import { consumeForecast } from './consumeForecast';

/** Something dated, by the day it counts on (0 = today). */
export type Flow = { readonly day: number; readonly quantity: Quantity };

export type ProjectionInput = {
  /** On hand − blocked, today. */
  readonly stock: Quantity;
  /** Promised or owed without a day of its own: due today. */
  readonly owed: Quantity;
  readonly receipts: readonly Flow[];
  /** Dated customer orders: they eat forecast. */
  readonly orders: readonly Flow[];
  /** Demand from shops and kits that is not forecast besides. */
  readonly dependent: readonly Flow[];
  /** Mean use a day. */
  readonly perDay: Quantity;
  readonly days: number;
};

export type ProjectedDay = {
  readonly receipts: Quantity;
  readonly orders: Quantity;
  readonly dependent: Quantity;
  /** What is left of the forecast of that day. */
  readonly forecast: Quantity;
  readonly closing: Quantity;
};

/** Stock day by day: receipts count at the start of a day, demand during it. What was due before today is due today.
 *  Units: millionths. Source: common practice (time-phased projected available balance). */
export function project(input: ProjectionInput): ProjectedDay[] {
  const { days } = input;
  const per = (flows: readonly Flow[]): number[] => {
    const sums = new Array<number>(days).fill(0);
    for (const { day, quantity } of flows)
      if (day < days) sums[Math.max(0, day)] = (sums[Math.max(0, day)] as number) + quantity;
    return sums;
  };
  const [receipts, orders, dependent] = [per(input.receipts), per(input.orders), per(input.dependent)];
  const forecast = consumeForecast(
    new Array<number>(days).fill(input.perDay),
    input.orders.map((o) => ({ ...o, day: Math.max(0, o.day) })),
  );
  let stock = input.stock - input.owed;
  return receipts.map((came, d) => {
    const day = {
      receipts: came,
      orders: orders[d] as number,
      dependent: dependent[d] as number,
      forecast: forecast[d] as number,
    };
    stock += day.receipts - day.orders - day.dependent - day.forecast;
    return { ...day, closing: stock };
  });
}

/** The first day that closes below a level when stock is only used up evenly and refilled by what is on its way: the same as
 *  `firstBelow` of a projection without dated demand, without keeping its days. Units: millionths.
 *  @example stock 10, 3 a day, 6 come on day 4, level 0: closes 7, 4, 1, −2 → day 3 */
export function runsBelow(
  input: Pick<ProjectionInput, 'stock' | 'owed' | 'receipts' | 'perDay' | 'days'>,
  level: Quantity,
): number | null {
  const { perDay, days } = input;
  const receipts = [...input.receipts].sort((a, b) => a.day - b.day);
  let stock = input.stock - input.owed;
  let next = 0;
  for (let d = 0; d < days; d += 1) {
    for (let r = receipts[next]; r !== undefined && r.day <= d; r = receipts[next]) {
      stock += r.quantity;
      next += 1;
    }
    stock -= perDay;
    if (stock < level) return d;
  }
  return null;
}

/** The first day that closes below a level, 0 = today; null when none does. Below 0 it is the run-out. */
export function firstBelow(days: readonly ProjectedDay[], level: Quantity): number | null {
  const at = days.findIndex((d) => d.closing < level);
  return at === -1 ? null : at;
}
