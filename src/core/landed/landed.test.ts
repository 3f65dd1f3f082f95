import fc from 'fast-check';
import reference from '../../../tests/reference/landed.json';
import { decimalsOf, type Minor, minorToDecimal } from '../money';
import { decimalFraction, divideHalfUp, type Fraction, fraction, times } from '../units';
import { type Charge, type DutyRate, dutyRateOf, type LandedLine, landedCost, landedPerUnit } from '.';

const minor = (text: string, currency: string): Minor =>
  Number(times(decimalFraction(text), fraction(10n ** BigInt(decimalsOf(currency)))).num);
const half = (f: Fraction) => Number(divideHalfUp(f.num, f.den));
const fixed = (name: string, amount: string, currency: string, spread: Charge['spread']): Charge => ({
  name,
  sign: 1,
  amount: { kind: 'fixed', minor: minor(amount, currency), currency },
  spread,
  lines: null,
  into: 'stock',
});

// Source: tests/reference/landed.json: own script on exact fractions; duty on cost, insurance and freight: common practice.
test.each(reference.cases.map((c) => [c.id, c] as const))('%s', (_, { input, expected }) => {
  const { home_currency: base, goods_currency: currency } = input;
  const brokerage = 'brokerage' in input ? input.brokerage : undefined;
  const charges: Charge[] = [
    fixed('freight', input.freight.amount, input.freight.currency, 'weight'),
    {
      name: 'insurance',
      sign: 1,
      amount: { kind: 'percent', percent: input.insurance_percent ?? '0', and: [0] },
      spread: 'value',
      lines: null,
      into: 'stock',
    },
    { name: 'duty', sign: 1, amount: { kind: 'duty', and: [0, 1] }, spread: 'duty', lines: null, into: 'stock' },
    fixed('brokerage', brokerage?.amount ?? '0', base, brokerage?.by === 'value' ? 'value' : 'even'),
  ];
  const lines = input.lines.map((l): LandedLine => {
    const quantity = decimalFraction(l.quantity);
    const scale = fraction(10n ** BigInt(decimalsOf(currency)));
    return {
      net: half(times(times(quantity, decimalFraction(l.unit_price)), scale)),
      quantity: Number(times(quantity, fraction(1_000_000)).num),
      weight: times(quantity, decimalFraction(l.unit_weight)),
      volume: null,
      dutyPercent: l.duty_percent,
      stock: true,
    };
  });
  const cost = landedCost({
    base,
    currency,
    rate: decimalFraction(input.rate),
    lines,
    orderDiscountPercent: input.discount_percent ?? '0',
    charges,
  });
  const home = (m: Minor) => minorToDecimal(m, base);
  expect(
    cost.lines.map((l, i) => ({
      value_foreign: minorToDecimal(lines[i]?.net ?? 0, currency),
      discount_foreign: minorToDecimal(l.discount, currency),
      goods: home(l.goods),
      freight: home(l.shares[0] as number),
      insurance: home(l.shares[1] as number),
      duty: home(l.shares[2] as number),
      brokerage: home(l.shares[3] as number),
      landed: home(l.landed),
      landed_unit: landedPerUnit(l.landed, lines[i]?.quantity ?? 0, base, 6),
    })),
  ).toEqual(expected.lines.map(({ landed_unit_exact: _exact, ...l }) => l));
  expect([home(cost.goods), ...cost.charges.map((c) => home(c.amount)), home(cost.landed)]).toEqual([
    expected.totals.goods,
    expected.totals.freight,
    expected.totals.insurance,
    expected.totals.duty,
    expected.totals.brokerage,
    expected.totals.grand_total,
  ]);
  expect(cost.faults).toEqual([]);
});

const line = (net: number, more: Partial<LandedLine> = {}): LandedLine => ({
  net,
  quantity: 10_000_000,
  weight: fraction(1),
  volume: fraction(1),
  dutyPercent: '0',
  stock: true,
  ...more,
});
const eur = { base: 'EUR', currency: 'EUR', rate: fraction(1) };

