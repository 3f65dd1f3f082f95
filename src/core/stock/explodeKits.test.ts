import { units } from '../quantity';
import { explodeKits } from '.';

const scarf = 1;
const gift = 2;
const [yarn, needle, tin] = [11, 12, 13];
const contents: Record<number, { itemId: number; quantity: number }[]> = {
  [scarf]: [
    { itemId: yarn, quantity: units(4) },
    { itemId: needle, quantity: units(1) },
  ],
  [gift]: [
    { itemId: scarf, quantity: units(1) },
    { itemId: tin, quantity: units(0.5) },
  ],
};
const of = (id: number) => contents[id] ?? [];

test('kits take their content, each on its line; what is no kit takes nothing besides', () => {
  const lines = [
    { itemId: yarn, quantity: units(3) },
    { itemId: scarf, quantity: units(2) },
  ];
  expect(explodeKits(lines, of)).toEqual([
    { itemId: yarn, quantity: units(8), kitLine: 2 },
    { itemId: needle, quantity: units(2), kitLine: 2 },
  ]);
});

test('a kit in a kit is taken apart as well; one that would hold itself ends', () => {
  expect(explodeKits([{ itemId: gift, quantity: units(2) }], of)).toEqual([
    { itemId: yarn, quantity: units(8), kitLine: 1 },
    { itemId: needle, quantity: units(2), kitLine: 1 },
    { itemId: tin, quantity: units(1), kitLine: 1 },
  ]);
  const loop = (id: number) => (id === 1 ? [{ itemId: 2, quantity: units(1) }] : [{ itemId: 1, quantity: units(1) }]);
  expect(explodeKits([{ itemId: 1, quantity: units(1) }], loop)).toEqual([
    { itemId: 1, quantity: units(1), kitLine: 1 },
  ]);
});
