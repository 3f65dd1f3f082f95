import type { Quantity } from '@/core/quantity';
import type { ProjectedDay } from './project';

/** An open receipt of a projection, by its day. */
export type OpenReceipt = { readonly day: number; readonly quantity: Quantity; readonly ref: string };

/** What would be better about an open order: sooner, because stock falls below safety before it comes; later, because it is
 *  not missed for a while; not at all, because stock never needs it in the time looked at. Days count from today. */
export type OrderAdvice =
  | {
      readonly kind: 'sooner';
      readonly ref: string;
      readonly day: number;
      readonly wanted: number;
      readonly out: boolean;
    }
  | { readonly kind: 'later'; readonly ref: string; readonly day: number; readonly wanted: number }
  | { readonly kind: 'not_needed'; readonly ref: string; readonly day: number; readonly until: number };

/** A receipt that is not missed for so many days may come later. */
const WORTH_A_WORD_DAYS = 7;

/** Advice on open orders against a projection. A receipt is wanted on the first day that would close below safety without it
 *  and everything that comes after it; receipts are looked at in the order of their days.
 *  `until` is the last day looked at. Source: common practice (rescheduling messages). */
export function adviseOrders(
  days: readonly ProjectedDay[],
  receipts: readonly OpenReceipt[],
  safety: Quantity,
): OrderAdvice[] {
  const sorted = [...receipts].sort((a, b) => a.day - b.day);
  const without = days.map((d) => d.closing);
  for (const r of sorted)
    for (let d = Math.max(0, r.day); d < without.length; d += 1) without[d] = (without[d] as number) - r.quantity;
  const found: OrderAdvice[] = [];
  // Receipts come in one after the other; each is wanted when what came before no longer suffices.
  for (const r of sorted) {
    const wanted = without.findIndex((stock) => stock < safety);
    if (wanted === -1) {
      if (r.day < days.length) found.push({ kind: 'not_needed', ref: r.ref, day: r.day, until: days.length - 1 });
    } else if (wanted < r.day)
      found.push({ kind: 'sooner', ref: r.ref, day: r.day, wanted, out: without.slice(0, r.day).some((s) => s < 0) });
    else if (wanted - r.day >= WORTH_A_WORD_DAYS) found.push({ kind: 'later', ref: r.ref, day: r.day, wanted });
    for (let d = Math.min(Math.max(0, r.day), wanted === -1 ? r.day : wanted); d < without.length; d += 1)
      without[d] = (without[d] as number) + r.quantity;
  }
  return found;
}
