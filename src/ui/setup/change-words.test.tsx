import { renderToStaticMarkup } from 'react-dom/server';
import { ChangeWords } from './change-words';

const shown = (action: string, before: unknown, after: unknown) =>
  renderToStaticMarkup(
    <ChangeWords
      change={{
        action,
        before: before === null ? null : JSON.stringify(before),
        after: after === null ? null : JSON.stringify(after),
      }}
    />,
  ).replace(/<[^>]*>/g, '');

test('a field that changed says both, a price with its cents; one that only one side has stands as it is', () => {
  expect(shown('prices', { item: '10412-07', amount: '32.8' }, { item: '10412-07', amount: '32.90' })).toBe(
    'prices: item 10412-07, amount 32.80 → 32.90',
  );
  expect(shown('line 2: price', '24.75', '24.1')).toBe('line 2: price: 24.75 24.10');
});

test('quantities lose the zeros of their decimals; yes, no and nothing are words; lists stand in a row', () => {
  expect(shown('min_max', { min: '20.000000', max: '80.500000' }, { min: '25.000000', max: null })).toBe(
    'min_max: min 20 → 25, max 80.5 → empty',
  );
  expect(shown('items', { stock_kept: true }, { stock_kept: false })).toBe('items: stock kept yes → no');
  expect(shown('role', null, { rights: ['orders.edit', 'orders.send'], people: [] })).toBe(
    'role: rights orders.edit, orders.send, people none',
  );
});

test('lines of a document stand one after the other, each with its fields', () => {
  const lines = [
    { line: 1, approved: '10.000000' },
    { line: 2, approved: '0' },
  ];
  expect(shown('approved', null, { lines })).toBe('approved: lines line 1 approved 10, line 2 approved 0');
});

test('what nobody filled in is not spoken of, and of many fields the first fourteen are', () => {
  expect(shown('items', { maker: '' }, { maker: null })).toBe('items');
  const many = Object.fromEntries(Array.from({ length: 17 }, (_, i) => [`f${i}`, i]));
  expect(shown('items', null, many)).toMatch(/f13 13 and 3 more$/);
});

test('what is no JSON is shown as it was kept', () => {
  expect(renderToStaticMarkup(<ChangeWords change={{ action: 'sent', before: null, after: 'by phone' }} />)).toBe(
    'sent:  by phone',
  );
});
