import fc from 'fast-check';
import { units } from '@/core/quantity';
import { issue, receive } from '.';

const none = { quantity: 0, value: 0 };

// Common practice: perpetual moving average, worked by hand.
describe('moving average', () => {
  test('receive 10 at 2.00, 10 at 4.00; 5 go out at 3.00; the last piece takes what is left', () => {
    const first = receive(none, units(10), 2000);
    const second = receive(first.level, units(10), 4000);
    const out = issue(second.level, units(5), none);
    expect(out).toEqual({ level: { quantity: units(15), value: 4500 }, valueChange: -1500, variance: 0 });
    expect(issue(out.level, units(15), none).level).toEqual(none);
  });

  test('three pieces worth 10.00: 3.33, 3.34, 3.33 go out', () => {
    let level = { quantity: units(3), value: 1000 };
    const outs = [0, 1, 2].map(() => {
      const posted = issue(level, units(1), none);
      level = posted.level;
      return -posted.valueChange;
    });
    expect(outs).toEqual([333, 334, 333]);
    expect(level).toEqual(none);
  });

  test('below zero goods leave at the last known cost; the next receipt settles it against variance', () => {
    const sold = issue({ quantity: units(1), value: 150 }, units(3), { quantity: units(1), value: 155 });
    expect(sold.level).toEqual({ quantity: units(-2), value: -310 });
    // 24 spools for 37.20: two fill the gap at 1.55 each, which is what they cost, so nothing is left over.
    expect(receive(sold.level, units(24), 3720)).toEqual({
      level: { quantity: units(22), value: 3410 },
      valueChange: 3720,
      variance: 0,
    });
    // Dearer goods: 2 × 2.00 against 2 × 1.55 leaves 0.90 in variance; 22 × 2.00 is carried.
    expect(receive(sold.level, units(24), 4800)).toEqual({
      level: { quantity: units(22), value: 4400 },
      valueChange: 4710,
      variance: 90,
    });
  });

  test('nothing on hand has no value, and what came in is stock, cost of goods or variance', () => {
    const step = fc.record({
      q: fc.integer({ min: 1, max: 500_000_000 }),
      value: fc.integer({ min: 0, max: 5_000_000 }),
      out: fc.boolean(),
    });
    fc.assert(
      fc.property(fc.array(step, { maxLength: 30 }), (steps) => {
        let level = none;
        let [came, went, variance] = [0, 0, 0];
        for (const s of steps) {
          const posted = s.out ? issue(level, s.q, { quantity: s.q, value: s.value }) : receive(level, s.q, s.value);
          expect(posted.level.value).toBe(level.value + posted.valueChange);
          if (s.out) went -= posted.valueChange;
          else came += s.value;
          variance += posted.variance;
          level = posted.level;
          if (level.quantity === 0) expect(level.value).toBe(0);
        }
        expect(came).toBe(level.value + went + variance);
      }),
    );
  });
});
