import { letterheadOf, type PaperSetup, paperLanguageOf, unprintable } from '.';

describe('letters that the paper’s typeface has', () => {
  test.each(['Łódź, Ærø, ő', 'Οδός 4, Αθήνα', 'улица Пряжи, Đurđević', '12 × “3” … € ½ – · ²'])(
    '%s: all of them',
    (text) => {
      expect(unprintable(text)).toEqual([]);
    },
  );

  test('other scripts are named, each letter once', () => {
    expect(unprintable('株式会社 株 Ishimura')).toEqual(['株', '式', '会', '社']);
    expect(unprintable('تل عود')).toContain('ع');
    expect(unprintable('')).toEqual([]);
  });
});

test('the head of a paper: the letterhead, else name and address, the name once', () => {
  const setup = (letterhead: string): PaperSetup => ({
    ...{ letterhead, foot: '', hides: [] },
    texts: { en: { opening: '', closing: '' }, de: { opening: '', closing: '' }, fr: { opening: '', closing: '' } },
  });
  const buyer = { name: 'Quillon', address: 'Quillon\nWendel Yard 3' };
  expect(letterheadOf({ setup: setup('Ours\nhere'), buyer })).toBe('Ours\nhere');
  expect(letterheadOf({ setup: setup(' '), buyer })).toBe('Quillon\nWendel Yard 3');
  expect(letterheadOf({ setup: setup(''), buyer: { ...buyer, address: 'Wendel Yard 3' } })).toBe(
    'Quillon\nWendel Yard 3',
  );
});

test.each([
  ['de-AT', 'de'],
  [' FR', 'fr'],
  ['', 'en'],
  ['ja', 'en'],
])('papers for “%s” are set in %s', (language, set) => expect(paperLanguageOf(language)).toBe(set));
