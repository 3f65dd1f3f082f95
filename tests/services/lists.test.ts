import { keepList, keptList } from '@/services/lists/listStore';

const list = (userId: number, count = 3) => ({ userId, kind: 'policies', count, data: { ids: [userId] } });

test('a list is there for the person who opened it, under its name and kind', () => {
  const name = keepList(list(1), 0);
  expect(name).toMatch(/^[\w-]{16}$/);
  expect(keptList(name, 1, 'policies', 1000)).toEqual(list(1));
  expect(keptList(name, 2, 'policies', 1000)).toBeNull();
  expect(keptList(name, 1, 'items', 1000)).toBeNull();
  expect(keptList('none', 1, 'policies', 1000)).toBeNull();
});

test('when there are many, the least used goes; what was not used for half an hour goes', () => {
  const first = keepList(list(1), 0);
  const second = keepList(list(1), 0);
  for (let n = 0; n < 58; n += 1) keepList(list(2), 10);
  expect(keptList(first, 1, 'policies', 20)).not.toBeNull();
  keepList(list(2), 30);
  expect(keptList(second, 1, 'policies', 40)).toBeNull();
  expect(keptList(first, 1, 'policies', 40)).not.toBeNull();
  keepList(list(2), 40 + 31 * 60_000);
  expect(keptList(first, 1, 'policies', 41 + 31 * 60_000)).toBeNull();
});
