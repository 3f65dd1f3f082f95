/** One way to read a line that was typed into one field. */
export type LineReading = {
  /** What says which item. */
  readonly words: string;
  /** As typed; '' when no quantity is said. */
  readonly quantity: string;
  /** What may be the name of a pack; '' when none is said. */
  readonly pack: string;
};

/** A number of up to six digits that a person would type as a quantity, perhaps with an "x" behind it. */
const QUANTITY = /^(\d{1,6}(?:[.,]\d{1,6})?)[x×]?$/i;
/** Readings that are tried; more words than a line has make no sense. */
const MOST_WORDS = 12;

/** The ways to read a line in which quantity, pack and item stand in any order, the likeliest first: with a quantity and a
 *  pack, the pack beside the quantity before others; with a quantity; as an item alone. Whether an item and a pack of that
 *  name are there decides. The shortest number is taken for the quantity first, since item numbers are longer.
 *  @example lineReadings('6 bag fen moss')[0]  // { words: 'fen moss', quantity: '6', pack: 'bag' } */
export function lineReadings(text: string): LineReading[] {
  const typed = text.trim().split(/\s+/).filter(Boolean).slice(0, MOST_WORDS);
  const without = (...out: number[]) => typed.filter((_, i) => !out.includes(i)).join(' ');
  const numbers = typed
    .flatMap((word, i) => {
      const quantity = QUANTITY.exec(word)?.[1];
      return quantity === undefined ? [] : [{ i, quantity }];
    })
    .sort((a, b) => a.quantity.length - b.quantity.length || a.i - b.i);
  const readings: LineReading[] = [];
  for (const { i, quantity } of numbers) {
    const packs = typed.map((_, p) => p).filter((p) => p !== i);
    packs.sort((a, b) => Math.abs(a - i) - Math.abs(b - i) || b - a);
    for (const p of packs)
      if (typed.length > 2) readings.push({ words: without(i, p), quantity, pack: typed[p] as string });
    if (typed.length > 1) readings.push({ words: without(i), quantity, pack: '' });
  }
  if (typed.length > 0) readings.push({ words: typed.join(' '), quantity: '', pack: '' });
  return readings;
}

/** Whether a word means a pack or a unit of this name: its beginning, in the singular or plural.
 *  @example isPackWord('bags', 'bag of 10')  // true */
export function isPackWord(word: string, name: string): boolean {
  const [typed, own] = [word.toLowerCase(), name.toLowerCase()];
  if (typed.length < 2) return false;
  const first = own.split(/\s+/)[0] as string;
  return first.startsWith(typed) || typed === `${first}s` || typed === `${first}es` || own === typed;
}
