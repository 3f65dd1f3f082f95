import fc from 'fast-check';
import { MICRO, units } from '@/core/quantity';
import { fraction } from '@/core/units';
import {
  baseQuantity,
  contentMicro,
  isWholePacks,
  nextPartQuantity,
  type Pack,
  packContent,
  packsIn,
  partQuantities,
} from '.';

const book = (...packs: Pack[]) => new Map(packs.map((p) => [p.id, p]));
const carton: Pack = { id: 1, name: 'carton', count: fraction(36), of: null };
const bale: Pack = { id: 2, name: 'bale', count: fraction(3), of: 1 };

describe('pack content', () => {
  test('a bale of three cartons of 36 holds 108', () => {
    expect(packContent(book(carton, bale), 2)).toEqual({ ok: true, value: fraction(108) });
  });

  test('a bolt of 15 yd is 13.716 m exactly', () => {
    // International yard: 0.9144 m by definition (1959).
    const bolt: Pack = { id: 3, name: 'bolt', count: fraction(15n * 9144n, 10_000n), of: null };
    const content = packContent(book(bolt), 3);
    expect(content).toEqual({ ok: true, value: fraction(3429, 250) });
    expect(contentMicro(fraction(3429, 250))).toEqual({ ok: true, value: 13_716_000 });
  });

  test('a loop is spelled out; an unknown or empty pack is said', () => {
    const a: Pack = { id: 1, name: 'bag', count: fraction(2), of: 2 };
    const b: Pack = { id: 2, name: 'box', count: fraction(2), of: 1 };
    expect(packContent(book(a, b), 1)).toEqual({
      ok: false,
      error: { kind: 'pack_loop', names: ['bag', 'box', 'bag'] },
    });
    expect(packContent(book(), 9)).toEqual({ ok: false, error: { kind: 'unknown_pack', id: 9 } });
    expect(packContent(book({ ...carton, count: fraction(0) }), 1)).toMatchObject({ error: { kind: 'empty_pack' } });
  });

  test('a pack that is no whole number of millionths is refused: a third of a kilo', () => {
    expect(contentMicro(fraction(1, 3), 'cone')).toMatchObject({
      ok: false,
      error: { kind: 'not_exact', name: 'cone' },
    });
  });
});

const content = fc
  .tuple(fc.integer({ min: 1, max: 100_000 }), fc.integer({ min: 1, max: 9999 }))
  .map(([n, d]) => fraction(n, d));
const packs = fc.array(fc.integer({ min: 0, max: 500 * MICRO }), { minLength: 1, maxLength: 8 });

describe('parts of a line', () => {
  test('always add up to the whole, whatever the content', () => {
    fc.assert(
      fc.property(packs, content, (entered, c) => {
        const whole = baseQuantity(
          entered.reduce((a, b) => a + b, 0),
          c,
        );
        expect(partQuantities(entered, c).reduce((a, b) => a + b, 0)).toBe(whole);
      }),
    );
  });

  test('each part is within a millionth of its own share', () => {
    fc.assert(
      fc.property(packs, content, (entered, c) => {
        for (const [i, q] of partQuantities(entered, c).entries()) {
          expect(Math.abs(q - baseQuantity(entered[i] as number, c))).toBeLessThanOrEqual(1);
        }
      }),
    );
  });

  test('three thirds of a unit: 0.333333 + 0.333334 + 0.333333', () => {
    const third = fraction(1, 3);
    expect(partQuantities([MICRO, MICRO, MICRO], third)).toEqual([333_333, 333_334, 333_333]);
    expect(nextPartQuantity(2 * MICRO, MICRO, third)).toBe(333_333);
  });

  test('packs in a base quantity, for display', () => {
    expect(packsIn(units(30), fraction(12))).toBe(units(2.5));
    expect(isWholePacks(units(2.5))).toBe(false);
    expect(isWholePacks(units(3))).toBe(true);
  });
});
