import { editsOf, withCells } from './use-policy-drafts.client';

const line = { itemId: 7, locationId: 1, own: { min: '20', max: '60' } };
const cell = (field: 'min' | 'max', text: string) => ({ index: 3, line, field, text });

test('a changed cell is kept with what was there; typed back it is no change', () => {
  const one = withCells(new Map(), [cell('min', '30')]);
  expect(editsOf(one.values())).toEqual([{ itemId: 7, locationId: 1, was: { min: '20' }, now: { min: '30' } }]);
  const two = withCells(one, [cell('max', '')]);
  expect(editsOf(two.values())[0]).toMatchObject({ was: { min: '20', max: '60' }, now: { min: '30', max: '' } });
  // The line may have been read again meanwhile: what was seen stays what it was.
  const later = { ...cell('min', '31'), line: { ...line, own: { min: '25' } } };
  expect(editsOf(withCells(two, [later]).values())[0]).toMatchObject({ was: { min: '20' } });
  expect(withCells(two, [cell('min', '20'), cell('max', '60')]).size).toBe(0);
});
