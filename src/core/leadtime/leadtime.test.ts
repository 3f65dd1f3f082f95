import reference from '../../../tests/reference/leadtime.json';
import { countWorkingDays, isWorked, offsetWorkingDays, plainWeek, rollTo, type WorkCalendar } from '../calendar';
import { deliveryRecord, leadTimeInUse, quantile1, quantile7, sampleStatistics } from '.';

// biome-ignore lint/suspicious/noExplicitAny: the cases of one file have fields of different types.
type Case = { id: string; kind: string; input: any; expected: any };
const cases = reference.cases as unknown as Case[];
const of = (kind: string) => cases.filter((c) => c.kind === kind).map((c) => [c.id, c] as const);
const calendarOf = (input: { weekmask: string; holidays: string[] }): WorkCalendar => ({
  week: [...input.weekmask].map((d) => d === '1') as unknown as WorkCalendar['week'],
  holidays: new Set(input.holidays),
});
const close = (a: number, b: number) =>
  expect(Math.abs(a - b)).toBeLessThanOrEqual(Math.max(1e-12, 1e-10 * Math.abs(b)));

// Source: tests/reference/leadtime.json: R 4.2.2 (mean, sd, quantile types 7 and 1) and numpy 1.24.2 (busday functions).
describe('lead time reference', () => {
  test.each(of('sample_statistics'))('%s', (_, { input, expected }) => {
    const s = sampleStatistics(input.values);
    if (!s) throw new Error('no values');
    expect(s.n).toBe(expected.n);
    close(s.mean, expected.mean);
    close(s.median, expected.median);
    if (expected.sd === null) expect(s.sd).toBeNull();
    else close(s.sd as number, expected.sd);
    for (const [i, p] of input.p.entries()) {
      close(quantile7(input.values, p), expected.quantile_type_7[i]);
      close(quantile1(input.values, p), expected.quantile_type_1[i]);
    }
  });

  test.each(of('busday_offset'))('%s', (_, { input, expected }) => {
    expect(offsetWorkingDays(calendarOf(input), input.start, input.days, input.roll)).toBe(expected.date);
  });

  test.each(of('busday_count'))('%s', (_, { input, expected }) => {
    expect(countWorkingDays(calendarOf(input), input.begin, input.end)).toBe(expected.days);
  });

  test('every case of the file is of a kind tested here', () => {
    expect([...new Set(cases.map((c) => c.kind))].sort()).toEqual([
      'busday_count',
      'busday_offset',
      'sample_statistics',
    ]);
  });
});

test('no lead times have no figures; an impossible quantile and calendar are defects', () => {
  expect(sampleStatistics([])).toBeNull();
  expect(() => quantile7([], 0.5)).toThrow(RangeError);
  expect(() => quantile7([1], 1.5)).toThrow(RangeError);
  const never: WorkCalendar = { week: [false, false, false, false, false, false, false], holidays: new Set() };
  expect(() => rollTo(never, '2026-11-23', 'forward')).toThrow(RangeError);
});

test('a holiday is no working day', () => {
  const calendar: WorkCalendar = { ...plainWeek, holidays: new Set(['2026-12-25']) };
  expect(isWorked(calendar, '2026-12-25')).toBe(false);
  expect(rollTo(calendar, '2026-12-25', 'forward')).toBe('2026-12-28');
});

// On time by line: common practice.
test('the record of a supplier: days taken, promises kept', () => {
  const line = (ordered: string, promised: string | null, received: string) => ({ ordered, promised, received });
  const record = deliveryRecord([
    line('2026-10-01', '2026-10-08', '2026-10-08'),
    line('2026-10-05', '2026-10-12', '2026-10-14'),
    line('2026-10-26', null, '2026-11-02'),
  ]);
  expect(record).toMatchObject({ promised: 2, onTime: 1, days: { n: 3, median: 7, p90: 8.6 } });
  expect(record.days?.mean).toBeCloseTo(23 / 3, 12);
  expect(deliveryRecord([])).toEqual({ days: null, promised: 0, onTime: 0 });
});

test('measured lead times count from so many on, each as it was from more on; else what is stated', () => {
  const rule = { use: 'measured' as const, least: 5, empirical: 20 };
  const measured = (n: number) => ({
    ...(sampleStatistics(new Array(n).fill(0).map((_, i) => 7 + (i % 3))) as NonNullable<
      ReturnType<typeof sampleStatistics>
    >),
    observed: [7, 8, 9],
  });
  const stated = { days: 5, kind: 'working' as const };
  expect(leadTimeInUse(stated, measured(4), rule)).toEqual({ mean: 7, sd: 0, observed: null, from: 'stated', n: 4 });
  expect(leadTimeInUse(stated, measured(6), rule)).toMatchObject({ mean: 8, observed: null, from: 'measured', n: 6 });
  expect(leadTimeInUse(stated, measured(21), rule)).toMatchObject({ observed: [7, 8, 9] });
  expect(leadTimeInUse(stated, measured(21), { ...rule, use: 'stated' })).toMatchObject({ from: 'stated' });
  expect(leadTimeInUse({ days: 9, kind: 'calendar' }, null, rule)).toMatchObject({ mean: 9, n: 0 });
});
