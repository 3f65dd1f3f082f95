/** How unevenly values are shared out, 0 = all alike: Σi Σj |xi − xj| ÷ (2·n²·mean), by sorting. Null when they sum to 0 or less.
 *  Source: textbook; tests/reference/abc.json. */
export function gini(values: readonly number[]): number | null {
  const sorted = [...values].sort((a, b) => a - b);
  const n = sorted.length;
  const all = sorted.reduce((a, b) => a + b, 0);
  if (n === 0 || !(all > 0)) return null;
  const weighted = sorted.reduce((a, x, i) => a + (2 * (i + 1) - n - 1) * x, 0);
  return weighted / (n * all);
}
