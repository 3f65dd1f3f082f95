import { countOf, Format, plural } from './format';

const british = new Format('en-GB');

describe('format', () => {
  test('quantities, money, prices by locale', () => {
    expect(british.quantity(150_876_000)).toBe('150.876');
    expect(british.money(258_820, 'EUR')).toBe('€2,588.20');
    expect(british.amount(1232, 'JPY')).toBe('1,232');
    expect([british.quantity(-2_000_000), british.amount(-984, 'EUR'), british.money(-984, 'EUR')]).toEqual([
      '−2',
      '−9.84',
      '−€9.84',
    ]);
    expect(british.price('32.8')).toBe('32.80');
    expect(new Format('de-DE').amount(258_820, 'EUR')).toBe('2.588,20');
  });

  test('dates are said', () => {
    expect(british.date('2026-12-03')).toBe('Thu 3 Dec');
    expect(british.dateWithYear('2026-09-02')).toBe('2 Sep 2026');
    expect(british.due('2026-11-19', '2026-11-23')).toEqual({ text: 'Thu 19 Nov, 4 days late', late: 4 });
    expect(british.due('2026-11-22', '2026-11-23').text).toBe('Sun 22 Nov, 1 day late');
    expect(british.due('2026-11-23', '2026-11-23').text).toBe('today');
  });

  test('the browser’s first usable language', () => {
    expect(Format.fromAcceptLanguage('de-DE,de;q=0.9,en;q=0.8').locale).toBe('de-DE');
    expect(Format.fromAcceptLanguage('*').locale).toBe('en-GB');
    expect(Format.fromAcceptLanguage(null).locale).toBe('en-GB');
  });

  test('a number of things', () => {
    expect([countOf(0, 'need'), countOf(1, 'need'), countOf(16, 'need')]).toEqual(['0 needs', '1 need', '16 needs']);
  });

  test('packs in the plural', () => {
    expect([plural('box', 2e6), plural('bag', 1e6), plural('bag', 0), plural('m', 5e6)]).toEqual([
      'boxes',
      'bag',
      'bags',
      'm',
    ]);
  });
});
