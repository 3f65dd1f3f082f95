import type { Quantity } from '@/core/quantity';

export type Rounding = 'up' | 'down' | 'nearest' | 'none';

/** A quantity rounded to whole multiples of a step; exact halves go up.
 *  Units: millionths. A step of 0 or rounding "none" leaves the quantity as it is.
 *  @example roundToStep(units(21), units(24), 'up')  // units(24) */
export function roundToStep(quantity: Quantity, step: Quantity, mode: Rounding): Quantity {
  if (mode === 'none' || step <= 0) return quantity;
  const rest = quantity % step;
  if (rest === 0) return quantity;
  const down = quantity - rest;
  if (mode === 'down') return down;
  if (mode === 'up') return down + step;
  return rest * 2 >= step ? down + step : down;
}

/** Whole packs in layers or pallets: how many full ones and how many loose.
 *  @example cascade(42, 40)  // { full: 1, loose: 2, roundedUp: 80 } */
export function cascade(packs: number, perLayer: number): { full: number; loose: number; roundedUp: number } {
  const loose = packs % perLayer;
  const full = (packs - loose) / perLayer;
  return { full, loose, roundedUp: (loose === 0 ? full : full + 1) * perLayer };
}
