import { responsibleBuyer } from '.';

test.each([
  [
    { item: 'a', categories: ['b'], supplier: 'c' },
    { buyer: 'a', by: 'item' },
  ],
  [
    { item: null, categories: [null, 'b', 'x'], supplier: 'c' },
    { buyer: 'b', by: 'category' },
  ],
  [
    { item: null, categories: [null], supplier: 'c' },
    { buyer: 'c', by: 'supplier' },
  ],
  [{ item: null, categories: [], supplier: null }, null],
])('%j → %j', (named, expected) => expect(responsibleBuyer<string>(named)).toEqual(expected));
