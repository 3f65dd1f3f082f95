/** Who buys an item: whoever the item names, else its category or the nearest one above that names somebody, else the
 *  supplier it comes from; and which of them said so. Null when nobody is named.
 *  `categories` from the item's own up to the top. */
export function responsibleBuyer<T>(named: {
  readonly item: T | null;
  readonly categories: readonly (T | null)[];
  readonly supplier: T | null;
}): { readonly buyer: T; readonly by: 'item' | 'category' | 'supplier' } | null {
  if (named.item !== null) return { buyer: named.item, by: 'item' };
  for (const buyer of named.categories) if (buyer !== null) return { buyer, by: 'category' };
  return named.supplier === null ? null : { buyer: named.supplier, by: 'supplier' };
}
