import { units } from '@/core/quantity';
import { type PriceStep, preferredSource, priceAt } from '.';

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
