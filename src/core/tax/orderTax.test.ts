import fc from 'fast-check';
import { orderTax, type Purpose, type TaxedLine, type TaxRate, taxRateOn, taxRegimes } from '.';

const rate = (category: string, percent: string, more: Partial<TaxRate> = {}): TaxRate => ({
  ...{ category, percent, ownUsePercent: '100', usual: false, validFrom: '2026-01-01', validTo: null },
  ...more,
});
const line = (category: string, net: number, purpose: Purpose = 'resale'): TaxedLine => ({ category, purpose, net });
const day = '2026-11-27';

// Source: UBL 2.1 (OASIS), example UBL-Invoice-2.1-Example.xml, its TaxTotal, from memory: 1460.50 at 20 % is 292.10, 1.00 at
// 10 % is 0.10, -25.00 exempt is 0; together 292.20 on 1436.50.
test('the sums per category of the published example of an invoice', () => {
  const rates = [rate('S', '20'), rate('AA', '10'), rate('E', '0')];
  const nets = [line('S', 127_300), line('AA', 496), line('AA', -396), line('E', -2_500), line('S', 18_750)];
  const { sums, charged } = orderTax(nets, 'domestic', rates, day);
  expect(sums.map((s) => [s.category, s.taxable, s.tax])).toEqual([
    ['S', 146_050, 29_210],
    ['AA', 100, 10],
    ['E', -2_500, 0],
  ]);
  expect(charged).toBe(29_220);
});

test('rounded once per category, not line by line: three times 0.33 at 19 % is 0.19, not 3 x 0.06', () => {
  const three = [line('standard', 33), line('standard', 33), line('standard', 33)];
  expect(orderTax(three, 'domestic', [rate('standard', '19')], day).charged).toBe(19);
});

describe('who is paid', () => {
  const lines = [line('standard', 10_000)];
  const rates = [rate('standard', '19')];
  test.each([
    ['domestic', 'supplier', 1_900],
    ['within_union', 'self', 0],
    ['import', 'customs', 0],
  ] as const)('%s: %s', (regime, paidTo, charged) => {
    const tax = orderTax(lines, regime, rates, day);
    expect(tax).toMatchObject({ paidTo, charged, sums: [{ tax: 1_900, recoverable: 1_900, cost: 0 }] });
  });
  test('exempt: nothing at all', () =>
    expect(orderTax(lines, 'exempt', rates, day)).toEqual({ paidTo: 'nobody', sums: [], charged: 0, costs: [0] }));
});

test('on what is for own use only the part that is recovered is no cost', () => {
  const rates = [rate('standard', '19', { ownUsePercent: '50' })];
  const both = [line('standard', 10_000), line('standard', 1_005, 'own_use')];
  // 110.05 at 19 % is 20.91; the second line's share 1.91 (largest remainder), half of it 0.96 recovered.
  expect(orderTax(both, 'domestic', rates, day)).toMatchObject({
    sums: [{ tax: 2_091, recoverable: 1_996, cost: 95 }],
    costs: [0, 95],
  });
});

describe('the rate in force', () => {
  const rates = [
    rate('standard', '16', { validFrom: '2020-07-01', validTo: '2020-12-31' }),
    rate('standard', '19', { validFrom: '2021-01-01', usual: true }),
    rate('reduced', '7'),
  ];
  // Source: German VAT 16 % from 1 July to 31 December 2020 (Zweites Corona-Steuerhilfegesetz), from memory.
  test.each([
    ['standard', '2020-12-31', '16'],
    ['standard', '2021-01-01', '19'],
    ['standard', '2020-06-30', undefined],
    ['', '2026-05-01', '19'],
    ['none such', '2026-05-01', undefined],
  ])('%s on %s: %s', (category, on, percent) => expect(taxRateOn(rates, category, on)?.percent).toBe(percent));

  test('a category without a rate is named and counts nothing', () =>
    expect(orderTax([line('books', 500)], 'domestic', rates, day).sums).toEqual([
      { category: 'books', percent: null, taxable: 500, tax: 0, recoverable: 0, cost: 0 },
    ]));
});

test('what is recovered and what is cost add up to the tax, whatever stands on the lines', () => {
  const anyLine = fc.record({
    category: fc.constantFrom('standard', 'reduced', '', 'unknown'),
    purpose: fc.constantFrom<Purpose>('resale', 'own_use'),
    net: fc.integer({ min: -1_000_000, max: 1_000_000 }),
  });
  const rates = [rate('standard', '19', { usual: true, ownUsePercent: '33.3' }), rate('reduced', '7')];
  fc.assert(
    fc.property(fc.array(anyLine, { maxLength: 20 }), fc.constantFrom(...taxRegimes), (lines, regime) => {
      const { sums, costs, charged } = orderTax(lines, regime, rates, day);
      for (const s of sums) expect(s.recoverable + s.cost).toBe(s.tax);
      expect(costs.reduce((a, b) => a + b, 0)).toBe(sums.reduce((a, s) => a + s.cost, 0));
      expect(charged).toBe(regime === 'domestic' ? sums.reduce((a, s) => a + s.tax, 0) : 0);
      if (regime !== 'exempt')
        expect(sums.reduce((a, s) => a + s.taxable, 0)).toBe(lines.reduce((a, l) => a + l.net, 0));
    }),
  );
});
