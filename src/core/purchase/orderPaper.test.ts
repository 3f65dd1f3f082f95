import { unprintable } from '.';

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
