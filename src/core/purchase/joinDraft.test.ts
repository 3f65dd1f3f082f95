import { draftsThatFit, draftToJoin, type OpenDraft } from './joinDraft';

const draft = (id: number, change: Partial<OpenDraft> = {}): OpenDraft => ({
  ...{ id, begun: '2026-11-20', orderDate: '2026-11-20', places: [4], wanted: ['2026-11-30'] },
  ...change,
});
const tray = { places: [4] as readonly number[] | 'all', arrives: '2026-12-01', today: '2026-11-23' };

test('a draft to the same place that fits the date is joined, the one begun last', () => {
  const all = [draft(1), draft(2, { begun: '2026-11-23' }), draft(3, { begun: '2026-11-21' })];
  expect(draftsThatFit(all, tray).map((d) => d.id)).toEqual([2, 3, 1]);
});

test.each([
  ['goes elsewhere', { places: [1, 2] }],
  ['goes out later', { orderDate: '2026-12-14' }],
  ['wants something much later', { wanted: ['2026-11-30', '2027-03-01'] }],
])('a draft that %s is left alone', (_, change) => expect(draftsThatFit([draft(1, change)], tray)).toEqual([]));

test('an order that its supplier knows is joined only when somebody says so', () => {
  const told = draft(1, { told: '2611-0001' });
  expect(draftsThatFit([told], tray)).toEqual([]);
  expect(draftToJoin([], [told], { kind: 'by_rule' })).toBeNull();
  expect(draftToJoin([], [told], { kind: 'joins', id: 1 })).toBe(told);
});

test('where orders are for all places, any place fits', () =>
  expect(draftsThatFit([draft(1, { places: [1] })], { ...tray, places: 'all' })).toHaveLength(1));

test('a part wanted within a week of the arrival is one delivery; a day more is another', () => {
  expect(draftsThatFit([draft(1, { wanted: ['2026-12-08'] })], tray)).toHaveLength(1);
  expect(draftsThatFit([draft(1, { wanted: ['2026-12-09'] })], tray)).toHaveLength(0);
});

test('what is said of a tray goes before the rule; a chosen draft that is gone gives way to it', () => {
  const [one, two] = [draft(1), draft(2, { places: [9] })];
  expect(draftToJoin([one], [one, two], { kind: 'by_rule' })).toBe(one);
  expect(draftToJoin([one], [one, two], { kind: 'new' })).toBeNull();
  expect(draftToJoin([one], [one, two], { kind: 'joins', id: 2 })).toBe(two);
  expect(draftToJoin([one], [one], { kind: 'joins', id: 2 })).toBe(one);
  expect(draftToJoin([], [], { kind: 'by_rule' })).toBeNull();
});
