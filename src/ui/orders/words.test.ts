import { Format } from '../format';
import { chargeOrigin, differenceWords, differsWords } from './words';

const format = new Format('en-GB');
type Difference = Parameters<typeof differenceWords>[0];
type Charge = Parameters<typeof chargeOrigin>[0];
const difference = (d: object) => differenceWords({ lineNo: 1, packName: 'bag', ...d } as Difference, format);
const charge = (c: object): Charge =>
  ({
    ...{ amountKind: 'sum', amount: '140', currency: 'EUR', spread: 'weight', onCharges: [], onlyLines: [] },
    ...{ origin: 'supplier', billed: true, into: 'stock', differs: [], usual: null },
    ...c,
  }) as unknown as Charge;

test('what an order says otherwise than its supplier was told', () => {
  expect(difference({ kind: 'added', now: 6_000_000 })).toBe('added, 6 bags');
  expect(difference({ kind: 'taken_off', was: 1_000_000 })).toBe('taken off, was 1 bag');
  expect(difference({ kind: 'quantity', was: 6_000_000, now: 8_000_000 })).toBe('6 bags → 8 bags');
  expect(difference({ kind: 'price', was: '32.8', now: null })).toBe('price 32.80 → no price');
  expect(difference({ kind: 'discount', was: '0', now: '7.5' })).toBe('discount 0 % → 7.5 %');
  expect(difference({ kind: 'date', was: ['2026-12-01'], now: [] })).toBe('wanted Tue 1 Dec → no day');
  expect(difference({ kind: 'place' })).toBe('for other places');
});

test('how much a charge is, and by what it is spread', () => {
  expect(chargeOrigin(charge({}), format)).toBe('140.00 EUR, by weight');
  expect(chargeOrigin(charge({ amountKind: 'percent', amount: '1.5', onCharges: ['Sea freight'] }), format)).toBe(
    '1.5 % of goods and Sea freight, by weight',
  );
  expect(chargeOrigin(charge({ amount: null, onlyLines: [2, 3] }), format)).toBe(
    'asked each time, not known yet, by weight, lines 2, 3',
  );
  expect(chargeOrigin(charge({ origin: 'freight_terms' }), format)).toBe('by their freight terms, by weight');
  expect(chargeOrigin(charge({ amountKind: 'duty', amount: null }), format)).toBe('duty of each item, of goods');
});

test('in what a charge is another than is usual', () => {
  const usual = { amountKind: 'sum', amount: '140', spread: 'weight', into: 'stock' };
  const differs = ['amount', 'spread', 'into', 'lines', 'billed'];
  expect(differsWords(charge({ usual, differs, billed: false }), format)).toEqual([
    'usually 140.00',
    'usually by weight',
    'usually cost of the goods',
    'usually on their bill',
  ]);
  expect(differsWords(charge({ differs: ['added'] }), format)).toEqual(['on this order only']);
});
