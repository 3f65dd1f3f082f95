import { renderToStaticMarkup } from 'react-dom/server';
import { type LevelPlan, type OrderRule, type PositionParts, type Reckoning, reckon, reckonPeg } from '@/core/netting';
import { units } from '@/core/quantity';
import { Format } from '../format';
import { neededOf, ReckoningSum } from './reckoning';

const format = new Format('en-GB');
const shown = (sum: Reckoning, more: Partial<Parameters<typeof ReckoningSum>[0]> = {}) =>
  renderToStaticMarkup(<ReckoningSum sum={sum} format={format} origins={{}} unit="ball" packName="bag" {...more} />)
    .replace(/<[^>]+>/g, ' ')
    .replace(/\s+/g, ' ')
    .trim();

const bags: OrderRule = { minimum: 0, packMicro: units(10), multiplePacks: 1, mode: 'up' };
const parts = (change: Partial<Record<keyof PositionParts, number>>): PositionParts => {
  const all = { onHand: 0, blocked: 0, onTheWay: 0, inTrays: 0, owed: 0, planned: 0, ...change };
  return Object.fromEntries(Object.entries(all).map(([k, q]) => [k, units(q)])) as PositionParts;
};
const minMax: LevelPlan = {
  ...{ rule: 'level', kind: 'min_max', level: units(28), refillTo: units(76), max: units(76), fixed: 0 },
  ...{ trigger: 'at_or_below', terms: [{ label: 'refill_to_max', quantity: units(76) }] },
};

describe('a sum as on paper', () => {
  test('from the maximum down to what is bought, in whole packs, with what is more than needed and what that costs', () => {
    // 76 − 12 − 10 + 3 = 57, which six bags of ten cover with three to spare.
    const said = shown(reckon(parts({ onHand: 12, onTheWay: 10, owed: 3 }), minMax, bags), { worth: () => '€13.50' });
    expect(said).toContain('76');
    expect(said).toMatch(/− On hand 12/);
    expect(said).toMatch(/\+ .*3/);
    expect(said).toContain('To buy position 19 is at or below minimum 28 57');
    expect(said).toContain('Whole bags of 10 3 balls more than needed, €13.50 60');
  });

  test('terms that are 0 are left out, but not those a level is made of', () => {
    const said = shown(reckon(parts({ onHand: 16 }), minMax, bags));
    expect(said).toMatch(/On the way –/);
    expect(said).not.toMatch(/Blocked|Owed|In trays/i);
    expect(said).toContain('Whole bags of 10 fits exactly 60');
  });

  test('what is below zero is said to be, where it adds up', () => {
    // 76 + 2 = 78, in eight bags.
    const said = shown(reckon(parts({ onHand: -2 }), minMax, bags));
    expect(said).toContain('+ On hand, below zero 2');
    expect(said).toContain('To buy position −2 is at or below minimum 28 78');
  });

  test('nothing is missing: the sentence says what the position is above of', () => {
    expect(shown(reckon(parts({ onHand: 40 }), minMax, bags))).toContain(
      'Nothing to buy: position 40 is above minimum 28.',
    );
    expect(shown(reckon(parts({ onHand: 40 }), minMax, bags), { sent: true })).toContain(
      'Nothing to send: position 40',
    );
  });

  test('the supplier’s least quantity is a step of its own', () => {
    const said = shown(reckon(parts({ onHand: 20 }), minMax, { ...bags, minimum: units(75) }));
    expect(said).toContain('Supplier’s least quantity 19 balls more than needed 75');
    expect(said).toContain('Whole bags of 10 5 balls more than needed 80');
  });

  test('a fixed quantity: what is missing to the point, then how often the quantity', () => {
    const fixed: LevelPlan = {
      ...{ rule: 'level', kind: 'fixed_quantity', level: units(30), refillTo: units(30), max: null, fixed: units(24) },
      ...{ trigger: 'strictly_below', terms: [{ label: 'reorder_point', quantity: units(30) }] },
    };
    const sum = reckon(parts({ onHand: 2 }), fixed, { ...bags, packMicro: units(1), mode: 'none' });
    // 30 − 2 = 28: twice 24.
    expect(shown(sum)).toContain('Missing to the point position 2 is strictly below reorder point 30 28');
    expect(shown(sum)).toContain('Order quantity, 2 times 20 balls more than needed 48');
    expect(neededOf(sum)).toBe(units(48));
  });
});

describe('a line that is bought one to one', () => {
  const line = (asked: number, held: number, supply: number) => ({
    ...{ asked: units(asked), held: units(held), supply: units(supply) },
  });

  test('what is asked for, less what lies ready and what was bought for it', () => {
    // 30 − 4 − 10 = 16, in two bags.
    const sum = reckonPeg(line(30, 4, 10), bags);
    expect(shown(sum)).toContain('Asked for on this line 30');
    expect(shown(sum)).toContain('− Lies ready for it 4');
    expect(shown(sum)).toContain('− Bought for it, on the way 10');
    expect(shown(sum)).toContain('To buy exactly the line, one to one 16');
    expect(shown(sum)).toContain('Whole bags of 10 4 balls more than needed 20');
    expect(neededOf(sum)).toBe(units(16));
  });

  test('sent over instead of bought; and covered', () => {
    expect(shown(reckonPeg(line(5, 0, 0), bags), { sent: true })).toContain('To send exactly the line, one to one 5');
    expect(shown(reckonPeg(line(5, 0, 10), bags))).toContain('Nothing to buy: the line is covered.');
  });
});
