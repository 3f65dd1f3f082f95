import {
  addDays,
  addWorkingDays,
  arrivalDate,
  businessDate,
  coverHorizon,
  dayHorizonReaches,
  daysBetween,
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

  test('arrival lands on a working day; the horizon adds review and receiving', () => {
    expect(arrivalDate('2026-11-23', { days: 6, kind: 'working' })).toBe('2026-12-01');
    expect(arrivalDate('2026-11-23', { days: 12, kind: 'calendar' })).toBe('2026-12-07');
    expect(arrivalDate('2026-11-28', { days: 0, kind: 'working' })).toBe('2026-11-30');
    expect(coverHorizon('2026-11-23', { days: 6, kind: 'working' })).toBe('2026-12-03');
    expect(coverHorizon('2026-11-23', null)).toBeNull();
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

  test('a part wanted later comes within the horizon on the first day that reaches it', () => {
    for (const lead of [
      { days: 0, kind: 'calendar' as const },
      { days: 6, kind: 'working' as const },
      { days: 12, kind: 'calendar' as const },
    ]) {
      for (let ahead = 20; ahead < 60; ahead += 1) {
        const wanted = addDays('2026-11-23', ahead);
        if ((coverHorizon('2026-11-23', lead) as string) >= wanted) continue;
        const day = dayHorizonReaches('2026-11-23', wanted, lead) as string;
        expect((coverHorizon(day, lead) as string) >= wanted).toBe(true);
        expect((coverHorizon(addDays(day, -1), lead) as string) < wanted).toBe(true);
      }
    }
    expect(dayHorizonReaches('2026-11-23', '2027-02-01', null)).toBeNull();
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
