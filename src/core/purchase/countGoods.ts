import { openQuantity } from '@/core/netting';
import { baseQuantity, packsIn } from '@/core/packs';
import type { Quantity } from '@/core/quantity';
import { err, ok, type Result } from '@/core/result';
import type { Fraction } from '@/core/units';
import { checkLineQuantity, type LineQuantityFault } from './checkLineQuantity';

/** Packs and base units, in millionths of each. */
export type Counted = { readonly packs: Quantity; readonly base: Quantity };

/** What is still to come of a delivery part. The packs are those not yet counted in; when none of them is left, or part
 *  was cancelled, they are what the open base quantity makes. */
export function openOf(
  part: {
    readonly packs: Quantity;
    readonly base: Quantity;
    readonly receivedPacks: Quantity;
    readonly received: Quantity;
    readonly cancelled: Quantity;
  },
  content: Fraction,
): Counted {
  const base = openQuantity({ ordered: part.base, received: part.received, cancelled: part.cancelled });
  if (base === 0) return { packs: 0, base };
  const uncounted = part.cancelled === 0 ? Math.max(0, part.packs - part.receivedPacks) : 0;
  return { packs: uncounted || packsIn(base, content), base };
}

/** What a person counted of a part, in packs or in base units; null when nothing came (empty or 0). What is entered as
 *  all that is open brings exactly the open quantity, so that the counts of a part add up whatever the pack content.
 *  Errors: those of checkLineQuantity; zero_quantity for a share of a pack that is less than a millionth of a base unit.
 *  @example countGoods('3', 'pack', open, fraction(25))  // { packs: 3_000_000, base: 75_000_000 } */
export function countGoods(
  typed: string,
  unit: 'pack' | 'base',
  open: Counted,
  content: Fraction,
): Result<Counted | null, LineQuantityFault> {
  if (typed.trim() === '') return ok(null);
  const entered = checkLineQuantity(typed, unit === 'base' ? content : undefined);
  if (!entered.ok) return entered.error.kind === 'zero_quantity' ? ok(null) : entered;
  const q = entered.value;
  if (unit === 'base') return ok({ base: q, packs: q === open.base ? open.packs : packsIn(q, content) });
  const base = q === open.packs ? open.base : baseQuantity(q, content);
  return base === 0 ? err({ kind: 'zero_quantity' }) : ok({ packs: q, base });
}
