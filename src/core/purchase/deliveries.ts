import { addDays, type BusinessDate } from '@/core/calendar';
import { MICRO, type Quantity } from '@/core/quantity';
import { err, ok, type Result } from '@/core/result';

/** A delivery of a line: packs in millionths, when, for which place. */
export type Delivery = {
  readonly packs: Quantity;
  readonly date: BusinessDate | null;
  readonly placeId: number | null;
};

export type SplitFault =
  | { readonly kind: 'nothing_left'; readonly most: Quantity }
  | { readonly kind: 'zero_quantity' }
  | { readonly kind: 'not_whole_packs'; readonly packs: Quantity };

const isWhole = (packs: Quantity) => packs % MICRO === 0;

/** Takes a further delivery from one that is there: what is left there and what is split off add up to what was there, always
 *  (900 = 600 + 300). `came` is what was booked in on it and stays. Parts are whole packs unless broken ones are wanted.
 *  Errors: zero_quantity; nothing_left when nothing open would be left, with the most that can be taken, in whole packs where those are kept;
 *  not_whole_packs. */
export function splitDelivery(
  from: Delivery & { readonly came: Quantity },
  off: Delivery,
  broken: boolean,
): Result<readonly [Delivery, Delivery], SplitFault> {
  if (off.packs <= 0) return err({ kind: 'zero_quantity' });
  const open = from.packs - from.came;
  // Something stays where it was taken from: all of it is a change of date or place.
  if (off.packs >= open) {
    const step = !broken && isWhole(from.packs) ? MICRO : 1;
    return err({ kind: 'nothing_left', most: Math.max(0, Math.ceil(open / step) - 1) * step });
  }
  if (!broken && !isWhole(off.packs) && isWhole(from.packs)) return err({ kind: 'not_whole_packs', packs: off.packs });
  const { packs, date, placeId } = from;
  return ok([{ packs: packs - off.packs, date, placeId }, off]);
}

/** Spreads a delivery evenly over as many weeks, one delivery a week from its own date on: whole packs where it has whole packs,
 *  the earlier ones taking what does not go round. The sum stays. Fewer deliveries where there are fewer packs than weeks.
 *  Errors: zero_quantity for fewer than two weeks or a delivery without packs. */
export function spreadOverWeeks(
  from: Delivery,
  weeks: number,
  first: BusinessDate,
): Result<readonly Delivery[], SplitFault> {
  const unit = isWhole(from.packs) ? MICRO : 1;
  const n = Math.min(weeks, Math.floor(from.packs / unit));
  if (weeks < 2 || n < 1) return err({ kind: 'zero_quantity' });
  const units = from.packs / unit;
  const each = Math.floor(units / n);
  const over = units - each * n;
  return ok(
    Array.from({ length: n }, (_, i) => ({
      packs: (each + (i < over ? 1 : 0)) * unit,
      date: addDays(first, 7 * i),
      placeId: from.placeId,
    })),
  );
}
