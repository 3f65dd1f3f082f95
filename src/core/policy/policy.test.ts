import fc from 'fast-check';
import { addDays } from '../calendar';
import { units } from '../quantity';
import {
  cellText,
  checkSetting,
  effectivePolicy,
  emptySetting,
  inSeason,
  nextSeasonChange,
  type PolicyLevel,
  type PolicySetting,
  plainMinMax,
  policyHints,
  readCell,
  type Season,
  setByRule,
  supplyLoop,
} from '.';

const TODAY = '2026-11-25';
const set = (change: Partial<PolicySetting>): PolicySetting => ({ ...emptySetting, ...change });
const at = (origin: PolicyLevel['origin'], change: Partial<PolicySetting>): PolicyLevel => ({
  origin,
  setting: set(change),
});
const minMax = (min: number | null, max: number | null) => ({
  kind: 'min_max' as const,
  min: min === null ? null : units(min),
  max: max === null ? null : units(max),
});
const inForce = (...levels: PolicyLevel[]) => effectivePolicy(levels, TODAY);

describe('policy in force', () => {
  test('each value comes from the nearest level that says it, and says so', () => {
    const p = inForce(
      at('location', { min: units(30) }),
      at('item', minMax(20, 60)),
      at('category', { trigger: 'strictly_below', targetThousandths: 980 }),
      at('company', { kind: 'periodic', trigger: 'at_or_below', refill: 'up_to_min' }),
    );
    expect(p).toMatchObject({
      kind: 'min_max',
      min: units(30),
      max: units(60),
      trigger: 'strictly_below',
      refill: 'up_to_min',
    });
    expect(p).toMatchObject({ targetThousandths: 980, origin: 'item' });
    expect(p.from).toMatchObject({
      kind: 'item',
      min: 'location',
      max: 'item',
      trigger: 'category',
      refill: 'company',
      fixed: 'none',
    });
  });

  test('a wider maximum below a nearer minimum is of no use: up to the minimum', () => {
    expect(inForce(at('location', { min: units(70) }), at('item', minMax(20, 60)))).toMatchObject({
      min: units(70),
      max: null,
      refill: 'up_to_min',
    });
    // At one and the same level it is a fault, which stays visible.
    expect(inForce(at('item', minMax(70, 60)))).toMatchObject({ min: units(70), max: units(60) });
  });

  test('what the kind cannot do without is missing; not carried is not the same as no policy yet', () => {
    expect(inForce(at('company', { kind: 'min_max' }))).toMatchObject({ kind: 'min_max', missing: ['min'] });
    expect(inForce(at('item', { kind: 'fixed_quantity', min: units(3) }))).toMatchObject({ missing: ['fixed'] });
    expect(inForce(at('item', { kind: 'days_of_cover' }))).toMatchObject({ missing: ['coverDays'] });
    expect(inForce(at('item', { kind: 'periodic' }))).toMatchObject({ missing: [] });
    expect(inForce(at('location', { kind: 'not_carried' }), at('item', minMax(20, 60)))).toMatchObject({
      kind: 'not_carried',
      origin: 'location',
      missing: [],
    });
    expect(inForce()).toMatchObject({ kind: 'none', origin: 'none', trigger: 'at_or_below', targetThousandths: 950 });
  });
});

