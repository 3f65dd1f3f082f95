import { groupTitle, isNarrowed, type NeedQuery, needsHref } from './query';

const all: NeedQuery = { at: '', q: '', show: 'open', cause: '', by: 'supplier', mine: false };

test('an address holds what is asked for and nothing that is usual', () => {
  expect(needsHref(all)).toBe('/needs');
  expect(needsHref(all, { by: 'urgent', mine: true, q: 'fen moss' })).toBe('/needs?q=fen+moss&by=urgent&mine=1');
  expect(needsHref({ ...all, cause: 'customer_waits', show: 'late', at: 'OM' }, { show: 'open' })).toBe(
    '/needs?at=OM&cause=customer_waits',
  );
});

test('only what leaves needs out narrows the list; its order and its place do not', () => {
  expect(isNarrowed({ ...all, by: 'urgent', at: 'OM' })).toBe(false);
  for (const change of [{ q: 'x' }, { show: 'new' }, { cause: 'by_hand' }, { mine: true }] as const)
    expect(isNarrowed({ ...all, ...change })).toBe(true);
});

test('the head of a group says what its needs have in common', () => {
  expect(groupTitle('cause', 'below_min')).toBe('below min');
  expect(groupTitle('buyer', null)).toBe('Nobody is responsible');
  expect(groupTitle('category', 'Yarn > Merino')).toBe('Yarn > Merino');
});
