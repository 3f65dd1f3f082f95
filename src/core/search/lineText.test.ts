import { isPackWord, lineReadings } from '.';

describe('a line typed into one field', () => {
  const first = (text: string) => lineReadings(text)[0];
  const reads = (text: string, words: string, quantity: string, pack: string) =>
    expect(lineReadings(text)).toContainEqual({ words, quantity, pack });

  test('quantity, pack and item in any order', () => {
    expect(first('6 bag fen moss')).toEqual({ words: 'fen moss', quantity: '6', pack: 'bag' });
    reads('fen moss 6 bag', 'fen moss', '6', 'bag');
    reads('bag fen moss 6', 'fen moss', '6', 'bag');
    reads('fen moss bag 6', 'fen moss', '6', 'bag');
  });

  test('a number and a quantity: the shorter is the quantity first, the longer one is tried as well', () => {
    expect(lineReadings('10412-07 60')).toEqual([
      { words: '10412-07', quantity: '60', pack: '' },
      { words: '10412-07 60', quantity: '', pack: '' },
    ]);
    expect(lineReadings('60010 6').map((r) => [r.words, r.quantity])).toEqual([
      ['60010', '6'],
      ['6', '60010'],
      ['60010 6', ''],
    ]);
  });

  test('a barcode is no quantity, cloth is typed by the tenth, "6x" is 6', () => {
    expect(lineReadings('4006381333931')).toEqual([{ words: '4006381333931', quantity: '', pack: '' }]);
    reads('linen 2,5', 'linen', '2,5', '');
    reads('6x linen', 'linen', '6', '');
    expect(lineReadings('  ')).toEqual([]);
  });

  test('names with figures in them can be read without a quantity', () => {
    const all = lineReadings('needle 4 mm');
    expect(all.at(-1)).toEqual({ words: 'needle 4 mm', quantity: '', pack: '' });
    expect(all[0]).toEqual({ words: 'needle', quantity: '4', pack: 'mm' });
  });

  test.each([
    ['bag', 'bag of 10', true],
    ['Bags', 'bag', true],
    ['box', 'box of 6', true],
    ['boxes', 'box', true],
    ['b', 'bag', false],
    ['ball', 'bag', false],
    ['carton', 'carton', true],
    ['car', 'carton', true],
  ])('%s for %s: %s', (word, name, is) => {
    expect(isPackWord(word, name)).toBe(is);
  });
});
