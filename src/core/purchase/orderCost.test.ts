import type { OrderCharge } from '@/core/landed';
import { decimalsOf, minorToDecimal } from '@/core/money';
import { decimalFraction, divideHalfUp, fraction, times } from '@/core/units';
import reference from '../../../tests/reference/landed.json';
import { type CostLine, netOfLine, type OrderCostInput, orderCost } from '.';

const charge = (name: string, position: number, more: Partial<OrderCharge>): OrderCharge => ({
  ...{ name, position, sign: 'charge', amountKind: 'fixed', amount: null, currency: 'EUR', onCharges: [] },
  ...{ spread: 'value', into: 'stock', account: '', billed: true, onlyLines: [], origin: 'usual', leftOut: false },
  ...more,
});

// Source: tests/reference/landed.json: own script on exact fractions; those without an allowance on the whole order.
test.each(reference.cases.filter((c) => !('discount_percent' in c.input)).map((c) => [c.id, c] as const))(
  'landed as the reference has it: %s',
  (_, { input, expected }) => {
    const { home_currency: base, goods_currency: currency } = input;
    const brokerage = 'brokerage' in input ? input.brokerage : undefined;
    const scale = fraction(10n ** BigInt(decimalsOf(currency)));
    const lines = input.lines.map((l, i): CostLine => {
      const quantity = decimalFraction(l.quantity);
      const net = times(times(quantity, decimalFraction(l.unit_price)), scale);
      return {
        ...{ lineNo: i + 1, net: Number(divideHalfUp(net.num, net.den)), taxCategory: '', purpose: 'resale' },
        ...{ quantity: Number(times(quantity, fraction(1_000_000)).num), dutyPercent: l.duty_percent, stock: true },
        ...{ weight: times(quantity, decimalFraction(l.unit_weight)), volume: null },
      };
    });
    const cost = orderCost({
      ...{ base, currency, lines, regime: 'exempt', taxRates: [], day: '2026-11-27' },
      perUnit: (c) => (c === base ? fraction(1) : c === currency ? decimalFraction(input.rate) : null),
      charges: [
        charge('freight', 1, { amount: input.freight.amount, currency: input.freight.currency, spread: 'weight' }),
        charge('insurance', 2, {
          ...{ amountKind: 'percent', amount: input.insurance_percent ?? '0', onCharges: ['freight'] },
        }),
        charge('duty', 3, { amountKind: 'duty', onCharges: ['freight', 'insurance'], billed: false }),
        charge('brokerage', 4, {
          ...{ amount: brokerage?.amount ?? '0', currency: base, spread: brokerage?.by === 'value' ? 'value' : 'even' },
        }),
      ],
    });
    expect(cost.landed?.lines.map((l) => minorToDecimal(l.landed, base))).toEqual(expected.lines.map((l) => l.landed));
  },
);

/* Worked by hand: two lines of 400.00 and 100.00 USD, 20 kg and 5 kg, at 0.90 EUR a USD: goods 360.00 and 90.00 EUR. Freight 50.00
 * USD on the bill, by weight: 40.00 and 10.00 USD, 45.00 EUR: 36.00 and 9.00. Insurance 1 % of goods and freight, 550.00 USD: 5.50, not
 * on the bill; 4.95 EUR: 3.96 and 0.99. Agent 30.00 EUR, an expense, evenly. Tax 10 %. */
const input: OrderCostInput = {
  ...{ base: 'EUR', currency: 'USD', regime: 'domestic', day: '2026-11-27' },
  perUnit: (c) => (c === 'EUR' ? fraction(1) : c === 'USD' ? decimalFraction('0.9') : null),
  lines: [
    {
      ...{
        lineNo: 1,
        net: 40_000,
        quantity: 20_000_000,
        weight: fraction(20),
        volume: null,
        dutyPercent: '0',
        stock: true,
      },
      ...{ taxCategory: 'standard', purpose: 'resale' },
    },
    {
      ...{
        lineNo: 2,
        net: 10_000,
        quantity: 5_000_000,
        weight: fraction(5),
        volume: null,
        dutyPercent: '0',
        stock: true,
      },
      ...{ taxCategory: 'standard', purpose: 'own_use' },
    },
  ],
  charges: [
    charge('Freight', 1, { amount: '50.00', currency: 'USD', spread: 'weight' }),
    charge('Insurance', 2, { amountKind: 'percent', amount: '1', onCharges: ['Freight'], billed: false }),
    charge('Agent', 3, { amount: '30.00', spread: 'even', into: 'expense', billed: false }),
  ],
  taxRates: [
    ...[
      { category: 'standard', percent: '10', ownUsePercent: '0', usual: true, validFrom: '2026-01-01', validTo: null },
    ],
  ],
};

describe('an order with charges and tax', () => {
  const cost = orderCost(input);
  test('its bill: net, freight, 10 % of 550.00', () =>
    expect(cost).toMatchObject({ net: 50_000, billed: 5_000, total: 60_500, tax: { charged: 5_500 }, faults: [] }));
  test('charges in both currencies', () =>
    expect(cost.charges.map((c) => [c.charge.name, c.inOrder, c.inBase])).toEqual([
      ['Freight', 5_000, 4_500],
      ['Insurance', 550, 495],
      ['Agent', 3_333, 3_000],
    ]));
  // Tax on the second line is 11.00 USD, 9.90 EUR: for own use nothing is recovered.
  test('landed per line: goods, what goes into cost, and tax that is not recovered', () =>
    expect(cost.landed).toMatchObject({
      lines: [
        { goods: 36_000, shares: [3_600, 396, 1_500], tax: 0, landed: 39_996, each: '19.9980' },
        { goods: 9_000, shares: [900, 99, 1_500], tax: 990, landed: 10_989, each: '21.9780' },
      ],
      sum: 50_985,
    }));

  test('imported: the customs are paid, on carriage and insurance too; the bill has no tax', () => {
    const imported = orderCost({ ...input, regime: 'import' });
    expect(imported).toMatchObject({ total: 55_000, tax: { paidTo: 'customs', charged: 0 } });
    // 500.00 + 50.00 + 5.50 + 33.33 (the agent's 30.00 EUR).
    expect(imported.tax.sums).toMatchObject([{ taxable: 58_883, tax: 5_888 }]);
  });
  test('without a rate the bill stands, the landed cost can’t be said', () => {
    const unknown = orderCost({ ...input, perUnit: (c) => (c === 'EUR' ? fraction(1) : null) });
    expect(unknown).toMatchObject({ total: 60_500, landed: null });
    expect(unknown.faults).toEqual([{ kind: 'no_rate', line: null, charge: 2 }]);
  });
});

test('a discount is taken off a line in money: 7 % of 3 x 3.33 is 0.70', () => {
  const price = { amount: '3.33', perQuantity: '1', packContent: fraction(1) };
  const line = { base: 3_000_000, price, freeOfCharge: false, discountPercent: '7' };
  expect(netOfLine(line, 'EUR')).toBe(929);
  expect(netOfLine({ ...line, freeOfCharge: true }, 'EUR')).toBe(0);
  expect(netOfLine({ ...line, discountPercent: '100' }, 'EUR')).toBe(0);
});
