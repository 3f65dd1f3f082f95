import fc from 'fast-check';
import { units } from '@/core/quantity';
import {
  backDatedEffect,
  issue,
  type LedgerEntry,
  type LevelValue,
  type Passage,
  receive,
  removeAtValue,
  replayByDate,
  spreadLateCharge,
  stillThere,
} from '.';

const none: LevelValue = { quantity: 0, value: 0 };
const quantity = fc.integer({ min: 1, max: 400_000_000 });
const money = fc.integer({ min: 0, max: 3_000_000 });

describe('goods that leave at a known value', () => {
  test('more stays than goes: the level gives that value', () => {
    expect(removeAtValue({ quantity: units(15), value: 3600 }, units(5), 1200)).toEqual({
      level: { quantity: units(10), value: 2400 },
      valueChange: -1200,
      variance: 0,
    });
  });

  test('a level never gives more than it has: the rest is variance', () => {
    expect(removeAtValue({ quantity: units(15), value: 1000 }, units(5), 1200)).toEqual({
      level: { quantity: units(10), value: 0 },
      valueChange: -1000,
      variance: -200,
    });
  });

  test('more goes than is there: the missing pieces leave at their share', () => {
    expect(removeAtValue({ quantity: units(4), value: 900 }, units(10), 2000)).toEqual({
      level: { quantity: units(-6), value: -1200 },
      valueChange: -2100,
      variance: 100,
    });
    expect(removeAtValue({ quantity: units(-2), value: -400 }, units(10), 2000).level).toEqual({
      quantity: units(-12),
      value: -2400,
    });
  });

  test('value change and variance together are the value; nothing on hand has no value', () => {
    fc.assert(
      fc.property(fc.integer({ min: -4e8, max: 4e8 }), money, quantity, money, (onHand, worth, q, value) => {
        const level = { quantity: onHand, value: onHand === 0 ? 0 : Math.sign(onHand) * worth };
        const posted = removeAtValue(level, q, value);
        expect(posted.valueChange + posted.variance).toBe(-value || 0);
        expect(posted.level.value).toBe(level.value + posted.valueChange);
        if (posted.level.quantity === 0) expect(posted.level.value).toBe(0);
      }),
    );
  });
});

describe('a back-dated receipt', () => {
  const step = fc.record({ in: fc.boolean(), q: quantity, value: money, day: fc.integer({ min: 1, max: 28 }) });

  test('without one, posting order is date order and there is no effect', () => {
    fc.assert(
      fc.property(fc.array(step, { maxLength: 12 }), (steps) => {
        let [level, last] = [none, none];
        const days = steps.map((s) => s.day).sort((a, b) => a - b);
        const entries = steps.map((s, i): LedgerEntry => {
          const given = s.in ? receive(level, s.q, s.value) : issue(level, s.q, last);
          level = given.level;
          if (s.in) last = { quantity: s.q, value: s.value };
          return {
            businessDate: `2026-11-${String(days[i]).padStart(2, '0')}`,
            posting: i + 1,
            quantity: s.in ? s.q : -s.q,
            valued: s.in ? 'given' : 'average',
            value: s.value,
          };
        });
        expect(backDatedEffect(level, replayByDate(none, entries))).toEqual({ valueChange: 0, variance: 0 });
      }),
    );
  });

  test('the level ends where the replay ends, as far as there is value; its effect on what is not there is variance', () => {
    expect(backDatedEffect({ quantity: units(5), value: 900 }, { quantity: units(5), value: 700 })).toEqual({
      valueChange: -200,
      variance: 0,
    });
    expect(backDatedEffect({ quantity: units(5), value: 100 }, { quantity: units(5), value: -50 })).toEqual({
      valueChange: -100,
      variance: -50,
    });
    expect(backDatedEffect({ quantity: units(-5), value: -900 }, { quantity: units(-5), value: -700 })).toEqual({
      valueChange: 0,
      variance: 200,
    });
  });

  test('the effect of an earlier replay is not counted twice', () => {
    const entry = (posting: number, day: string, q: number, valued: LedgerEntry['valued'], value: number) => ({
      businessDate: `2026-11-${day}`,
      posting,
      quantity: units(q),
      valued,
      value,
    });
    const story = [
      entry(1, '02', 10, 'given', 2000),
      entry(2, '05', -5, 'average', 0),
      entry(3, '03', 10, 'given', 4000),
    ];
    // 15 for 5000 booked; by date 20 for 6000, 5 go at 1500: 4500 stay.
    expect(replayByDate(none, story)).toEqual({ quantity: units(15), value: 4500 });
    const again = [...story, entry(4, '09', 0, 'adjustment', -500), entry(5, '04', 10, 'given', 3000)];
    expect(replayByDate(none, again)).toEqual({ quantity: units(25), value: 7500 });
  });
});

describe('a charge that comes late', () => {
  test('what was sold since bears nothing: its share is variance', () => {
    const there = stillThere({ place: 'A', quantity: units(20) }, [], () => units(5));
    expect(spreadLateCharge(1000, units(20), there)).toEqual({ shares: new Map([['A', 250]]), variance: 750 });
    expect(stillThere({ place: 'A', quantity: units(20) }, [], () => units(-3)).size).toBe(0);
  });

  test('goods on their way keep their share under the name of the shipment', () => {
    const passages: Passage[] = [
      { kind: 'sent', place: 'A', shipment: 'T9', quantity: units(6), onHandBefore: units(30) },
      { kind: 'arrived', place: 'B', shipment: 'T9', quantity: units(2) },
    ];
    // 20 of the 30 belong to the line: 4 of the 6 sent; a third of them has arrived.
    const there = stillThere({ place: 'A', quantity: units(20) }, passages, () => units(100));
    expect([...there]).toEqual([
      ['A', units(16)],
      ['T9', 2_666_667],
      ['B', 1_333_333],
    ]);
  });

  test('shares and variance add up to the amount', () => {
    fc.assert(
      fc.property(fc.integer({ min: -90_000, max: 90_000 }), fc.array(quantity, { maxLength: 6 }), (amount, parts) => {
        const received = parts.reduce((a, b) => a + b, 1);
        const { shares, variance } = spreadLateCharge(
          amount,
          received,
          parts.map((q, i) => [`P${i}`, q] as const),
        );
        expect([...shares.values()].reduce((a, b) => a + b, variance)).toBe(amount);
      }),
    );
  });
});
