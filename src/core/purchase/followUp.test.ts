import { concernsOf, type Followed } from '.';

const TODAY = '2026-11-23';
const order = (more: Partial<Followed>): Followed => ({
  ...{ state: 'sent', sentOn: '2026-11-20', next: '2026-12-01', differs: false, nextContact: null },
  ...more,
});
const concerns = (more: Partial<Followed>) => concernsOf(order(more), TODAY, 3);

describe('what has to be done about an order', () => {
  test('not confirmed: after so many days, not on the last of them, and not once it is confirmed', () => {
    expect(concerns({ sentOn: '2026-11-20' })).toEqual([]);
    expect(concerns({ sentOn: '2026-11-19' })).toEqual(['unconfirmed']);
    expect(concerns({ sentOn: '2026-11-19', state: 'confirmed' })).toEqual([]);
    expect(concerns({ sentOn: '2026-11-19', state: 'amending' })).toEqual([]);
    expect(concerns({ sentOn: '2026-11-19', next: null })).toEqual([]);
  });

  test('overdue from the day after it was expected', () => {
    expect(concerns({ next: TODAY })).toEqual([]);
    expect(concerns({ next: '2026-11-22' })).toEqual(['late']);
    expect(concerns({ next: null })).toEqual([]);
  });

  test('confirmed otherwise, and to be asked again', () => {
    expect(concerns({ state: 'confirmed', differs: true })).toEqual(['differs']);
    // Everything of it came: it is no concern any more.
    expect(concerns({ state: 'confirmed', differs: true, next: null })).toEqual([]);
    expect(concerns({ nextContact: TODAY })).toEqual(['ask']);
    expect(concerns({ nextContact: '2026-11-24' })).toEqual([]);
  });

  test('waiting for approval, as a draft or as a change', () => {
    expect(concerns({ state: 'awaiting' })).toEqual(['approve']);
    expect(concerns({ state: 'amendment_awaiting', next: '2026-11-20' })).toEqual(['approve', 'late']);
  });

  test.each(['draft', 'closed', 'cancelled', 'put_back'] as const)('%s: nothing', (state) => {
    expect(concerns({ state, next: '2026-11-01', differs: true, nextContact: '2026-11-01' })).toEqual([]);
  });
});