describe('seasons', () => {
  const wool: Season = { from: '2025-10-01', to: '2026-02-28', everyYear: true, min: units(40), max: units(90) };
  const fair: Season = { from: '2026-12-01', to: '2026-12-06', everyYear: false, min: units(80), max: null };

  test('a season every year may run over New Year; both its days belong to it', () => {
    for (const [day, on] of [
      ['2026-09-30', false],
      ['2026-10-01', true],
      ['2030-01-15', true],
      ['2027-02-28', true],
      ['2027-03-01', false],
    ] as const)
      expect(inSeason(wool, day)).toBe(on);
    expect(inSeason(fair, '2026-12-06')).toBe(true);
    expect(inSeason(fair, '2027-12-03')).toBe(false);
  });

  test('in season its min and max are in force, each where it says one; at a nearer level before a wider', () => {
    const item = at('item', { ...minMax(20, 60), seasons: [wool] });
    expect(inForce(item)).toMatchObject({ min: units(40), max: units(90), minSeason: wool });
    expect(effectivePolicy([item], '2026-08-01')).toMatchObject({ min: units(20), max: units(60), minSeason: null });
    expect(inForce(at('location', { min: units(10) }), item)).toMatchObject({ min: units(10), max: units(90) });
    expect(effectivePolicy([at('item', { ...minMax(20, 99), seasons: [fair] })], '2026-12-02')).toMatchObject({
      min: units(80),
      max: units(99),
      maxSeason: null,
    });
  });

  test('the next day on which one begins or has ended', () => {
    expect(nextSeasonChange([wool], TODAY)).toBe('2027-03-01');
    expect(nextSeasonChange([wool], '2026-03-01')).toBe('2026-10-01');
    expect(nextSeasonChange([wool, fair], TODAY)).toBe('2026-12-01');
    expect(nextSeasonChange([fair], '2026-12-03')).toBe('2026-12-07');
    expect(nextSeasonChange([fair], '2026-12-07')).toBeNull();
    expect(nextSeasonChange([], TODAY)).toBeNull();
  });

  test('the same as looking day by day for a year, also over 29 February and New Year', () => {
    const day = fc.integer({ min: 0, max: 1460 }).map((n) => addDays('2023-06-01', n));
    const yearly = fc.record({ from: day, to: day }).map((s) => ({ ...s, everyYear: true, min: units(1), max: null }));
    fc.assert(
      fc.property(fc.array(yearly, { minLength: 1, maxLength: 3 }), day, (seasons, today) => {
        const state = (on: string) => seasons.map((s) => inSeason(s, on)).join();
        const ahead = Array.from({ length: 366 }, (_, n) => addDays(today, n + 1));
        expect(nextSeasonChange(seasons, today)).toBe(ahead.find((d) => state(d) !== state(today)) ?? null);
      }),
      {
        examples: [
          [[{ from: '2024-02-29', to: '2024-02-29', everyYear: true, min: units(1), max: null }], '2026-05-01'],
        ],
      },
    );
  });
});

describe('what is refused and what is worth a word', () => {
  test('minimum above maximum, also in a season; nothing to multiply; a season that ends before it begins', () => {
    expect(checkSetting(set(minMax(70, 45)))).toEqual({
      ok: false,
      error: { kind: 'min_above_max', min: units(70), max: units(45) },
    });
    const season = { from: '2026-01-01', to: '2026-02-01', everyYear: false, min: units(9), max: units(4) };
    expect(checkSetting(set({ seasons: [season] }))).toMatchObject({ error: { kind: 'min_above_max' } });
    expect(checkSetting(set({ fixed: 0 }))).toMatchObject({ error: { kind: 'not_positive', field: 'fixed' } });
    expect(checkSetting(set({ seasons: [{ ...season, from: '2026-03-01', max: null }] }))).toMatchObject({
      error: { kind: 'season_reversed' },
    });
    expect(checkSetting(set(minMax(45, 45))).ok).toBe(true);
  });

  test('less than a pack between them; below what is sold in the lead time', () => {
    const figures = { packMicro: units(10), leadTimeDemand: units(16.8) };
    expect(policyHints(units(20), units(25), figures)).toEqual([
      { kind: 'less_than_a_pack', between: units(5), pack: units(10) },
    ]);
    expect(policyHints(units(10), units(20), figures)).toEqual([
      { kind: 'below_lead_time_demand', demand: units(16.8) },
    ]);
    expect(policyHints(units(20), units(10), figures)).toEqual([{ kind: 'max_below_min' }]);
    expect(policyHints(units(20), units(30), figures)).toEqual([]);
    expect(policyHints(null, units(30), figures)).toEqual([]);
  });
});

