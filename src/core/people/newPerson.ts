import { err, ok, type Result } from '@/core/result';

export type PersonFault =
  | { readonly kind: 'login_shape'; readonly text: string }
  | { readonly kind: 'password_short'; readonly least: number }
  | { readonly kind: 'password_is_name' }
  | { readonly kind: 'name_missing' };

const LEAST = 10;

/** Two to four letters for a person: the first of the first and of the last word.
 *  @example initialsOf('Mira Rook')  // 'MR' */
export function initialsOf(name: string): string {
  const words = name.trim().split(/\s+/).filter(Boolean);
  const letters = words.length > 1 ? [words[0], words.at(-1)] : [words[0]];
  return letters
    .map((w) => [...(w ?? '')].slice(0, words.length > 1 ? 1 : 2).join(''))
    .join('')
    .toUpperCase();
}

/** Whether a name to sign in with will do (letters, digits, points, hyphens and underscores, 2 to 60 of them) and there is a
 *  name. Errors: login_shape, name_missing. */
export function checkName(p: { login: string; name: string }): Result<void, PersonFault> {
  if (!/^[a-z0-9][a-z0-9._-]{1,59}$/.test(p.login)) return err({ kind: 'login_shape', text: p.login });
  return p.name.trim() === '' ? err({ kind: 'name_missing' }) : ok(undefined);
}

/** Whether a password will do: at least 10 characters that are not the name. Length counts, kinds of characters don't.
 *  Source: NIST SP 800-63B, 5.1.1.2 (length before composition; 8 is its least), from memory.
 *  Errors: password_short, password_is_name. */
export function checkPassword(p: { login: string; name: string; password: string }): Result<void, PersonFault> {
  if ([...p.password].length < LEAST) return err({ kind: 'password_short', least: LEAST });
  const plain = p.password.toLowerCase();
  return plain === p.login || plain === p.name.toLowerCase() ? err({ kind: 'password_is_name' }) : ok(undefined);
}

/** Both. Errors: login_shape, name_missing, password_short, password_is_name. */
export function checkPerson(p: { login: string; name: string; password: string }): Result<void, PersonFault> {
  const named = checkName(p);
  return named.ok ? checkPassword(p) : named;
}
