/** Whether two words differ by one wrong, missing, extra or swapped letter, or not at all.
 *  Source: Damerau, "A technique for computer detection and correction of spelling errors", CACM 7 (1964).
 *  @example isOneSlipAway('suplier', 'supplier')  // true */
export function isOneSlipAway(a: string, b: string): boolean {
  if (Math.abs(a.length - b.length) > 1) return false;
  let i = 0;
  while (i < a.length && i < b.length && a[i] === b[i]) i += 1;
  const rest = (x: string, from: number) => x.slice(from);
  if (a.length === b.length) {
    if (rest(a, i + 1) === rest(b, i + 1)) return true;
    return a[i] === b[i + 1] && a[i + 1] === b[i] && rest(a, i + 2) === rest(b, i + 2);
  }
  return a.length > b.length ? rest(a, i + 1) === rest(b, i) : rest(a, i) === rest(b, i + 1);
}

/** Whether a word, or a beginning of it, is what was typed but for one wrong, missing, extra or swapped letter, or not even that.
 *  `tails` are the ends of what was typed, from each letter on (`tailsOf`).
 *  Source: Damerau, "A technique for computer detection and correction of spelling errors", CACM 7 (1964).
 *  @example beginsWithOneSlip('supplier', tailsOf('suplier'))  // true */
export function beginsWithOneSlip(word: string, tails: readonly string[]): boolean {
  const typed = tails[0] as string;
  let i = 0;
  while (i < typed.length && typed[i] === word[i]) i += 1;
  if (i === typed.length) return true;
  const wrong = word.startsWith(tails[i + 1] as string, i + 1) && i < word.length;
  if (wrong || word.startsWith(tails[i] as string, i + 1) || word.startsWith(tails[i + 1] as string, i)) return true;
  const swapped = i + 1 < typed.length && typed[i] === word[i + 1] && typed[i + 1] === word[i];
  return swapped && word.startsWith(tails[i + 2] as string, i + 2);
}

/** What was typed from each of its letters on; the last is empty. @example tailsOf('ab')  // ['ab', 'b', ''] */
export const tailsOf = (typed: string): string[] => Array.from({ length: typed.length + 1 }, (_, i) => typed.slice(i));
