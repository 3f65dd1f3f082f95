import { beginsWithOneSlip, tailsOf } from './oneSlip';

/** Text as it is compared: without capitals and accents, in words of letters and digits. */
export const plainWords = (text: string): string[] =>
  text
    .normalize('NFKD')
    .replace(/[\u0300-\u036f]/g, '')
    .toLowerCase()
    .split(/[^\p{L}\p{N}]+/u)
    .filter((w) => w !== '');

/** What can be found: its words of the name, and its numbers as they are, in small letters. */
export type Findable = { readonly id: number; readonly words: readonly string[]; readonly numbers: readonly string[] };

/** Things to be searched, with every different word of their names once: what is typed is compared with words, not with names. */
export type SearchIndex = {
  readonly things: readonly Findable[];
  readonly words: readonly string[];
  /** Of each thing, where its words stand, and its numbers in one text, each between two marks. */
  readonly wordsOf: readonly (readonly number[])[];
  readonly numbersOf: readonly string[];
};

const MARK = '\u001f';

export function searchIndex(things: readonly Findable[]): SearchIndex {
  const at = new Map<string, number>();
  const place = (word: string) => {
    const known = at.get(word);
    if (known !== undefined) return known;
    at.set(word, at.size);
    return at.size - 1;
  };
  const wordsOf = things.map((t) => t.words.map(place));
  const numbersOf = things.map((t) => `${MARK}${t.numbers.join(MARK)}${MARK}`);
  return { things, words: [...at.keys()], wordsOf, numbersOf };
}

const FORGIVEN_FROM = 5;
const BEGINNING = 1;
const NUMBER = 2;
const PART = 3;
const SLIP = 4;

/** How well each word fits what was typed, 0 where it does not: it begins with it, holds it, or, when slips are asked for and
 *  it has five letters or more, it (or its beginning) is one wrong, missing, extra or swapped letter away.
 *  Source of the slip: Damerau 1964 (see oneSlip). */
function fitOfWords(words: readonly string[], typed: string, slipsToo: boolean): Uint8Array {
  const fits = new Uint8Array(words.length);
  const tails = tailsOf(typed);
  const forgiving = slipsToo && typed.length >= FORGIVEN_FROM;
  for (let i = 0; i < words.length; i += 1) {
    const word = words[i] as string;
    if (word.startsWith(typed)) fits[i] = BEGINNING;
    else if (typed.length >= 3 && word.includes(typed)) fits[i] = PART;
    else if (forgiving && word.length >= FORGIVEN_FROM - 1 && beginsWithOneSlip(word, tails)) fits[i] = SLIP;
  }
  return fits;
}

/** Ids of what fits the text, the best first, ties in the order given. Every word typed must fit: a word of the name or a number
 *  that holds it. Exact numbers go first, then beginnings, then parts; slips are looked for only when nothing fits exactly, so
 *  that a right word never brings its neighbours. Nothing typed = all. */
export function searched(index: SearchIndex, text: string, most = Number.POSITIVE_INFINITY): number[] {
  if (text.trim() === '') return index.things.map((t) => t.id);
  const exact = fitting(index, text, false);
  const found = exact.length > 0 ? exact : fitting(index, text, true);
  return found
    .sort((a, b) => a.fit - b.fit || a.at - b.at)
    .slice(0, most)
    .map((f) => index.things[f.at]?.id as number);
}

function fitting(index: SearchIndex, text: string, slipsToo: boolean): { at: number; fit: number }[] {
  const whole = text.trim().toLowerCase();
  const typed = plainWords(text);
  const fits = typed.map((word) => fitOfWords(index.words, word, slipsToo));
  const found: { at: number; fit: number }[] = [];
  for (let at = 0; at < index.things.length; at += 1) {
    const fit = closeness(index, at, typed, fits, whole);
    if (fit !== null) found.push({ at, fit });
  }
  return found;
}

/** How well the thing at this place fits, null when it does not; lower is better. A name that begins with what was typed goes
 *  before one that holds it later. */
function closeness(
  index: SearchIndex,
  at: number,
  typed: readonly string[],
  fits: readonly Uint8Array[],
  whole: string,
): number | null {
  const numbers = index.numbersOf[at] as string;
  if (numbers.includes(`${MARK}${whole}`)) {
    if (numbers.includes(`${MARK}${whole}${MARK}`)) return 0;
    if (whole.length >= 3) return 1;
  }
  const own = index.wordsOf[at] as readonly number[];
  let worst = 0;
  for (let i = 0; i < typed.length; i += 1) {
    const fit = fits[i] as Uint8Array;
    let best = 0;
    for (let k = 0; k < own.length; k += 1) {
      const f = fit[own[k] as number] as number;
      if (f !== 0 && (best === 0 || f < best)) best = f;
    }
    const word = typed[i] as string;
    if (best !== BEGINNING && word.length >= 2 && numbers.includes(word)) best = NUMBER;
    if (best === 0) return null;
    if (best > worst) worst = best;
  }
  const first = own[0] === undefined ? '' : (index.words[own[0]] as string);
  return typed.length === 0 ? null : worst * 10 + (first.startsWith(typed[0] as string) ? 2 : 3);
}
