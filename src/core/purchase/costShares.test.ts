import { costByShare, costSharesText, parseCostShares } from '.';

describe('where the cost of a line goes, as typed', () => {
  test.each([
    ['', []],
    ['3400', [['3400', '', '100']]],
    ['3400 window', [['3400', 'window', '100']]],
    ['3400 Old Mill 100 %', [['3400', 'Old Mill', '100']]],
    [
      '3400 60, 4930 window 40',
      [
        ['3400', '', '60'],
        ['4930', 'window', '40'],
      ],
    ],
    [
      '3400 33.3 %; 3410 33.3%; 3420 33.4',
      [
        ['3400', '', '33.3'],
        ['3410', '', '33.3'],
        ['3420', '', '33.4'],
      ],
    ],
  ])('%s', (typed, expected) => {
    const read = parseCostShares(typed);
    expect(read.ok && read.value.map((s) => [s.account, s.department, s.percent])).toEqual(expected);
    // What is shown reads back as itself.
    if (read.ok) expect(parseCostShares(costSharesText(read.value))).toEqual(read);
  });
  test.each([
    ['window 60', { kind: 'no_account', text: 'window 60' }],
    ['3400 60', { kind: 'shares_not_whole', sum: '60' }],
    ['3400 60, 4930 50', { kind: 'shares_not_whole', sum: '110' }],
    ['3400, 4930 100', { kind: 'shares_not_whole', sum: '100' }],
  ])('%s is refused', (typed, error) => expect(parseCostShares(typed)).toEqual({ ok: false, error }));
});

test('three thirds of 100.00 add up', () => {
  const read = parseCostShares('1 33.333, 2 33.333, 3 33.334');
  expect(read.ok && costByShare(10_000, read.value)).toEqual([3333, 3333, 3334]);
  expect(costByShare(10_000, [])).toEqual([]);
});
