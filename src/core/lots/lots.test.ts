import fc from 'fast-check';
import { units } from '../quantity';
import { type LotStock, parseLots, parseSerials, takeFromLots, wouldMix } from '.';

const lot = (lotId: number | null, quantity: number, bestBefore: string | null = null): LotStock => ({
  ...{ lotId, quantity: units(quantity), bestBefore },
});
const taken = (lots: readonly LotStock[], wanted: number) =>
  takeFromLots(lots, units(wanted)).map((t) => `${t.lotId ?? '-'}:${t.quantity / 1e6}`);

describe('what an issue takes', () => {
  test('of dye lots the oldest that suffices alone; else the oldest first', () => {
    const lots = [lot(2, 12), lot(1, 8), lot(3, 30)];
    expect(taken(lots, 8)).toEqual(['1:8']);
    expect(taken(lots, 10)).toEqual(['2:10']);
    expect(taken(lots, 25)).toEqual(['3:25']);
    expect(taken(lots, 40)).toEqual(['1:8', '2:12', '3:20']);
  });

  test('with best-before dates the first to expire goes first, whether it suffices or not', () => {
    const lots = [lot(1, 8, '2027-03-01'), lot(2, 5, '2026-12-01'), lot(3, 9, null)];
    expect(taken(lots, 6)).toEqual(['2:5', '1:1']);
    expect(taken(lots, 22)).toEqual(['2:5', '1:8', '3:9']);
  });

  test('what is known by no lot is older than all; what goes beyond stock is known by none', () => {
    expect(taken([lot(1, 8), lot(null, 3)], 3)).toEqual(['-:3']);
    expect(taken([lot(1, 8, '2027-01-01'), lot(null, 3)], 5)).toEqual(['-:3', '1:2']);
    expect(taken([lot(1, 2)], 5)).toEqual(['1:2', '-:3']);
    expect(taken([], 5)).toEqual(['-:5']);
  });

  test('mixing is asked about only where no dye lot suffices alone', () => {
    expect(wouldMix([lot(1, 8), lot(2, 12)], units(13))).toBe(true);
    expect(wouldMix([lot(1, 8), lot(2, 12)], units(12))).toBe(false);
    expect(wouldMix([lot(1, 8)], units(13))).toBe(false);
    expect(wouldMix([lot(1, 8, '2027-01-01'), lot(2, 12, '2027-02-01')], units(13))).toBe(false);
    expect(wouldMix([lot(1, 8), lot(2, 0)], units(13))).toBe(false);
  });

  test('property: what is taken adds up, and of no lot more than there is; a dye lot that suffices is alone', () => {
    const some = fc.array(fc.nat(50), { minLength: 1, maxLength: 6 });
    fc.assert(
      fc.property(some, fc.integer({ min: 1, max: 200 }), (quantities, wanted) => {
        const lots = quantities.map((q, i) => lot(i + 1, q));
        const all = takeFromLots(lots, units(wanted));
        expect(all.reduce((a, t) => a + t.quantity, 0)).toBe(units(wanted));
        for (const t of all)
          if (t.lotId !== null) expect(t.quantity).toBeLessThanOrEqual(lots[t.lotId - 1]?.quantity ?? 0);
        if (quantities.some((q) => q >= wanted)) expect(all).toHaveLength(1);
      }),
    );
  });
});

describe('lots as they are typed', () => {
  const lots = (text: string, came = 20) => {
    const read = parseLots(text, units(came), '2026-11-25');
    return read.ok ? read.value.map((l) => [l.code, l.quantity / 1e6, l.bestBefore]) : read.error.kind;
  };
  test('number, quantity, best before; one alone is all of it; the same twice is added up', () => {
    expect(lots('4711 8\n4712 12')).toEqual([
      ['4711', 8, null],
      ['4712', 12, null],
    ]);
    expect(lots('4711')).toEqual([['4711', 20, null]]);
    expect(lots('4711, 12, 2027-03-01; 4711, 8')).toEqual([['4711', 20, '2027-03-01']]);
    expect(lots('A\t20\t2027-03-01')).toEqual([['A', 20, '2027-03-01']]);
    expect(lots('')).toEqual([]);
  });
  test('what can be wrong', () => {
    expect(lots('4711 8\n4712')).toBe('lot_not_understood');
    expect(lots('4711 8\n4712 many')).toBe('lot_not_understood');
    expect(lots('4711 20 someday')).toBe('lot_not_understood');
    expect(lots('4711 8\n4712 11')).toBe('lots_do_not_add_up');
  });
  test('serial numbers, each one piece', () => {
    const serials = (text: string, came: number) => {
      const read = parseSerials(text, units(came));
      return read.ok ? read.value.map((l) => l.code) : read.error.kind;
    };
    expect(serials('M4-001 M4-002,M4-003\nM4-004', 4)).toEqual(['M4-001', 'M4-002', 'M4-003', 'M4-004']);
    expect(serials('M4-001 M4-001', 2)).toBe('serial_twice');
    expect(serials('M4-001', 2)).toBe('serials_do_not_add_up');
    expect(serials('', 2)).toEqual([]);
    expect(serials('x'.repeat(61), 1)).toBe('lot_not_understood');
  });
});
