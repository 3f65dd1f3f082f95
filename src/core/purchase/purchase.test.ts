import fc from 'fast-check';
import { units } from '@/core/quantity';
import { fraction } from '@/core/units';
import { checkLineQuantity, type FindingOrder, findings, orderTotals, receiptValue } from '.';

describe('before approval', () => {
  const line = (change = {}) => ({
    lineNo: 1,
    kind: 'stock' as const,
    packQuantity: units(5),
    priceAmount: '32.80',
    freeOfCharge: false,
    parts: [{ wantedDate: '2026-12-01', hasLocation: true }],
    ...change,
  });
  const check = (change: Partial<FindingOrder>, lines = [line()]) =>
    findings({
      lines,
      supplierBlocked: false,
      rateMissing: null,
      supplierAddress: true,
      orderMinimum: 0,
      net: 16_400,
      today: '2026-11-23',
      ...change,
    });
  const kinds = (change: Partial<FindingOrder>, lines = [line()]) =>
    check(change, lines).map((f) => `${f.blocks ? '!' : '·'}${f.kind}`);

  test('nothing is missing', () => expect(check({})).toEqual([]));
  test('an order without lines', () => expect(kinds({}, [])).toEqual(['!no_lines']));
  test('never approved at zero unless free of charge', () => {
    expect(kinds({}, [line({ priceAmount: null })])).toEqual(['!price_missing']);
    expect(kinds({}, [line({ priceAmount: '0.000000' })])).toEqual(['!price_missing']);
    expect(kinds({}, [line({ priceAmount: null, freeOfCharge: true })])).toEqual([]);
  });
  test('day, place and quantity', () => {
    expect(kinds({}, [line({ packQuantity: 0 })])).toEqual(['!quantity_missing']);
    expect(kinds({}, [line({ parts: [{ wantedDate: null, hasLocation: false }] })])).toEqual([
      '!wanted_date_missing',
      '!place_missing',
    ]);
    expect(kinds({}, [line({ parts: [{ wantedDate: '2026-11-20', hasLocation: true }] })])).toEqual([
      '·wanted_in_the_past',
    ]);
    // Half a bag of stock is worth a word, half an hour of a service is not; a charge comes on no day to no place.
    expect(kinds({}, [line({ packQuantity: units(5) / 2 })])).toEqual(['·not_whole_packs']);
    const nowhere = [{ wantedDate: null, hasLocation: false }];
    expect(kinds({}, [line({ kind: 'service', packQuantity: units(1) / 2, parts: nowhere })])).toEqual([]);
    expect(kinds({}, [line({ kind: 'non_stock', parts: nowhere })])).toEqual([
      '!wanted_date_missing',
      '!place_missing',
    ]);
    expect(kinds({ unprintable: ['株'] })).toContain('·unprintable');
  });
  test('a blocked supplier blocks; a missing address and the minimum inform', () => {
    expect(kinds({ rateMissing: 'USD' })).toContain('!rate_missing');
    expect(kinds({ supplierBlocked: true, supplierAddress: false })).toEqual([
      '!supplier_blocked',
      '·supplier_address_missing',
    ]);
    expect(check({ orderMinimum: 40_000 })).toEqual([
      { kind: 'below_minimum', blocks: false, minimum: 40_000, short: 23_600 },
    ]);
    expect(kinds({ orderMinimum: 16_400 })).toEqual(['·minimum_reached']);
  });
});

describe('a typed line quantity', () => {
  test.each([
    ['6', { ok: true, value: units(6) }],
    ['0', { ok: false, error: { kind: 'zero_quantity' } }],
    ['5012345678900', { ok: false, error: { kind: 'absurd_quantity' } }],
    ['100000', { ok: false, error: { kind: 'absurd_quantity' } }],
    ['-1', { ok: false, error: { kind: 'negative' } }],
  ])('%s', (typed, result) => expect(checkLineQuantity(typed)).toMatchObject(result));
});

describe('totals', () => {
  const price = { amount: '32.80', perQuantity: '1', packContent: fraction(10) };
  test('line nets add up; free of charge and unpriced lines count nothing', () => {
    const lines = [
      { base: units(60), price, freeOfCharge: false, discountPercent: '0' },
      { base: units(10), price, freeOfCharge: true, discountPercent: '0' },
      { base: units(10), price: null, freeOfCharge: false, discountPercent: '0' },
    ];
    expect(orderTotals(lines, 'EUR')).toEqual({ lines: [19_680, 0, 0], net: 19_680 });
  });

  test('the values of all receipts of a line add up to the line, in any split', () => {
    fc.assert(
      fc.property(
        fc.integer({ min: 0, max: 10_000_000 }),
        fc.array(fc.integer({ min: 1, max: 900_000_000 }), { minLength: 1, maxLength: 9 }),
        (value, parts) => {
          const ordered = parts.reduce((a, b) => a + b, 0);
          let [received, posted] = [0, 0];
          for (const q of parts) {
            posted += receiptValue(value, ordered, received, posted, q);
            received += q;
          }
          expect(posted).toBe(value);
        },
      ),
    );
  });
});
