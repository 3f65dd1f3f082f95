import { units } from '../quantity';
import { type MoverInput, moverFigures, worthOfPart } from '.';

const plain: MoverInput = { sold: units(26), days: 91, onHand: units(10), value: 2000, unitCost: 200, unitNet: 500 };

test('cost of sales, margin, turns and return on stock, worked by hand', () => {
  const f = moverFigures(plain);
  // 26 × 2.00 = 52.00; 26 × 3.00 = 78.00; a year is 365 ÷ 91 = 4.011 spans: 208.57 ÷ 20.00 and 312.86 ÷ 20.00.
  expect([f.costOfSales, f.margin]).toEqual([5200, 7800]);
  expect(f.turns).toBeCloseTo(10.43, 2);
  expect(f.marginReturn).toBeCloseTo(15.64, 2);
});

test('without stock there are no turns, without price no margin, without cost neither; sold below cost is a loss', () => {
  expect(moverFigures({ ...plain, onHand: 0, value: 0 })).toMatchObject({ turns: null, marginReturn: null });
  expect(moverFigures({ ...plain, onHand: units(-2), value: -400 }).turns).toBeNull();
  expect(moverFigures({ ...plain, unitNet: null })).toMatchObject({ costOfSales: 5200, margin: null });
  expect(moverFigures({ ...plain, unitCost: null })).toMatchObject({ costOfSales: null, margin: null, turns: null });
  expect(moverFigures({ ...plain, unitNet: 150 }).margin).toBe(-1300);
  expect(moverFigures({ ...plain, sold: 0 })).toMatchObject({ costOfSales: 0, turns: 0 });
});

test('a part of stock is worth its share, at most all of it', () => {
  const all = { quantity: units(10), value: 2500 };
  expect([worthOfPart(units(4), all), worthOfPart(units(12), all), worthOfPart(0, all)]).toEqual([1000, 2500, 0]);
  expect(worthOfPart(units(1), { quantity: units(3), value: 100 })).toBe(33);
  expect(worthOfPart(units(1), { quantity: 0, value: 0 })).toBe(0);
});
