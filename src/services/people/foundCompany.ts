import { isCurrency } from '@/core/money';
import { checkPerson, initialsOf } from '@/core/people';
import { err, ok, type Result } from '@/core/result';
import { isDuplicate } from '@/data/errors';
import { recordChanges } from '@/data/repositories/bookkeeping';
import { insertCompany } from '@/data/repositories/company';
import { insertUser } from '@/data/repositories/people';
import { write } from '@/data/transaction';
import { type Deps, stamp } from '../deps';
import { type Failure, invalidField } from '../failure';
import { hashPassword } from './session';

export type FoundCompany = {
  readonly company: string;
  readonly currency: string;
  readonly timeZone: string;
  readonly login: string;
  readonly name: string;
  readonly password: string;
};

const isTimeZone = (zone: string): boolean => {
  try {
    new Intl.DateTimeFormat('en', { timeZone: zone });
    return true;
  } catch {
    return false;
  }
};

/** Sets an empty company up with its owner. Nobody can be signed in yet, so the right to do it is the code that the start
 *  command has shown; `rightCode` says whether it was given.
 *  Errors: wrong_code, already_founded, invalid_field. */
export async function foundCompany(
  deps: Deps,
  rightCode: boolean,
  input: FoundCompany,
): Promise<Result<{ userId: number }, Failure>> {
  if (!rightCode) return err({ kind: 'wrong_code' });
  const { company, currency, timeZone, login, name, password } = input;
  if (company.trim() === '') return err(invalidField('company', { kind: 'name_missing' }));
  if (!isCurrency(currency)) return err(invalidField('currency', { kind: 'no_currency', text: currency }));
  if (!isTimeZone(timeZone)) return err(invalidField('timeZone', { kind: 'no_time_zone', text: timeZone }));
  const person = checkPerson({ login, name, password });
  if (!person.ok) {
    const field = {
      login_shape: 'login',
      name_missing: 'name',
      password_short: 'password',
      password_is_name: 'password',
    };
    return err(invalidField(field[person.error.kind], person.error));
  }
  const passwordHash = await hashPassword(password);
  const at = stamp(deps.clock());
  try {
    return await write<{ userId: number }, Failure>(deps.pool, async (tx) => {
      await insertCompany(tx, { name: company.trim(), currency, timeZone });
      const owner = { login, name: name.trim(), initials: initialsOf(name), role: 'owner' as const, passwordHash };
      const userId = await insertUser(tx, { ...owner, approvalLimit: null });
      await recordChanges(tx, userId, at, [
        { entity: 'company', entityId: 1, action: 'founded', after: { name: company.trim(), currency, timeZone } },
        { entity: 'user', entityId: userId, action: 'made', after: { login, name, role: 'owner' } },
      ]);
      return ok({ userId });
    });
  } catch (e) {
    // There is one company; who comes second finds it founded.
    if (isDuplicate(e)) return err({ kind: 'already_founded' });
    throw e;
  }
}
