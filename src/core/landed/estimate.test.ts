import { fraction } from '@/core/units';
import { chargeSentence, landedCost, landedPerUnit, type UsualCharge, usualCharges, weightOf } from '.';

const usual = (name: string, position: number, more: Partial<UsualCharge>): UsualCharge => ({
  ...{
    name,
    position,
    sign: 'charge',
    amountKind: 'fixed',
    amount: null,
    currency: '',
    onCharges: [],
    spread: 'value',
  },
  ...{ into: 'stock' },
  ...more,
});
const none = { payer: null, fixed: null, perKg: null, freeFrom: null } as const;

describe('freight by the terms of a supplier', () => {
  const terms = { payer: 'prepaid', fixed: '9.50', perKg: '0.40', freeFrom: '750' } as const;
  const at = (net: number, weight = fraction(12)) =>
    usualCharges([], terms, { net, weight, currency: 'EUR' }).charges.map((c) => [c.name, c.amount]);
  test('a sum and a rate per kilogram: 9.50 and 12 kg at 0.40', () =>
    expect(at(74_999)).toEqual([
      ['Freight', { kind: 'fixed', minor: 950, currency: 'EUR' }],
      ['Freight by weight', { kind: 'fixed', minor: 480, currency: 'EUR' }],
    ]));
  test('free from its value on', () => expect(at(75_000)).toEqual([]));
  test('without weights freight by weight is left out and said', () => {
    const { charges, noWeight } = usualCharges([], terms, { net: 1000, weight: null, currency: 'EUR' });
    expect(charges.map((c) => [c.name, c.spread])).toEqual([['Freight', 'value']]);
    expect(noWeight).toBe(true);
  });
});

test('charges in their order; one that is asked each time counts its usual amount, or is named', () => {
  const { charges, asked } = usualCharges(
    [
      usual('Duty', 3, { amountKind: 'duty', onCharges: ['Sea freight', 'Insurance'] }),
      usual('Sea freight', 1, { amountKind: 'asked', amount: '180', currency: 'USD', spread: 'weight' }),
      usual('Insurance', 2, { amountKind: 'percent', amount: '0.5', onCharges: ['Sea freight'] }),
      usual('Fee', 4, { amountKind: 'asked', into: 'expense' }),
      usual('Bonus', 5, { sign: 'allowance', amountKind: 'percent', amount: '2' }),
    ],
    none,
    { net: 100_000, weight: fraction(50), currency: 'JPY' },
  );
  expect(charges.map((c) => [c.name, c.sign, c.amount, c.spread, c.into])).toEqual([
    ['Sea freight', 1, { kind: 'fixed', minor: 18_000, currency: 'USD' }, 'weight', 'stock'],
    ['Insurance', 1, { kind: 'percent', percent: '0.5', and: [0] }, 'value', 'stock'],
    ['Duty', 1, { kind: 'duty', and: [0, 1] }, 'duty', 'stock'],
    ['Fee', 1, { kind: 'fixed', minor: 0, currency: 'JPY' }, 'value', 'expense'],
    ['Bonus', -1, { kind: 'percent', percent: '2', and: [] }, 'value', 'stock'],
  ]);
  expect(asked).toEqual(['Fee']);
});

/* Worked by hand: 60 needles at 491 JPY = 29,460 JPY; 160 JPY a EUR: 184.125 → 184.13 EUR. Air freight 3,000 JPY = 18.75.
 * Insurance 1 % of 184.13 + 18.75 = 202.88: 2.0288 → 2.03. Duty 3.8 % of 184.13 + 18.75 + 2.03 = 204.91: 7.78658 → 7.79.
 * Landed 184.13 + 18.75 + 2.03 + 7.79 = 212.70, a needle 3.545. */
test('an estimate from list to shelf (cost, insurance, freight, duty: common practice)', () => {
  const quantity = 60_000_000;
  const weight = weightOf('0.012', quantity);
  const { charges } = usualCharges(
    [
      usual('Air freight', 1, { amount: '3000', spread: 'weight' }),
      usual('Insurance', 2, { amountKind: 'percent', amount: '1', onCharges: ['Air freight'] }),
      usual('Duty', 3, { amountKind: 'duty', onCharges: ['Air freight', 'Insurance'] }),
    ],
    none,
    { net: 29_460, weight, currency: 'JPY' },
  );
  const line = { net: 29_460, quantity, weight, volume: null, dutyPercent: '3.8', stock: true };
  const cost = landedCost({ base: 'EUR', currency: 'JPY', rate: fraction(1, 160), lines: [line], charges });
  expect(cost.lines[0]).toMatchObject({ goods: 18_413, shares: [1875, 203, 779], landed: 21_270 });
  expect(landedPerUnit(cost.landed, quantity, 'EUR', 4)).toBe('3.5450');
});

test.each([
  [
    { name: 'Sea freight', amount_kind: 'asked each time', spread: 'weight', into_cost: 'stock cost' },
    'Sea freight: asked each time, by weight, into stock cost',
  ],
  [
    { name: 'Bonus', sign: 'allowance', amount_kind: 'percent', amount: '2', spread: 'value', into_cost: 'stock cost' },
    'Bonus: taken off, 2 % of goods, by value, into stock cost',
  ],
  [
    {
      name: 'Duty',
      amount_kind: 'duty rate',
      on_charges: 'Freight; Insurance',
      spread: 'value',
      into_cost: 'stock cost',
    },
    'Duty: the duty rate of each item, of goods and Freight, Insurance, into stock cost',
  ],
  [
    {
      ...{ name: 'Agent', amount_kind: 'fixed', amount: '38', currency: 'EUR', spread: 'evenly' },
      ...{ into_cost: 'an expense account', account: '6200' },
    },
    'Agent: 38 EUR an order, evenly, into an expense account 6200',
  ],
])('a charge in a sentence', (cells, sentence) =>
  expect(chargeSentence(cells as Record<string, string>)).toBe(sentence),
);
