import type { Quantity } from '@/core/quantity';

/** Up to where an item may be promised to customers: from what is there, also from what is on the way, or without limit. */
export const promiseRules = ['stock', 'on_the_way', 'without_limit'] as const;
export type PromiseRule = (typeof promiseRules)[number];

/** How much more may be promised; null without limit. What others wait for already is theirs.
 *  Units: base units. Source: common practice (available to promise, cumulative).
 *  @example 3 free, 10 on the way, 4 waited for → from stock 3, also from what is on the way 9 */
export function mayPromise(
  rule: PromiseRule,
  there: { readonly free: Quantity; readonly coming: Quantity; readonly waitedFor: Quantity },
): Quantity | null {
  const free = Math.max(0, there.free);
  switch (rule) {
    case 'without_limit':
      return null;
    case 'on_the_way':
      return Math.max(0, free + Math.max(0, there.coming) - there.waitedFor);
    case 'stock':
      return Math.max(0, free - there.waitedFor);
  }
}
