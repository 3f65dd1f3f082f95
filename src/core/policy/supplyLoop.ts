/** A chain of places that supply one another in a circle, spelled out from one of them back to itself; null when there is none.
 *  `suppliedBy` names the place that sends to a place, null where it buys from suppliers.
 *  @example supplyLoop(new Map([[1, 2], [2, 1]]))  // [1, 2, 1] */
export function supplyLoop(suppliedBy: ReadonlyMap<number, number | null>): number[] | null {
  const clear = new Set<number>();
  for (const start of suppliedBy.keys()) {
    const path: number[] = [];
    let at: number | null | undefined = start;
    while (at !== null && at !== undefined && !clear.has(at)) {
      const seen = path.indexOf(at);
      if (seen !== -1) return [...path.slice(seen), at];
      path.push(at);
      at = suppliedBy.get(at);
    }
    for (const p of path) clear.add(p);
  }
  return null;
}
