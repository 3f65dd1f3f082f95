import { sortedBy } from './use-grid-view.client';

test('a list in another order keeps its search and place; what is empty is left out', () => {
  const href = sortedBy('/items', { q: 'fen & moss', at: '' });
  expect(href('number')).toBe('/items?sort=number&q=fen+%26+moss');
  expect(sortedBy('/orders', { show: '' })('newest')).toBe('/orders?sort=newest');
});
