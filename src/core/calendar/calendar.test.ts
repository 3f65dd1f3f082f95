import {
  addDays,
  addWorkingDays,
  businessDate,
  daysBetween,
  instantOf,
  isDate,
  isWorkingDay,
  parseDate,
  startOfDay,
  workingDayFrom,
} from '.';

describe('business dates', () => {
  test('the day is the company’s, not the server’s', () => {
    const late = new Date('2026-11-22T23:30:00Z');
    expect(businessDate(late, 'Europe/Berlin')).toBe('2026-11-23');
    expect(businessDate(late, 'America/New_York')).toBe('2026-11-22');
  });

  test('across a month, a leap day and the end of summer time', () => {
    expect(addDays('2028-02-28', 1)).toBe('2028-02-29');
    expect(addDays('2026-10-24', 2)).toBe('2026-10-26');
    expect(daysBetween('2026-12-30', '2027-01-02')).toBe(3);
    expect(isDate('2026-02-30')).toBe(false);
    expect(isDate('2026-2-3')).toBe(false);
  });

  test('working days: Friday plus one is Monday', () => {
    expect(isWorkingDay('2026-11-28')).toBe(false);
    expect(workingDayFrom('2026-11-28')).toBe('2026-11-30');
    expect(addWorkingDays('2026-11-27', 1)).toBe('2026-11-30');
    expect(addWorkingDays('2026-11-23', 6)).toBe('2026-12-01');
    expect(addWorkingDays('2026-11-29', 0)).toBe('2026-11-30');
  });
});

describe('when time alone changes things', () => {
  test.each([
    ['2026-11-23', 'Europe/Berlin', '2026-11-22T23:00:00.000Z'],
    ['2026-07-01', 'Europe/Berlin', '2026-06-30T22:00:00.000Z'],
    ['2026-03-29', 'Europe/Berlin', '2026-03-28T23:00:00.000Z'],
    ['2026-11-23', 'America/New_York', '2026-11-23T05:00:00.000Z'],
    ['2026-11-23', 'Pacific/Kiritimati', '2026-11-22T10:00:00.000Z'],
    ['2026-11-23', 'Asia/Kathmandu', '2026-11-22T18:15:00.000Z'],
    ['2026-11-23', 'Etc/GMT+12', '2026-11-23T12:00:00.000Z'],
  ])('%s in %s begins at %s', (date, zone, at) => {
    const start = startOfDay(date, zone);
    expect(start.toISOString()).toBe(at);
    expect(businessDate(start, zone)).toBe(date);
    expect(businessDate(new Date(start.getTime() - 1), zone)).toBe(addDays(date, -1));
  });
});

describe('dates as a buyer types them', () => {
  // Monday 23 November 2026 is week 48 by ISO 8601.
  test.each([
    ['+7', '2026-11-30'],
    ['+5', '2026-11-30'],
    ['fri', '2026-11-27'],
    ['Friday', '2026-11-27'],
    ['mon', '2026-11-30'],
    ['wk 50', '2026-12-07'],
    ['wk 48', '2026-11-23'],
    ['week 2', '2027-01-11'],
    ['3 dec', '2026-12-03'],
    ['Thu 3 Dec', '2026-12-03'],
    ['2 january', '2027-01-04'],
    ['3.12.', '2026-12-03'],
    ['2026-12-05', '2026-12-07'],
    ['today', '2026-11-23'],
    ['end of next week', '2026-12-04'],
    ['4 jan 2027', '2027-01-04'],
  ])('%s', (typed, date) => expect(parseDate(typed, '2026-11-23')).toEqual({ ok: true, value: date }));

  test.each(['', 'soon', '31 feb', 'wk 54', '45.1.', '2026-13-01'])('“%s” is no date', (typed) => {
    expect(parseDate(typed, '2026-11-23')).toMatchObject({ ok: false, error: { kind: 'not_a_date' } });
  });
});

test('the instant of a time of day: winter, summer, the hour that is skipped, the hour that comes twice', () => {
  const of = (date: string, time: string) => instantOf(date, time, 'Europe/Berlin').toISOString().slice(0, 16);
  expect(of('2026-11-25', '09:40')).toBe('2026-11-25T08:40');
  expect(of('2026-07-01', '0:05')).toBe('2026-06-30T22:05');
  // Clocks go from 2:00 to 3:00 on 29 March and from 3:00 back to 2:00 on 25 October 2026.
  expect(of('2026-03-29', '02:30')).toBe('2026-03-29T01:30');
  expect(of('2026-10-25', '02:30')).toBe('2026-10-25T00:30');
  expect(of('2026-10-25', '03:30')).toBe('2026-10-25T02:30');
  expect(instantOf('2026-01-01', '12:00', 'Pacific/Auckland').toISOString()).toBe('2025-12-31T23:00:00.000Z');
});
