import { fraction } from '@/core/units';
import {
  chargeDifferences,
  chargesToSpread,
  effectiveCharges,
  type OrderCharge,
  standingCharges,
  type UsualCharge,
} from '.';

const none = { payer: null, fixed: null, perKg: null, freeFrom: null } as const;
const usual: UsualCharge = {
  ...{ name: 'Sea freight', position: 1, sign: 'charge', amountKind: 'asked', amount: '140.00', currency: 'USD' },
  ...{ onCharges: [], spread: 'volume', into: 'stock' },
};
const duty: UsualCharge = {
  ...usual,
  name: 'Duty',
  position: 2,
  amountKind: 'duty',
  amount: null,
  currency: '',
  onCharges: ['Sea freight'],
};
const order = { net: 50_000, weight: fraction(20), currency: 'USD' };
const standing = standingCharges([duty, usual], none, order);
const [freight] = standing as [OrderCharge];

describe('the charges that an order has of itself', () => {
  test('usual ones by position; duty is never on the supplier’s bill', () =>
    expect(standing.map((c) => [c.name, c.amountKind, c.amount, c.billed, c.origin])).toEqual([
      ['Sea freight', 'fixed', '140.00', true, 'usual'],
      ['Duty', 'duty', null, false, 'usual'],
    ]));
  test('a sum in another currency is somebody else’s bill', () =>
    expect(standingCharges([{ ...usual, currency: 'EUR' }], none, order)[0]?.billed).toBe(false));

  // Source: freight prepaid (the seller pays the carrier), collect (the receiver does), common practice.
  test.each([
    ['prepaid', true],
    [null, true],
    ['collect', false],
    ['third_party', false],
  ] as const)('freight by the terms, %s: on the bill %s', (payer, billed) => {
    const terms = { payer, fixed: '9.50', perKg: '0.40', freeFrom: '750' };
    const found = standingCharges([], terms, { net: 74_999, weight: fraction(12), currency: 'EUR' });
    expect(found.map((c) => [c.name, c.amount, c.billed])).toEqual([
      ['Freight', '9.50', billed],
      ['Freight by weight', '4.80', billed],
    ]);
    expect(standingCharges([], terms, { net: 75_000, weight: fraction(12), currency: 'EUR' })).toEqual([]);
  });
});

describe('another on one order', () => {
  const own = (more: Partial<OrderCharge>): OrderCharge => ({ ...freight, ...more });
  const fee = own({ name: 'Small order fee', position: 9, amount: '12', origin: 'by_hand' });
  test('takes the place of the usual one; what was added comes after', () =>
    expect(effectiveCharges(standing, [fee, own({ amount: '90' })]).map((c) => [c.name, c.amount])).toEqual([
      ['Sea freight', '90'],
      ['Duty', null],
      ['Small order fee', '12'],
    ]));
  test.each([
    [own({}), []],
    [own({ amount: '140' }), []],
    [own({ amount: '90' }), ['amount']],
    [own({ amount: '90', spread: 'weight' }), ['amount', 'spread']],
    [own({ sign: 'allowance' }), ['amount']],
    [own({ currency: 'EUR' }), ['amount']],
    [own({ onlyLines: [2] }), ['lines']],
    [own({ billed: false, into: 'expense' }), ['billed', 'into']],
    [own({ leftOut: true }), ['left_out']],
    [own({ amount: null }), ['amount']],
  ] as const)('%#: differs in %p', (c, expected) => expect(chargeDifferences(c, freight)).toEqual(expected));
  test('one that its supplier does not have is added', () =>
    expect(chargeDifferences(fee, undefined)).toEqual(['added']));
});

describe('as they are spread', () => {
  test('one left out is counted by no other either; lines are named by their numbers', () => {
    const charges = effectiveCharges(standing, [{ ...freight, onlyLines: [7, 3] }]);
    expect(chargesToSpread(charges, [1, 3, 7])).toMatchObject([
      { name: 'Sea freight', sign: 1, lines: [2, 1], amount: { kind: 'fixed', minor: 14_000, currency: 'USD' } },
      { name: 'Duty', spread: 'duty', lines: null, amount: { kind: 'duty', and: [0] } },
    ]);
    const without = effectiveCharges(standing, [{ ...freight, leftOut: true }]);
    expect(chargesToSpread(without, [1])).toMatchObject([{ name: 'Duty', amount: { kind: 'duty', and: [] } }]);
  });
  test('an allowance takes off; one that was not given yet counts 0', () => {
    const off = { ...freight, sign: 'allowance', amountKind: 'percent', amount: '2' } as const;
    expect(chargesToSpread([off, { ...freight, amount: null }], [1])).toMatchObject([
      { sign: -1, amount: { kind: 'percent', percent: '2' } },
      { sign: 1, amount: { kind: 'fixed', minor: 0 } },
    ]);
  });
});
