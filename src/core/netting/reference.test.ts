import { lineNet, minorToDecimal } from '@/core/money';
import { roundToStep } from '@/core/packs';
import type { Trigger } from '@/core/policy';
import { units } from '@/core/quantity';
import { fraction } from '@/core/units';
import reference from '../../../tests/reference/netting.json';
import { fixedMultiple, netRequirement, position, triggers } from '.';

type Input = {
  on_hand: number;
  on_order?: number;
  in_transit?: number;
  committed?: number;
  backordered?: number;
  min?: number;
  reorder_point?: number;
  max?: number;
  fixed_quantity?: number;
  minimum_order_quantity?: number;
  order_multiple?: number;
  pack_size?: number;
  packs?: number;
  trigger: Trigger;
  policy: 'up_to_max' | 'up_to_min' | 'fixed_multiple';
};

const cases = reference.cases as unknown as {
  id: string;
  kind: string;
  input: Input & { unit_cost?: string; quantity?: number };
  expected: Record<string, number | boolean | string>;
}[];

// Source: tests/reference/netting.json; each case names its own ("common practice", or arithmetic by the stated rules).
describe('netting reference', () => {
  test.each(cases.filter((c) => c.kind === 'net_requirement').map((c) => [c.id, c] as const))(
    '%s',
    (_, { input, expected }) => {
      // The convention of the file counts committed and backordered stock apart; both are owed here.
      const here = position({
        onHand: units(input.on_hand),
        blocked: 0,
        onTheWay: units((input.on_order ?? 0) + (input.in_transit ?? 0)),
        inTrays: 0,
        owed: units((input.committed ?? 0) + (input.backordered ?? 0)),
        planned: 0,
      });
      const level = units(input.min ?? input.reorder_point ?? 0);
      const raw =
        input.policy === 'fixed_multiple'
          ? fixedMultiple(here, level, units(input.fixed_quantity ?? 0), input.trigger)
          : netRequirement(here, level, input.policy === 'up_to_max' ? units(input.max ?? 0) : level, input.trigger);
      // Rounding order of the file: minimum, then order multiple, then whole packs.
      const lifted = raw === 0 ? 0 : Math.max(raw, units(input.minimum_order_quantity ?? 0));
      const multiple = roundToStep(lifted, units(input.order_multiple ?? 0), 'up');
      const quantity = roundToStep(multiple, units(input.pack_size ?? 0), 'up');
      expect({
        position: here,
        triggered: triggers(here, level, input.trigger),
        raw_quantity: raw,
        quantity,
        position_after: here + quantity,
      }).toEqual({
        position: units(expected.position as number),
        triggered: expected.triggered,
        raw_quantity: units(expected.raw_quantity as number),
        quantity: units(expected.quantity as number),
        position_after: units(expected.position_after as number),
      });
      if (expected.packs !== undefined) expect(quantity / units(input.pack_size ?? 0)).toBe(expected.packs);
    },
  );

  test.each(cases.filter((c) => c.kind === 'extended_cost').map((c) => [c.id, c] as const))(
    '%s',
    (_, { input, expected }) => {
      const price = { amount: input.unit_cost ?? '', perQuantity: '1', packContent: fraction(1) };
      expect(minorToDecimal(lineNet(units(input.quantity ?? 0), price, 'EUR'), 'EUR')).toBe(expected.total);
    },
  );

  test.each(cases.filter((c) => c.kind === 'stock_change').map((c) => [c.id, c] as const))(
    '%s',
    (_, { input, expected }) => {
      expect(units(input.on_hand) + units((input.packs ?? 0) * (input.pack_size ?? 0))).toBe(
        units(expected.on_hand as number),
      );
    },
  );

  test('every case of the file is of a kind tested here', () => {
    const kinds = new Set(cases.map((c) => c.kind));
    expect([...kinds].sort()).toEqual(['extended_cost', 'net_requirement', 'stock_change']);
  });
});
