/** Rows by a key, in their order. */
export function groupBy<T, K>(rows: readonly T[], key: (row: T) => K): Map<K, T[]> {
  const groups = new Map<K, T[]>();
  for (const r of rows) {
    const own = groups.get(key(r));
    if (own) own.push(r);
    else groups.set(key(r), [r]);
  }
  return groups;
}

export const pairKey = (itemId: number, locationId: number): string => `${itemId}/${locationId}`;

/** Rows of which there is one per item and location. */
export const pairMap = <T extends { readonly itemId: number; readonly locationId: number }>(
  rows: readonly T[],
): Map<string, T> => new Map(rows.map((r) => [pairKey(r.itemId, r.locationId), r]));
