import { units } from '@/core/quantity';
import {
  type BreakLine,
  breakQuantity,
  chooseSource,
  type PriceStep,
  preferredSource,
  priceAt,
  proposedCost,
  type SourceAtPlace,
} from '.';

const step = (
  fromPacks: number,
  amount: string,
  validFrom = '2026-01-01',
  validTo: string | null = null,
): PriceStep => ({
  fromPacks: units(fromPacks),
  validFrom,
  validTo,
  amount,
  perQuantity: '1',
  packId: null,
});
const at = (steps: PriceStep[], packs: number, on = '2026-11-23') => priceAt(steps, units(packs), on)?.amount ?? null;

describe('price at a quantity', () => {
  const list = [step(0, '32.80'), step(10, '31.40')];
  test('the break holds from its quantity on', () => {
    expect([at(list, 9), at(list, 9.5), at(list, 10), at(list, 99)]).toEqual(['32.80', '32.80', '31.40', '31.40']);
  });
  test('only while valid, the later list first; none is none, not zero', () => {
    expect(at([...list, step(0, '34.00', '2026-11-01')], 1)).toBe('34.00');
    expect(at([...list, step(0, '34.00', '2026-12-01')], 1)).toBe('32.80');
    expect(at([step(0, '30.00', '2025-01-01', '2025-12-31')], 1)).toBeNull();
    expect(at([step(5, '30.00')], 1)).toBeNull();
    expect(at([], 1)).toBeNull();
  });
});

describe('preferred source', () => {
  const source = (id: number, preference: number, supplierActive = true) => ({ id, preference, supplierActive });
  test('by preference, then the older; a blocked supplier only when there is no other', () => {
    expect(preferredSource([source(1, 2), source(2, 1)])?.id).toBe(2);
    expect(preferredSource([source(5, 1), source(4, 1)])?.id).toBe(4);
    expect(preferredSource([source(1, 1, false), source(2, 9)])?.id).toBe(2);
    expect(preferredSource([source(1, 1, false)])?.id).toBe(1);
    expect(preferredSource([])).toBeNull();
  });
});

describe('the source of a place and the rule that chose it', () => {
  const at = (id: number, more: Partial<SourceAtPlace> = {}): SourceAtPlace => ({
    ...{ id, preference: id, supplierActive: true, share: null, bought: 0, here: false },
    ...more,
  });
  test('the only one, the first by rank, a rank of this very place', () => {
    expect(chooseSource([])).toBeNull();
    expect(chooseSource([at(4)])).toMatchObject({ source: { id: 4 }, rule: { kind: 'only' } });
    expect(chooseSource([at(2), at(1)])?.rule).toEqual({ kind: 'rank', rank: 1, of: 2, here: false });
    expect(chooseSource([at(1), at(2, { preference: 0, here: true })])).toMatchObject({
      source: { id: 2 },
      rule: { kind: 'rank', rank: 0, of: 2, here: true },
    });
  });
  test('a blocked supplier is passed over; where all are, the first is named and said to be', () => {
    expect(chooseSource([at(1, { supplierActive: false }), at(2)])?.source.id).toBe(2);
    expect(chooseSource([at(1, { supplierActive: false }), at(2, { supplierActive: false })])).toMatchObject({
      source: { id: 1 },
      rule: { kind: 'blocked' },
    });
  });
  // Hand-worked: 70 and 30 wanted. Nothing bought: 0.7 behind. 80 and 20 had: the second is 0.1 behind, the first 0.1 ahead.
  test.each([
    [0, 0, 1],
    [60, 40, 1],
    [80, 20, 2],
    [70, 30, 1],
  ])('shares 70 and 30 with %d and %d bought: number %d', (a, b, id) => {
    const chosen = chooseSource([at(1, { share: 70, bought: units(a) }), at(2, { share: 30, bought: units(b) })]);
    expect(chosen?.source.id).toBe(id);
    expect(chosen?.rule.kind).toBe('share');
  });
  test('a source without a share takes no part where others have one', () => {
    expect(chooseSource([at(1), at(2, { share: 100 })])?.source.id).toBe(2);
  });
  test('over many orders the shares are kept within one order', () => {
    const bought = [0, 0, 0];
    for (let n = 0; n < 100; n += 1) {
      const sources = [50, 30, 20].map((share, i) => at(i + 1, { share, bought: bought[i] as number }));
      const i = (chooseSource(sources)?.source.id ?? 0) - 1;
      bought[i] = (bought[i] as number) + units(10);
    }
    expect(bought.map((b) => b / units(10))).toEqual([50, 30, 20]);
  });
});

describe('a cost where there is no list', () => {
  test('in the order that is set; nothing and zero are none', () => {
    const both = { standard: '2.85', last: '2.60' };
    expect(proposedCost(both, 'standard_first')).toEqual({ amount: '2.85', origin: 'standard_cost' });
    expect(proposedCost(both, 'last_first')).toEqual({ amount: '2.60', origin: 'last_price' });
    expect(proposedCost({ standard: null, last: '2.60' }, 'standard_first')?.origin).toBe('last_price');
    expect(proposedCost({ standard: '0.000000', last: null }, 'standard_first')).toBeNull();
  });
});

describe('over what breaks are counted', () => {
  const line = (itemId: number, priceGroup: string, packs: number) => ({ itemId, priceGroup, packs: units(packs) });
  const order = [line(1, 'FW', 10), line(2, 'FW', 10), line(1, 'FW', 5), line(3, '', 40)];
  test('line, item, price group', () => {
    const [first] = order;
    expect(breakQuantity(first as BreakLine, order, 'line')).toBe(units(10));
    expect(breakQuantity(first as BreakLine, order, 'item')).toBe(units(15));
    expect(breakQuantity(first as BreakLine, order, 'price_group')).toBe(units(25));
    expect(breakQuantity(order[3] as BreakLine, order, 'price_group')).toBe(units(40));
  });
});
