import { moveOf } from './moves';

const list = { count: 100, page: 15, inField: false };

test('arrows go to the neighbour, Page by a page, Home and End to the ends; what comes first looks on inwards', () => {
  expect(moveOf('ArrowDown', 4, list)).toEqual({ to: 5, by: 1 });
  expect(moveOf('ArrowUp', 4, list)).toEqual({ to: 3, by: -1 });
  expect(moveOf('PageDown', 4, list)).toEqual({ to: 19, by: -1 });
  expect(moveOf('PageUp', 4, list)).toEqual({ to: 0, by: 1 });
  expect(moveOf('PageDown', 95, list)).toEqual({ to: 99, by: -1 });
  expect(moveOf('Home', 40, list)).toEqual({ to: 0, by: 1 });
  expect(moveOf('End', 40, list)).toEqual({ to: 99, by: -1 });
  expect(moveOf('x', 40, list)).toBeNull();
});

test('in a field the keys that move its caret are its own', () => {
  const field = { ...list, inField: true };
  for (const key of ['Home', 'End', 'PageUp', 'PageDown', 'ArrowLeft']) expect(moveOf(key, 4, field)).toBeNull();
  expect(moveOf('ArrowDown', 4, field)).toEqual({ to: 5, by: 1 });
});
