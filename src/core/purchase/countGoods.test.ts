import fc from 'fast-check';
import { baseQuantity } from '@/core/packs';
import { entryText, units } from '@/core/quantity';
import { fraction } from '@/core/units';
import { type Counted, countGoods, openOf } from '.';

const bolt = fraction(13_716, 1000); // 15 yd of 0.9144 m: international yard and pound agreement (1959)
const part = (packs: number, came: Partial<Record<'received' | 'receivedPacks' | 'cancelled', number>> = {}) => ({
  packs: units(packs),
  base: baseQuantity(units(packs), bolt),
  received: 0,
  receivedPacks: 0,
  cancelled: 0,
  ...came,
});

describe('what is open of a part', () => {
  test('packs and base units not yet counted in', () => {
    expect(openOf(part(11, { received: units(41.148), receivedPacks: units(3) }), bolt)).toEqual({
      packs: units(8),
      base: units(109.728),
    });
  });

  test('all packs counted out and metres left: the packs that the rest makes', () => {
    expect(openOf(part(2, { received: units(26), receivedPacks: units(2) }), bolt)).toEqual({
      packs: 104_404,
      base: units(1.432),
    });
  });

  test('more came than was ordered: nothing is open', () => {
    expect(openOf(part(2, { received: units(30), receivedPacks: units(2) }), bolt)).toEqual({ packs: 0, base: 0 });
  });

  test('what was cancelled is not open', () => {
    expect(openOf(part(2, { cancelled: units(13.716) }), bolt)).toEqual({ packs: units(1), base: units(13.716) });
  });
});

describe('counting goods', () => {
  const open = openOf(part(4), bolt);

  test('in packs, in base units, nothing', () => {
    expect(countGoods('3', 'pack', open, bolt)).toEqual({ ok: true, value: { packs: units(3), base: units(41.148) } });
    expect(countGoods('20,5', 'base', open, bolt)).toEqual({
      ok: true,
      value: { packs: 1_494_605, base: units(20.5) },
    });
    for (const nothing of ['', '  ', '0', '0,0']) {
      expect(countGoods(nothing, 'pack', open, bolt)).toEqual({ ok: true, value: null });
    }
  });

  test.each([
    ['-1', 'negative'],
    ['x', 'not_a_number'],
    ['1.250', 'ambiguous'],
    ['4006381333931', 'absurd_quantity'],
  ])('%s is refused as %s', (typed, kind) => {
    expect(countGoods(typed, 'pack', open, bolt)).toMatchObject({ ok: false, error: { kind } });
  });

  test('what is absurd is told by the packs it makes, in whatever unit it was counted', () => {
    const gross = openOf({ ...part(900), base: units(9_000_000) }, fraction(10_000));
    expect(countGoods('9000000', 'base', gross, fraction(10_000))).toEqual({
      ok: true,
      value: { packs: units(900), base: units(9_000_000) },
    });
    expect(countGoods('40063813', 'base', open, fraction(10))).toMatchObject({ error: { kind: 'absurd_quantity' } });
  });

  test('a share of a pack that makes no millionth of a unit is no quantity', () => {
    expect(countGoods('0.000001', 'pack', open, fraction(1, 3))).toEqual({
      ok: false,
      error: { kind: 'zero_quantity' },
    });
  });

  test('any counts, then all that is open as it is shown: the part is complete to the last millionth', () => {
    const content = fc
      .record({ num: fc.integer({ min: 1, max: 50_000 }), den: fc.integer({ min: 1, max: 1000 }) })
      .map(({ num, den }) => fraction(num, den));
    const count = fc.record({
      share: fc.double({ min: 0.01, max: 0.9, noNaN: true }),
      unit: fc.constantFrom('pack', 'base'),
    });
    fc.assert(
      fc.property(
        content,
        fc.integer({ min: 1, max: 500 }),
        fc.array(count, { maxLength: 4 }),
        fc.constantFrom('pack' as const, 'base' as const),
        (c, packs, counts, lastUnit) => {
          const p = { ...part(packs), base: baseQuantity(units(packs), c) };
          fc.pre(p.base > 1000);
          const book = (typed: string, unit: 'pack' | 'base') => {
            const counted = countGoods(typed, unit, openOf(p, c), c);
            const { packs: n, base } = (counted.ok && counted.value) as Counted;
            p.received += base;
            p.receivedPacks += n;
          };
          for (const { share, unit } of counts) {
            const left = openOf(p, c);
            const q = Math.floor((unit === 'pack' ? left.packs : left.base) * share);
            if (q > 1000) book(entryText(q), unit as 'pack' | 'base');
          }
          const rest = openOf(p, c);
          if (rest.packs > 0) book(entryText(lastUnit === 'pack' ? rest.packs : rest.base), lastUnit);
          else book(entryText(rest.base), 'base');
          expect(p.received).toBe(p.base);
          expect(openOf(p, c)).toEqual({ packs: 0, base: 0 });
        },
      ),
    );
  });
});
