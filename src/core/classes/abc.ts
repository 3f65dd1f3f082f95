export type AbcClass = 'A' | 'B' | 'C';
/** crossing: by the cumulative share before the item, so that the item which crosses a line is in the higher class;
 *  inclusive: by the share with it. */
export type AbcRule = 'crossing' | 'inclusive';

/** ABC classes by value, in the order given. Sorted by value descending, ties keep their order; the limits are shares in
 *  thousandths. Exact: shares are compared as whole numbers, because they may equal a limit.
 *  Units: values in minor units (safe integers, negative counts as 0). Source: common practice (Pareto analysis);
 *  tests/reference/abc.json. @example abcClasses([800, 150, 50], 700, 900)  // ['A', 'B', 'C'] */
export function abcClasses(
  values: readonly number[],
  aThousandths: number,
  bThousandths: number,
  rule: AbcRule = 'crossing',
): AbcClass[] {
  const worth = values.map((v) => BigInt(Math.max(0, Math.trunc(v))));
  const all = worth.reduce((a, b) => a + b, 0n) * 1n;
  const order = values
    .map((_, i) => i)
    .sort((i, j) => (worth[j] === worth[i] ? i - j : (worth[j] as bigint) > (worth[i] as bigint) ? 1 : -1));
  const classes = new Array<AbcClass>(values.length).fill('C');
  const [a, b] = [BigInt(aThousandths) * all, BigInt(bThousandths) * all];
  let sum = 0n;
  for (const i of order) {
    const before = sum * 1000n;
    sum += worth[i] as bigint;
    const share = rule === 'crossing' ? before : sum * 1000n;
    const within = (limit: bigint) => (rule === 'crossing' ? share < limit : share <= limit);
    classes[i] = all === 0n ? 'C' : within(a) ? 'A' : within(b) ? 'B' : 'C';
  }
  return classes;
}
