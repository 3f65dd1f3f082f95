import type { LevelValue } from '@/core/ledger';
import { allocate, type Minor } from '@/core/money';
import type { Quantity } from '@/core/quantity';
import { divideHalfUp, fraction } from '@/core/units';
import type { Taken } from './takeFromLots';

/** A serial number that is there, with what it cost; null = not known. */
export type CostedSerial = { readonly lotId: number; readonly quantity: Quantity; readonly cost: Minor | null };

/** What serial numbers that go out cost: each its own, and what is known by none an equal share of what the others leave of
 *  the level. All of the value with the last piece, and never more than the level has, so that nothing becomes variance. Null
 *  where more goes out than is there: that goes at the last known cost, provisional, like anything else.
 *  Units: millionths of the base unit, minor units of the base currency. Rounding: half-up, once.
 *  Source: common practice (specific identification, IAS 2.23).
 *  @example level 3 worth 1,000; A cost 500, B 300, one unknown: A → 500, the unknown one → 200 */
export function costOfSerials(
  level: LevelValue,
  there: readonly CostedSerial[],
  taken: readonly Taken[],
): Minor | null {
  const out = taken.reduce((a, t) => a + t.quantity, 0);
  if (out > level.quantity) return null;
  if (out === level.quantity) return level.value;
  const known = new Map(there.flatMap((s): [number, Minor][] => (s.cost === null ? [] : [[s.lotId, s.cost]])));
  const costed = there.filter((s) => s.cost !== null);
  const rest = {
    quantity: level.quantity - costed.reduce((a, s) => a + s.quantity, 0),
    value: Math.max(0, level.value - costed.reduce((a, s) => a + (s.cost ?? 0), 0)),
  };
  let own = 0;
  let unknown = 0;
  for (const t of taken) {
    const cost = t.lotId === null ? undefined : known.get(t.lotId);
    if (cost === undefined) unknown += t.quantity;
    else own += cost;
  }
  if (unknown > rest.quantity) return null;
  const share = unknown === 0 ? 0 : Number(divideHalfUp(BigInt(rest.value) * BigInt(unknown), BigInt(rest.quantity)));
  return Math.min(own + share, Math.max(0, level.value));
}

/** What each of the serial numbers of a receipt cost: its value in equal parts over all that came, to the last minor unit.
 *  Pieces that came without a number have the rest. */
export function costPerSerial(value: Minor, quantity: Quantity, serials: readonly Quantity[]): Minor[] {
  const named = serials.reduce((a, q) => a + q, 0);
  const weights = [...serials, ...(quantity > named ? [quantity - named] : [])].map((q) => fraction(BigInt(q)));
  return allocate(value, weights).slice(0, serials.length);
}
