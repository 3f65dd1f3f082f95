import { type Completeness, whatIsMissing } from '.';

const whole: Completeness = {
  ...{ categoryNamed: true, sources: 1, pricedSources: 1, standardCost: null, policies: 1, salePrice: '5.95' },
  ...{ barcodes: 1, stockKept: true, purpose: 'resale', components: 0 },
};

test('nothing is missing of an item that has it all', () => expect(whatIsMissing(whole)).toEqual([]));

test('a name, a unit and a price alone', () => {
  const bare = { ...whole, categoryNamed: false, sources: 0, pricedSources: 0, policies: 0, barcodes: 0 };
  expect(whatIsMissing(bare)).toEqual(['category', 'supplier', 'policy', 'barcode']);
});

test('what does not apply is not asked for', () => {
  const bags = { ...whole, purpose: 'own_use' as const, salePrice: null, barcodes: 0 };
  expect(whatIsMissing(bags)).toEqual([]);
  expect(whatIsMissing({ ...whole, stockKept: false, policies: 0 })).toEqual([]);
  expect(whatIsMissing({ ...whole, sources: 0, components: 3 })).toEqual([]);
  expect(whatIsMissing({ ...whole, pricedSources: 0 })).toEqual(['price']);
  expect(whatIsMissing({ ...whole, pricedSources: 0, standardCost: '2.85' })).toEqual([]);
});
