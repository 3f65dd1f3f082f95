import type { Quantity } from '@/core/quantity';

/** Why there is a need, in the order in which they are named. */
export const needCauses = [
  'below_min',
  'customer_waits',
  'shop_asks',
  'dated_demand',
  'supply_cut',
  'by_hand',
] as const;
export type NeedCause = (typeof needCauses)[number];

/** What has to be mended, or looked at, before a need can be decided as suggested. */
export type NeedWarning = 'no_supplier' | 'supplier_blocked' | 'item_stopped' | 'no_price' | 'no_rate' | 'not_free';

/** The warnings of a need, the gravest first; none: it can be accepted as it stands. `sentFree`: what is free at the place that
 *  would send it, null where it is bought. Source: common practice (exceptions of a purchase proposal). */
export function needWarnings(n: {
  readonly hasSource: boolean;
  readonly supplierActive: boolean;
  readonly itemActive: boolean;
  readonly priced: boolean;
  readonly rated: boolean;
  readonly sentFree: Quantity | null;
  readonly quantity: Quantity;
}): NeedWarning[] {
  const stopped: NeedWarning[] = n.itemActive ? [] : ['item_stopped'];
  if (n.sentFree !== null) return n.sentFree < n.quantity ? ['not_free', ...stopped] : stopped;
  if (!n.hasSource) return ['no_supplier', ...stopped];
  return [
    ...(n.supplierActive ? [] : (['supplier_blocked'] as const)),
    ...stopped,
    ...(n.priced ? (n.rated ? [] : (['no_rate'] as const)) : (['no_price'] as const)),
  ];
}
