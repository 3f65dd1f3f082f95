import { fromDecimal, type Quantity } from '@/core/quantity';
import { divideHalfUp } from '@/core/units';
import type { LevelRow } from '@/data/repositories/levels';

/** What found goods come in at: the average of what is there, else what the item last cost here. */
export function valueOfFound(level: LevelRow, quantity: Quantity): number {
  const onHand = fromDecimal(level.onHand);
  const share = (value: number, of: number) => Number(divideHalfUp(BigInt(value) * BigInt(quantity), BigInt(of)));
  if (onHand > 0) return share(level.value, onHand);
  if (onHand < 0) return share(-level.value, -onHand);
  const last = level.lastCostQuantity === null ? 0 : fromDecimal(level.lastCostQuantity);
  return last > 0 ? share(level.lastCost ?? 0, last) : 0;
}
