import type { Minor } from '@/core/money';
import { checked, type Quantity } from '@/core/quantity';
import { divideHalfUp } from '@/core/units';

/** Quantity and value of an item at a location; the average cost is never stored. */
export type LevelValue = { readonly quantity: Quantity; readonly value: Minor };

export type Posting = {
  readonly level: LevelValue;
  /** What the movement changes of the level's value. */
  readonly valueChange: Minor;
  /** What goes to cost variance instead of stock. */
  readonly variance: Minor;
};

const share = (value: Minor, part: Quantity, whole: Quantity): Minor =>
  Number(divideHalfUp(BigInt(value) * BigInt(part), BigInt(whole)));

/** Goods of a known value come in. A receipt of q into −n values min(q, n) at the provisional cost those pieces went out at,
 *  posts the difference to cost variance and carries only the rest. Quantity 0 has value 0 afterwards.
 *  Source: common practice (perpetual moving average). */
export function receive(level: LevelValue, q: Quantity, value: Minor): Posting {
  const after = checked(level.quantity + q);
  if (level.quantity >= 0) {
    return { level: { quantity: after, value: level.value + value }, valueChange: value, variance: 0 };
  }
  const owed = -level.quantity;
  const filled = Math.min(q, owed);
  const provisional = filled === owed ? -level.value : share(-level.value, filled, owed);
  const filledValue = filled === q ? value : share(value, filled, q);
  const carried = value - filledValue;
  const valueChange = provisional + carried;
  return {
    level: { quantity: after, value: level.value + valueChange },
    valueChange,
    variance: filledValue - provisional,
  };
}

/** Goods go out at moving average: round(value × q ÷ quantity), all of the value with the last piece.
 *  What goes out at or below zero leaves at the last known cost, provisional: `lastCost` is a value for a quantity. */
export function issue(level: LevelValue, q: Quantity, lastCost: LevelValue): Posting {
  const after = checked(level.quantity - q);
  const there = Math.max(0, level.quantity);
  const fromStock = Math.min(q, there);
  const beyond = q - fromStock;
  const stockValue = fromStock === 0 ? 0 : fromStock === there ? level.value : share(level.value, fromStock, there);
  const provisional = beyond === 0 || lastCost.quantity <= 0 ? 0 : share(lastCost.value, beyond, lastCost.quantity);
  const valueChange = -(stockValue + provisional);
  return { level: { quantity: after, value: level.value + valueChange }, valueChange, variance: 0 };
}
