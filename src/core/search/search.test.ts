import fc from 'fast-check';
import { beginsWithOneSlip, type Findable, plainWords, searched as searchedIn, searchIndex, tailsOf } from '.';

const searched = (things: readonly Findable[], text: string) => searchedIn(searchIndex(things), text);

const things: Findable[] = [
  ['Fen merino 4-ply, moss', '10412-07', 'HOL-207'],
  ['Marl sock yarn, pine', '10530-07'],
  ['Sewing thread 200 m, moss', '29000-03'],
  ['Crème brûlée ribbon', '25100-09'],
].map(([name, ...numbers], i) => ({
  id: i + 1,
  words: plainWords(name as string),
  numbers: numbers.map((n) => n.toLowerCase()),
}));

test.each([
  ['10412-07', [1]],
  ['hol-207', [1]],
  ['1041', [1]],
  ['moss', [1, 3]],
  ['moss thread', [3]],
  ['creme', [4]],
  ['erino', [1]],
  ['zzz', []],
])('%s finds %j', (text, ids) => expect(searched(things, text)).toEqual(ids));

test.each([
  ['a wrong letter', 'merano'],
  ['a missing letter', 'meino'],
  ['an extra letter', 'merrino'],
  ['two swapped', 'meirno'],
  ['one slip in a beginning', 'merni'],
])('forgives %s: %s', (_, text) => expect(searched(things, text)).toEqual([1]));

test('short words and two slips are not forgiven; what fits exactly keeps slips out', () => {
  expect(searched(things, 'mosk')).toEqual([]);
  expect(searched(things, 'miranu')).toEqual([]);
  const near = [...things, { id: 9, words: ['thready'], numbers: [] }];
  expect(searched(near, 'thread')).toEqual([9, 3]);
  expect(searched([...things, { id: 9, words: ['threat'], numbers: [] }], 'thread')).toEqual([3]);
});

test('any one slip of a word of five letters or more finds it', () => {
  const letters = 'abcdefghij';
  fc.assert(
    fc.property(fc.stringMatching(/^[a-j]{5,9}$/), fc.nat(8), fc.nat(3), fc.nat(9), (word, at, how, letter) => {
      const i = at % word.length;
      const [head, tail] = [word.slice(0, i), word.slice(i)];
      const x = letters[letter] as string;
      const slip = [
        head + x + tail.slice(1),
        head + tail.slice(1),
        head + x + tail,
        head + (tail[1] ?? '') + tail[0] + tail.slice(2),
      ][how];
      if (slip === undefined || slip.length < 5) return;
      expect(beginsWithOneSlip(word, tailsOf(slip))).toBe(true);
      expect(searched([{ id: 1, words: [word], numbers: [] }], slip)).toEqual([1]);
    }),
  );
});

test('what is two slips away is not taken for one', () => {
  for (const [typed, word] of [
    ['miranu', 'merino'],
    ['thraed', 'thermal'],
    ['abcdefg', 'abxdexg'],
    ['sockk', 'snack'],
    ['rbibno', 'ribbon'],
    ['aaaaa', 'bbbbb'],
  ] as const)
    expect([typed, beginsWithOneSlip(word, tailsOf(typed))]).toEqual([typed, false]);
});
