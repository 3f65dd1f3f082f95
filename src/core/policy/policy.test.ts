import { units } from '@/core/quantity';
import { checkMinMax, effectivePolicy, type PolicySetting } from '.';

const company = { trigger: 'at_or_below', refill: 'up_to_max' } as const;
const set = (min: number | null, max: number | null, change: Partial<PolicySetting> = {}): PolicySetting => ({
  kind: 'min_max',
  min: min === null ? null : units(min),
  max: max === null ? null : units(max),
  trigger: null,
  refill: null,
  ...change,
});

describe('policy in force', () => {
  test('the location overrides the item as a whole and says so', () => {
    expect(effectivePolicy(company, set(20, 60), set(30, null))).toMatchObject({
      origin: 'location',
      min: units(30),
      max: null,
      refill: 'up_to_min',
    });
    expect(effectivePolicy(company, set(20, 60), null)).toMatchObject({
      origin: 'item',
      min: units(20),
      max: units(60),
      refill: 'up_to_max',
    });
  });

  test('trigger and refill come from the nearest that says them, last from the company', () => {
    expect(effectivePolicy(company, set(1, 2, { trigger: 'strictly_below' }), set(3, 4))).toMatchObject({
      trigger: 'strictly_below',
    });
    expect(
      effectivePolicy(company, set(1, 2, { refill: 'up_to_min' }), set(3, 4, { refill: 'up_to_max' })),
    ).toMatchObject({ refill: 'up_to_max' });
    expect(effectivePolicy({ trigger: 'strictly_below', refill: 'up_to_min' }, null, set(3, 4))).toMatchObject({
      trigger: 'strictly_below',
      refill: 'up_to_min',
    });
  });

  test('not carried is not the same as no policy yet', () => {
    expect(effectivePolicy(company, set(20, 60), set(null, null, { kind: 'not_carried' }))).toEqual({
      kind: 'not_carried',
      origin: 'location',
    });
    expect(effectivePolicy(company, null, null)).toEqual({ kind: 'none', origin: 'none' });
  });

  test('minimum above maximum is a fault; a maximum needs a minimum', () => {
    expect(checkMinMax(units(70), units(45))).toEqual({
      ok: false,
      error: { kind: 'min_above_max', min: units(70), max: units(45) },
    });
    expect(checkMinMax(null, units(45))).toEqual({ ok: false, error: { kind: 'max_without_min' } });
    expect(checkMinMax(units(45), units(45))).toMatchObject({ ok: true });
    expect(checkMinMax(null, null)).toMatchObject({ ok: true });
  });
});
