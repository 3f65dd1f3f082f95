import type { Minor } from '@/core/money';
import { checked, type Quantity } from '@/core/quantity';
import { divideHalfUp } from '@/core/units';
import type { LevelValue, Posting } from './postToLevel';

/** Goods leave at a value that is known from elsewhere: a receipt is reversed, goods go back to the supplier, a shipment
 *  leaves transit with what it came in with. The level gives that value as far as it has it; with the last piece it gives
 *  all it has; pieces that are not there leave at their share of the value, provisional. The rest is cost variance:
 *  value change + variance = −value, always. Quantity 0 has value 0 afterwards.
 *  Units: millionths of the base unit, minor units of the base currency. Rounding: half-up, once.
 *  Source: common practice (perpetual moving average).
 *  @example removeAtValue({ quantity: units(10), value: 2750 }, units(10), 2000)  // variance 750, level 0 and 0 */
export function removeAtValue(level: LevelValue, q: Quantity, value: Minor): Posting {
  const after = checked(level.quantity - q);
  const valueChange = -taken(level, q, after, value) || 0;
  return {
    level: { quantity: after, value: level.value + valueChange },
    valueChange,
    variance: -value - valueChange || 0,
  };
}

function taken(level: LevelValue, q: Quantity, after: Quantity, value: Minor): Minor {
  if (after > 0) return Math.min(value, level.value);
  if (after === 0) return level.value;
  const missing = Math.min(q, -after);
  const provisional = Number(divideHalfUp(BigInt(value) * BigInt(missing), BigInt(q)));
  return (level.quantity > 0 ? level.value : 0) + provisional;
}
