import fc from 'fast-check';
import { MICRO, units } from '@/core/quantity';
import { type Delivery, splitDelivery, spreadOverWeeks } from '.';

const delivery = (packs: number): Delivery => ({ packs: units(packs), date: '2026-12-04', placeId: 1 });
const from = (packs: number, came = 0) => ({ ...delivery(packs), came: units(came) });

describe('a line over several deliveries', () => {
  test('900 = 600 + 300, also after a third part', () => {
    const first = splitDelivery(from(900), { packs: units(300), date: '2027-01-08', placeId: 2 }, false);
    expect(first).toMatchObject({ ok: true, value: [{ packs: units(600) }, { packs: units(300), placeId: 2 }] });
    const again = splitDelivery(from(600), delivery(150), false);
    expect(again).toMatchObject({ ok: true, value: [{ packs: units(450) }, { packs: units(150) }] });
  });

  test('what came already stays where it is', () => {
    expect(splitDelivery(from(10, 6), delivery(3), false)).toMatchObject({
      ok: true,
      value: [{ packs: units(7) }, {}],
    });
    expect(splitDelivery(from(10, 6), delivery(4), false)).toMatchObject({
      ok: false,
      error: { kind: 'nothing_left' },
    });
  });

  test('nothing, all, and broken packs are refused; broken packs are not where they are wanted', () => {
    expect(splitDelivery(from(10), delivery(0), false)).toMatchObject({ error: { kind: 'zero_quantity' } });
    const most = (packs: number, came: number, broken: boolean) => {
      const split = splitDelivery({ ...from(packs), came: units(came) }, delivery(packs), broken);
      return split.ok || split.error.kind !== 'nothing_left' ? null : split.error.most;
    };
    expect([most(10, 0, false), most(10, 2.5, false), most(1, 0, false)]).toEqual([units(9), units(7), 0]);
    expect(most(1, 0, true)).toBe(999_999);
    expect(splitDelivery(from(10), delivery(2.5), false)).toMatchObject({ error: { kind: 'not_whole_packs' } });
    expect(splitDelivery(from(10), delivery(2.5), true)).toMatchObject({
      ok: true,
      value: [{ packs: units(7.5) }, {}],
    });
  });

  test('spread evenly over weeks: whole packs, the earlier ones take what does not go round', () => {
    const spread = spreadOverWeeks(delivery(10), 4, '2026-12-04');
    expect(spread.ok && spread.value.map((d) => [d.packs / MICRO, d.date])).toEqual([
      [3, '2026-12-04'],
      [3, '2026-12-11'],
      [2, '2026-12-18'],
      [2, '2026-12-25'],
    ]);
    expect(spreadOverWeeks(delivery(2), 4, '2026-12-04')).toMatchObject({ ok: true, value: [{}, {}] });
    expect(spreadOverWeeks(delivery(2), 1, '2026-12-04')).toMatchObject({ error: { kind: 'zero_quantity' } });
  });

  test('the sum stays, however it is split or spread', () => {
    const packs = fc.integer({ min: 1, max: 90_000 });
    fc.assert(
      fc.property(packs, packs, fc.boolean(), (all, off, broken) => {
        const split = splitDelivery(from(all), { ...delivery(1), packs: broken ? off : off * MICRO }, broken);
        if (split.ok) expect(split.value[0].packs + split.value[1].packs).toBe(units(all));
      }),
    );
    fc.assert(
      fc.property(packs, fc.integer({ min: 2, max: 52 }), (all, weeks) => {
        const spread = spreadOverWeeks(delivery(all), weeks, '2026-12-04');
        if (!spread.ok) throw new Error('refused');
        expect(spread.value.reduce((sum, d) => sum + d.packs, 0)).toBe(units(all));
        const sizes = spread.value.map((d) => d.packs);
        expect(Math.max(...sizes) - Math.min(...sizes)).toBeLessThanOrEqual(MICRO);
        expect(sizes.every((q) => q > 0 && q % MICRO === 0)).toBe(true);
      }),
    );
  });
});