describe('set by rule', () => {
  const figures = {
    perDay: units(2.1),
    advised: units(29.4),
    min: units(20),
    max: units(60),
    packMicro: units(10),
    unitMicro: units(1),
  };
  test.each([
    [{ column: 'min', basis: 'days_of_demand', amount: 10, round: 'packs' }, 30],
    [{ column: 'min', basis: 'days_of_demand', amount: 10, round: 'units' }, 21],
    [{ column: 'min', basis: 'advised', amount: 0, round: 'packs' }, 30],
    [{ column: 'min', basis: 'factor', amount: 1.15, round: 'units' }, 23],
    [{ column: 'max', basis: 'factor', amount: 1.15, round: 'packs' }, 70],
    [{ column: 'max', basis: 'min_plus_days', amount: 14, round: 'units' }, 50],
    [{ column: 'max', basis: 'min_plus_packs', amount: 2, round: 'packs' }, 40],
  ] as const)('%j gives %d', (rule, value) => expect(setByRule(rule, figures)).toBe(units(value)));

  test('without its basis a cell is left as it is', () => {
    const nothing = { ...figures, perDay: 0, advised: null, min: null, max: null };
    for (const basis of ['days_of_demand', 'advised', 'factor', 'min_plus_days', 'min_plus_packs'] as const)
      expect(setByRule({ column: 'max', basis, amount: 5, round: 'units' }, nothing)).toBeNull();
  });
});

test('a circle of places is spelled out; a chain is none', () => {
  expect(
    supplyLoop(
      new Map([
        [1, 2],
        [2, 3],
        [3, 1],
      ]),
    ),
  ).toEqual([1, 2, 3, 1]);
  expect(
    supplyLoop(
      new Map([
        [4, 1],
        [1, 2],
        [2, 1],
      ]),
    ),
  ).toEqual([1, 2, 1]);
  expect(
    supplyLoop(
      new Map<number, number | null>([
        [1, 2],
        [2, 3],
        [3, null],
      ]),
    ),
  ).toBeNull();
});

test('the quick way for plain rows says the same as the whole one', () => {
  const q = fc.option(fc.integer({ min: 0, max: 9 }).map(units));
  const row = fc.option(
    fc.record({
      kind: fc.constantFrom('min_max' as const, 'not_carried' as const, null),
      min: q,
      max: q,
      trigger: fc.constantFrom('at_or_below' as const, 'strictly_below' as const, null),
      refill: fc.constantFrom('up_to_max' as const, 'up_to_min' as const, null),
    }),
  );
  fc.assert(
    fc.property(row, row, row, row, (own, item, category, company) => {
      const wide: PolicyLevel[] = [
        ...(category ? [at('category', category)] : []),
        ...(company ? [at('company', company)] : []),
      ];
      const whole = inForce(...(own ? [at('location', own)] : []), ...(item ? [at('item', item)] : []), ...wide);
      const plain = plainMinMax(own, item, inForce(...wide));
      if (whole.kind !== 'min_max') return expect(plain).toBeNull();
      const { min, max, trigger, refill } = whole;
      expect(plain).toEqual({ min, max, trigger, refill });
    }),
    { numRuns: 2000 },
  );
});

describe('cells of the policy sheet', () => {
  test.each([
    ['min', '12.5', units(12.5)],
    ['coverDays', '14', 14],
    ['targetThousandths', '97.5', 975],
    ['targetThousandths', '95 %', 950],
    ['useStock', 'no', false],
    ['kind', 'periodic', 'periodic'],
    ['max', ' ', null],
  ] as const)('%s “%s”', (field, typed, value) => {
    expect(readCell(field, typed)).toEqual({ ok: true, value });
    if (typed.trim() !== '' && !typed.includes('%')) expect(cellText(field, value as never)).toBe(typed);
  });

  test.each([
    ['min', 'many', 'not_a_number'],
    ['coverDays', '0', 'not_days'],
    ['windowDays', '7.5', 'not_days'],
    ['targetThousandths', '100', 'not_percent'],
    ['targetThousandths', '30', 'not_percent'],
    ['trigger', 'always', 'not_a_choice'],
  ] as const)('%s “%s” is refused: %s', (field, typed, kind) =>
    expect(readCell(field, typed)).toMatchObject({ ok: false, error: { kind } }),
  );
});
