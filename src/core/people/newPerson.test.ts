import fc from 'fast-check';
import { checkPassword, checkPerson, initialsOf } from '.';

const fault = (r: ReturnType<typeof checkPerson>) => (r.ok ? null : r.error.kind);

test.each([
  ['Mira Rook', 'MR'],
  ['Anna van der Berg', 'AB'],
  ['  Otto   Quillon ', 'OQ'],
  ['Jun', 'JU'],
  ['é', 'É'],
  ['𝒜lan 𝓑erg', '𝒜𝓑'],
])('%s is %s in letters', (name, initials) => expect(initialsOf(name)).toBe(initials));

test.each([
  ['mira', null],
  ['m.rook-2_b', null],
  ['7mira', null],
  ['m', 'login_shape'],
  ['Mira', 'login_shape'],
  ['mira rook', 'login_shape'],
  ['.mira', 'login_shape'],
  ['mïra', 'login_shape'],
  ['m'.repeat(60), null],
  ['m'.repeat(61), 'login_shape'],
  ['', 'login_shape'],
])('a name to sign in with: %s', (login, kind) =>
  expect(fault(checkPerson({ login, name: 'Mira Rook', password: 'needle and thread' }))).toBe(kind),
);

test('a person has a name', () => {
  expect(fault(checkPerson({ login: 'mira', name: '  ', password: 'needle and thread' }))).toBe('name_missing');
});

describe('a password', () => {
  const check = (password: string) => fault(checkPassword({ login: 'mira.rook.1', name: 'Mira van Rook', password }));

  test('is long rather than odd: ten characters of any script, counted as people count them', () => {
    expect(check('123456789')).toBe('password_short');
    expect(check('1234567890')).toBeNull();
    expect(check('пароль')).toBe('password_short');
    expect(check('иголка нитка')).toBeNull();
    // Ten signs of two code units each are ten.
    expect(check('🧵'.repeat(10))).toBeNull();
    expect(check('🧵'.repeat(9))).toBe('password_short');
  });

  test('is not the name, in whatever capitals', () => {
    expect(check('Mira.Rook.1')).toBe('password_is_name');
    expect(check('MIRA VAN ROOK')).toBe('password_is_name');
    expect(check('Mira van Rook!')).toBeNull();
  });

  test('nothing that is long enough and no name is refused', () => {
    fc.assert(
      fc.property(fc.string({ minLength: 10, maxLength: 80, unit: 'grapheme' }), (password) => {
        fc.pre([...password].length >= 10 && password.toLowerCase() !== 'mira van rook');
        expect(check(password)).toBeNull();
      }),
    );
  });
});
