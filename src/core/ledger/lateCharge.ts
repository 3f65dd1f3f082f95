import type { Minor } from '@/core/money';
import type { Quantity } from '@/core/quantity';
import { divideHalfUp } from '@/core/units';

/** Where goods of a receipt line went on to: sent off at a place that had `onHandBefore`, or arrived from transit. */
export type Passage =
  | {
      readonly kind: 'sent';
      readonly place: string;
      readonly shipment: string;
      readonly quantity: Quantity;
      readonly onHandBefore: Quantity;
    }
  | { readonly kind: 'arrived'; readonly place: string; readonly shipment: string; readonly quantity: Quantity };

const proRata = (part: Quantity, of: Quantity, whole: Quantity): Quantity =>
  whole <= 0 ? 0 : Number(divideHalfUp(BigInt(part) * BigInt(of), BigInt(whole)));

/** How much of a receipt line is still there, by place (a shipment on its way counts under its own name): at each place
 *  min(quantity of the line there, on hand), followed through transfers pro rata.
 *  Units: millionths of the base unit; passages in the order they were posted, after the receipt.
 *  Source: common practice (calculations: late charges go to what is still there). */
export function stillThere(
  receipt: { readonly place: string; readonly quantity: Quantity },
  passages: readonly Passage[],
  onHand: (place: string) => Quantity,
): Map<string, Quantity> {
  const lineAt = new Map<string, Quantity>([[receipt.place, receipt.quantity]]);
  const add = (place: string, q: Quantity) => lineAt.set(place, (lineAt.get(place) ?? 0) + q);
  const sent = new Map<string, Quantity>();
  for (const p of passages) {
    if (p.kind === 'sent') {
      const there = Math.min(lineAt.get(p.place) ?? 0, Math.max(0, p.onHandBefore));
      const moved = Math.min(there, proRata(there, p.quantity, p.onHandBefore));
      add(p.place, -moved);
      add(p.shipment, moved);
      sent.set(p.shipment, p.quantity);
    } else {
      const onTheWay = lineAt.get(p.shipment) ?? 0;
      const left = sent.get(p.shipment) ?? 0;
      const moved = Math.min(onTheWay, proRata(onTheWay, p.quantity, left));
      add(p.shipment, -moved);
      add(p.place, moved);
      sent.set(p.shipment, left - p.quantity);
    }
  }
  const there = [...lineAt].map(([place, q]): [string, Quantity] => [place, Math.min(q, Math.max(0, onHand(place)))]);
  return new Map(there.filter(([, q]) => q > 0));
}

/** A charge that comes after the goods: each place takes its share by what is still there, the rest is cost variance.
 *  Shares and variance add up to the amount exactly (cumulative rounding, half-up).
 *  @example spreadLateCharge(700, units(20), [['A', units(10)], ['B', units(5)]])  // A 350, B 175, variance 175 */
export function spreadLateCharge(
  amount: Minor,
  received: Quantity,
  there: Iterable<readonly [string, Quantity]>,
): { readonly shares: ReadonlyMap<string, Minor>; readonly variance: Minor } {
  const shares = new Map<string, Minor>();
  let [cumulative, posted] = [0, 0];
  for (const [place, q] of there) {
    cumulative += q;
    const upTo = Number(divideHalfUp(BigInt(amount) * BigInt(cumulative), BigInt(received)));
    shares.set(place, upTo - posted);
    posted = upTo;
  }
  return { shares, variance: amount - posted };
}