describe('charges', () => {
  test('an allowance has its sign turned and may take landed below goods', () => {
    const rebate: Charge = { ...fixed('rebate', '5.00', 'EUR', 'value'), sign: -1 };
    const cost = landedCost({ ...eur, lines: [line(3000), line(1000)], charges: [rebate] });
    expect(cost.lines.map((l) => [l.shares[0], l.landed])).toEqual([
      [-375, 2625],
      [-125, 875],
    ]);
  });

  test('what goes to an expense account or can be recovered is spread, but is no stock cost', () => {
    const tax: Charge = { ...fixed('import tax', '19.00', 'EUR', 'value'), into: 'recoverable' };
    const fee: Charge = { ...fixed('fee', '4.00', 'EUR', 'even'), into: 'expense' };
    const cost = landedCost({ ...eur, lines: [line(5000), line(5000)], charges: [tax, fee] });
    expect(cost.lines.map((l) => [l.shares, l.landed])).toEqual([
      [[950, 200], 5000],
      [[950, 200], 5000],
    ]);
  });

  test('goods free of charge take no share by value, but theirs by weight', () => {
    const charges = [fixed('insurance', '3.00', 'EUR', 'value'), fixed('freight', '3.00', 'EUR', 'weight')];
    const cost = landedCost({ ...eur, lines: [line(0), line(2000)], charges });
    expect(cost.lines.map((l) => l.shares)).toEqual([
      [0, 150],
      [300, 150],
    ]);
  });

  test('a stock line without weight is said, and the charge goes by value; one that is no stock is no fault', () => {
    const freight = fixed('freight', '3.00', 'EUR', 'weight');
    const faulty = landedCost({ ...eur, lines: [line(1000), line(2000, { weight: null })], charges: [freight] });
    expect(faulty.faults).toEqual([{ kind: 'no_weight', line: 1, charge: 0 }]);
    expect(faulty.charges).toEqual([{ amount: 300, spread: 'value' }]);
    expect(faulty.lines.map((l) => l.shares[0])).toEqual([100, 200]);
    const service = landedCost({
      ...eur,
      lines: [line(1000), line(2000, { weight: null, stock: false })],
      charges: [freight],
    });
    expect(service.faults).toEqual([]);
    expect(service.lines.map((l) => l.shares[0])).toEqual([300, 0]);
  });

  test('over chosen lines only', () => {
    const cost = landedCost({
      ...eur,
      lines: [line(1000), line(1000), line(1000)],
      charges: [{ ...fixed('pallet', '1.00', 'EUR', 'volume'), lines: [0, 2] }],
    });
    expect(cost.lines.map((l) => l.shares[0])).toEqual([50, 0, 50]);
  });

  test('a charge in a third currency takes its own rate; without one it is said', () => {
    const freight = fixed('freight', '10.00', 'USD', 'even');
    const known = landedCost({
      ...eur,
      lines: [line(1)],
      charges: [freight],
      rates: new Map([['USD', fraction(9, 10)]]),
    });
    expect(known.charges[0]?.amount).toBe(900);
    expect(landedCost({ ...eur, lines: [line(1)], charges: [freight] }).faults).toEqual([
      { kind: 'no_rate', line: null, charge: 0 },
    ]);
  });

  test('every split adds up, whatever the lines', () => {
    const nets = fc.array(fc.nat(1_000_000), { minLength: 1, maxLength: 8 });
    fc.assert(
      fc.property(nets, fc.nat(100_000), fc.integer({ min: 0, max: 30 }), (list, freight, discount) => {
        const cost = landedCost({
          ...eur,
          lines: list.map((n, i) => line(n, { weight: fraction(i) })),
          orderDiscountPercent: String(discount),
          charges: [
            { ...fixed('freight', '0', 'EUR', 'weight'), amount: { kind: 'fixed', minor: freight, currency: 'EUR' } },
          ],
        });
        const total = (of: (l: (typeof cost.lines)[number]) => number) => cost.lines.reduce((s, l) => s + of(l), 0);
        expect(total((l) => l.goods)).toBe(cost.goods);
        expect(total((l) => l.shares[0] as number)).toBe(freight);
        expect(total((l) => l.landed)).toBe(cost.goods + freight);
      }),
    );
  });
});

describe('duty rates', () => {
  const rate = (id: number, hsPrefix: string, origin: string | null, validFrom = '2026-01-01'): DutyRate => ({
    ...{ id, hsPrefix, origin, validFrom },
    percent: '4',
    validTo: null,
  });
  const rates = [
    rate(1, '51', null),
    rate(2, '5109', null),
    rate(3, '5109', 'JP'),
    rate(4, '5109', 'JP', '2026-07-01'),
    { ...rate(5, '510910', null, '2026-02-01'), validTo: '2026-02-28' },
  ];

  // The more specific heading first: general rules of the Harmonized System; common practice.
  test('longest code, then origin, then the later', () => {
    const of = (hsCode: string | null, origin: string | null, on: string) =>
      dutyRateOf(rates, { hsCode, origin }, on)?.id;
    expect(of('510910', 'JP', '2026-02-28')).toBe(5);
    expect(of('510910', 'JP', '2026-03-01')).toBe(3);
    expect(of('510910', 'JP', '2026-06-30')).toBe(3);
    expect(of('510910', 'JP', '2026-07-01')).toBe(4);
    expect(of('510910', 'GB', '2026-07-01')).toBe(2);
    expect(of('5105', 'GB', '2026-07-01')).toBe(1);
    expect(of('5205', 'GB', '2026-07-01')).toBeUndefined();
    expect(of(null, 'GB', '2026-07-01')).toBeUndefined();
    expect(of('510910', 'JP', '2025-12-31')).toBeUndefined();
  });
});
