import fc from 'fast-check';
import { units } from '../quantity';
import { costOfSerials, costPerSerial } from '.';

const one = units(1);
const there = [
  { lotId: 1, quantity: one, cost: 50_000 },
  { lotId: 2, quantity: one, cost: 30_000 },
];
const level = { quantity: units(3), value: 100_000 };
const take = (...lotIds: (number | null)[]) => lotIds.map((lotId) => ({ lotId, quantity: one }));

// Specific identification of cost: IAS 2 Inventories, paragraph 23 (items that are not ordinarily interchangeable).
describe('serial numbers carry their own cost', () => {
  test('three machines worth 1,000.00: A cost 500.00, B 300.00, the one without a number what is left', () => {
    expect(costOfSerials(level, there, take(1))).toBe(50_000);
    expect(costOfSerials(level, there, take(2))).toBe(30_000);
    expect(costOfSerials(level, there, take(null))).toBe(20_000);
    expect(costOfSerials(level, there, take(1, null))).toBe(70_000);
    expect(costOfSerials(level, there, take(1, 2, null))).toBe(100_000);
  });

  test('all of the value with the last piece; never more than the level has; beyond the stock it is not known', () => {
    expect(costOfSerials({ quantity: one, value: 29_990 }, there.slice(1), take(2))).toBe(29_990);
    expect(costOfSerials({ quantity: units(2), value: 45_000 }, there, take(1))).toBe(45_000);
    expect(costOfSerials(level, there, take(1, 2, null, null))).toBeNull();
    // A number whose cost nobody knows is one of the rest.
    expect(costOfSerials(level, [...there, { lotId: 3, quantity: one, cost: null }], take(3))).toBe(20_000);
    expect(costOfSerials({ quantity: units(2.5), value: 90_000 }, there, take(null))).toBeNull();
  });

  test('a receipt of 3 for 100.00 with two numbers: 33.34 and 33.33, the rest 33.33', () => {
    expect(costPerSerial(10_000, units(3), [one, one])).toEqual([3334, 3333]);
    expect(costPerSerial(10_000, units(2), [one, one])).toEqual([5000, 5000]);
    expect(costPerSerial(0, units(1), [one])).toEqual([0]);
  });

  test('whatever came and goes one by one, all of the value leaves with it', () => {
    const costs = fc.array(fc.integer({ min: 0, max: 1_000_000 }), { minLength: 1, maxLength: 12 });
    fc.assert(
      fc.property(costs, fc.integer({ min: 0, max: 5 }), fc.integer({ min: 0, max: 99_999 }), (own, more, worth) => {
        const serials = own.map((cost, i) => ({ lotId: i + 1, quantity: one, cost }));
        const value = own.reduce((a, c) => a + c, 0) + (more > 0 ? worth : 0);
        let left = { quantity: units(own.length + more), value };
        let rest = [...serials];
        const order = [...serials.map((s) => s.lotId), ...Array.from({ length: more }, () => null)];
        for (const lotId of order) {
          const cost = costOfSerials(left, rest, take(lotId)) as number;
          if (lotId !== null) expect(cost).toBe(own[lotId - 1]);
          left = { quantity: left.quantity - one, value: left.value - cost };
          rest = rest.filter((s) => s.lotId !== lotId);
        }
        expect(left).toEqual({ quantity: 0, value: 0 });
      }),
    );
  });
});
