/** What a price that is not on a list is proposed from. */
export type CostOrigin = 'standard_cost' | 'last_price';
export type CostOrder = 'standard_first' | 'last_first';

/** Where no supplier's price applies: standard cost or last price paid, whichever the company looks at first and is there.
 *  Units: base currency per base unit, as decimal text. Null when neither is on file: nothing is never taken for zero, and a
 *  cost of 0 is taken for none.
 *  Source: common practice.
 *  @example proposedCost({ standard: '2.85', last: '2.60' }, 'last_first')  // { amount: '2.60', origin: 'last_price' } */
export function proposedCost(
  known: { readonly standard: string | null; readonly last: string | null },
  order: CostOrder,
): { readonly amount: string; readonly origin: CostOrigin } | null {
  const candidates = [
    { amount: known.standard, origin: 'standard_cost' as const },
    { amount: known.last, origin: 'last_price' as const },
  ];
  if (order === 'last_first') candidates.reverse();
  for (const { amount, origin } of candidates) if (amount !== null && Number(amount) > 0) return { amount, origin };
  return null;
}
