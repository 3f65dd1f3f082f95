import fc from 'fast-check';
import { MICRO, units } from '../quantity';
import { balancePeg, reckonPeg } from '.';

const rule = { minimum: 0, packMicro: units(10), multiplePacks: 1, mode: 'up' as const };
const line = (asked: number, held = 0, supply = 0) => ({
  asked: units(asked),
  held: units(held),
  supply: units(supply),
});

// Common practice of buying to order: exactly the line, whatever lies there; what a pack brings beyond it is free.
describe('per demand, one to one', () => {
  test('a shop asks for 7: 7 are short, one bag of 10 is bought, 3 of it are free', () => {
    expect(balancePeg(line(7))).toEqual({ unfilled: units(7), pegged: 0, rest: units(7), overshoot: 0 });
    const sum = reckonPeg(line(7), rule);
    expect(sum).toMatchObject({ kind: 'per_demand', raised: true, toBuy: units(7), quantity: units(10) });
    expect(sum.steps).toEqual([{ label: 'whole_packs', quantity: units(10), added: units(3) }]);
    expect(balancePeg(line(7, 0, 10))).toEqual({ unfilled: units(7), pegged: units(7), rest: 0, overshoot: units(3) });
    expect(reckonPeg(line(7, 0, 10), rule)).toMatchObject({ raised: false, toBuy: 0, quantity: 0 });
  });

  test('12 asked for, 4 lie ready, an order of 10 was cut to 5: 12 − 4 − 5 = 3 are short again', () => {
    expect(balancePeg(line(12, 4, 5))).toEqual({ unfilled: units(8), pegged: units(5), rest: units(3), overshoot: 0 });
    const { terms, toBuy } = reckonPeg(line(12, 4, 5), rule);
    expect(terms.map((t) => [t.label, t.operator, t.quantity / MICRO])).toEqual([
      ['asked_one_to_one', '+', 12],
      ['lies_ready', '-', 4],
      ['bought_for_it', '-', 5],
    ]);
    expect(toBuy).toBe(units(3));
  });

  test('nothing is covered twice or forgotten, and the terms always add up to what is bought', () => {
    const some = fc.integer({ min: 0, max: 5000 });
    fc.assert(
      fc.property(some, some, some, (asked, held, supply) => {
        const of = line(asked, held, supply);
        const { unfilled, pegged, rest, overshoot } = balancePeg(of);
        expect(pegged + rest).toBe(unfilled);
        expect(pegged + overshoot).toBe(of.supply);
        expect(Math.min(rest, overshoot)).toBe(0);
        const sum = reckonPeg(of, rule).terms.reduce((a, t) => a + (t.operator === '+' ? 1 : -1) * t.quantity, 0);
        expect(sum).toBe(rest);
      }),
    );
  });
});
