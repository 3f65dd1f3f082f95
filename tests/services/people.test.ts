import { acceptInvitation, readInvitation } from '@/services/people/acceptInvitation';
import { changePassword } from '@/services/people/changePassword';
import { changePerson } from '@/services/people/changePerson';
import { invitePerson } from '@/services/people/invitePerson';
import { readChanges } from '@/services/people/readChanges';
import { readPeople } from '@/services/people/readPeople';
import { readPeopleExport } from '@/services/people/readPeopleExport';
import { removeRole } from '@/services/people/removeRole';
import { resetPassword } from '@/services/people/resetPassword';
import { saveRole } from '@/services/people/saveRole';
import { readSession, signIn } from '@/services/people/session';
import { setLocale } from '@/services/people/setLocale';
import { readCompanyTerms } from '@/services/setup/readSetup';
import { setCompany } from '@/services/setup/setCompany';
import { type Books, freshBooks, mira, must, otto, req } from './support';

let books: Books;
beforeAll(async () => {
  books = await freshBooks();
});
afterAll(() => books.close());

const enter = (login: string, password: string, address = login) => signIn(books.deps, { login, password, address });
const person = async (login: string) => {
  const found = must(await readPeople(books.deps, otto)).people.find((p) => p.login === login);
  if (!found) throw new Error(`nobody is ${login}`);
  return found;
};
const terms = { name: 'Pia Lund', role: 'buyer', locationIds: [1], limit: '1,000.00' };

test('everybody with an account as a file: role in words, places by name, how far one may approve', async () => {
  const file = must(await readPeopleExport(books.deps, otto));
  const rows = [];
  for await (const page of file.rows) rows.push(...page);
  expect(rows.map((r) => [r.login, r.role, r.where, r.limit, r.state])).toEqual([
    ['edda', 'Bookkeeper', 'everywhere', '0.00', 'active'],
    ['jun', 'Receiving', 'Market Hall', '0.00', 'active'],
    ['mira', 'Buyer', 'everywhere', '2500.00', 'active'],
    ['otto', 'Owner', 'everywhere', null, 'active'],
  ]);
});

describe('an invitation', () => {
  let token = '';
  test('makes an account that nobody can sign in to; its link is shown once and kept only as a hash', async () => {
    const request = req({ ...terms, login: 'pia' });
    const made = must(await invitePerson(books.deps, otto, request));
    token = made.token ?? '';
    expect(token).toMatch(/^[\w-]{32}$/);
    // A repetition of the command does nothing and can't show the link again.
    expect(must(await invitePerson(books.deps, otto, request))).toEqual({ userId: made.userId, token: null });
    expect(JSON.stringify(await books.rows('SELECT HEX(token_hash) AS h FROM invitation'))).not.toContain(token);
    expect(JSON.stringify(await books.rows('SELECT result FROM idempotency_key'))).not.toContain(token);
    expect(await person('pia')).toMatchObject({
      roleName: 'Buyer',
      locationIds: [1],
      approvalLimit: 100_000,
      hasPassword: false,
    });
    expect(await enter('pia', '')).toMatchObject({ error: { kind: 'wrong_password' } });
    const twice = await invitePerson(books.deps, otto, req({ ...terms, login: 'pia' }));
    expect(twice).toMatchObject({ error: { kind: 'login_taken' } });
  });

  test('lets its person set a password, once', async () => {
    expect(await readInvitation(books.deps, token)).toEqual({ login: 'pia', name: 'Pia Lund' });
    const set = (password: string) => acceptInvitation(books.deps, { token, password, address: 'a' });
    expect(await set('short')).toMatchObject({ error: { kind: 'invalid_field', field: 'password' } });
    expect(await set('needle and thread')).toMatchObject({ ok: true, value: { login: 'pia' } });
    expect(await set('needle and thread')).toMatchObject({ error: { kind: 'link_void' } });
    expect(must(await enter('pia', 'needle and thread')).actor).toMatchObject({ role: 'buyer', locations: [1] });
  });

  test('is void after a week, and guesses are limited', async () => {
    const made = must(await invitePerson(books.deps, otto, req({ ...terms, login: 'late' })));
    books.deps.setClock('2026-12-01T09:00:01Z');
    expect(await readInvitation(books.deps, made.token ?? '')).toBeNull();
    books.deps.setClock('2026-11-23T09:00:00Z');
    let last: unknown;
    for (let n = 0; n < 42; n += 1)
      last = await acceptInvitation(books.deps, { token: `guess-${n}`, password: 'x'.repeat(12), address: 'guesser' });
    expect(last).toMatchObject({ error: { kind: 'too_many_attempts' } });
  });
});

describe('a password', () => {
  test('is changed with the old one; other sessions end, this one stays', async () => {
    const here = must(await enter('jun', 'quillon'));
    const there = must(await enter('jun', 'quillon'));
    const change = (old: string, password: string) =>
      changePassword(books.deps, here.actor, { old, password, token: here.token, address: 'b' });
    expect(await change('wrong', 'a new long one')).toMatchObject({ error: { kind: 'wrong_password' } });
    expect(await change('quillon', 'short')).toMatchObject({ error: { kind: 'invalid_field' } });
    must(await change('quillon', 'a new long one'));
    expect(await readSession(books.deps, there.token)).toBeNull();
    expect(await readSession(books.deps, here.token)).not.toBeNull();
    expect(await enter('jun', 'quillon')).toMatchObject({ error: { kind: 'wrong_password' } });
    must(await enter('jun', 'a new long one'));
  });

  test('is reset by the owner: the old one and its sessions end at once', async () => {
    const session = must(await enter('edda', 'quillon'));
    const { userId, token } = must(await resetPassword(books.deps, otto, req({ userId: 4 })));
    expect(userId).toBe(4);
    expect(await readSession(books.deps, session.token)).toBeNull();
    expect(await enter('edda', 'quillon')).toMatchObject({ error: { kind: 'wrong_password' } });
    must(await acceptInvitation(books.deps, { token: token ?? '', password: 'ledger and pen', address: 'c' }));
    must(await enter('edda', 'ledger and pen'));
    expect(await resetPassword(books.deps, otto, req({ userId: 2 }))).toMatchObject({ error: { kind: 'not_oneself' } });
  });
});

describe('people and roles', () => {
  const change = async (login: string, more: object) => {
    const p = await person(login);
    const { name, role, locationIds } = p;
    const input = { userId: p.id, version: p.version, name, role, locationIds, limit: '', active: true, ...more };
    return changePerson(books.deps, otto, req(input));
  };
  test('somebody who may not sign in any more is out at once', async () => {
    const { token } = must(await enter('pia', 'needle and thread'));
    must(await change('pia', { active: false }));
    expect(await readSession(books.deps, token)).toBeNull();
    expect(await enter('pia', 'needle and thread')).toMatchObject({ error: { kind: 'wrong_password' } });
    must(await change('pia', { active: true }));
  });

  test('the last owner stays, and nobody changes their own role', async () => {
    expect(await change('otto', { role: 'buyer' })).toMatchObject({ error: { kind: 'not_oneself' } });
    const second = await person('pia');
    must(await change('pia', { role: 'owner' }));
    const pia = { ...otto, userId: second.id, name: 'Pia Lund' };
    const o = await person('otto');
    const demote = (version: number) =>
      changePerson(
        books.deps,
        pia,
        req({ userId: 2, version, name: o.name, role: 'buyer', locationIds: [], limit: '', active: true }),
      );
    expect(await demote(o.version + 5)).toMatchObject({ error: { kind: 'changed_meanwhile' } });
    must(await demote(o.version));
    const own = await person('pia');
    const stop = changePerson(
      books.deps,
      otto,
      req({
        userId: own.id,
        version: own.version,
        name: own.name,
        role: 'owner',
        locationIds: [],
        limit: '',
        active: false,
      }),
    );
    expect(await stop).toMatchObject({ error: { kind: 'last_owner' } });
  });

  test('a role of one’s own allows what it lists, at once, and goes when nobody has it', async () => {
    const role = { roleId: null, version: null, name: 'Stocktaker', rights: ['stock.read', 'stock.count'] };
    const { roleId } = must(await saveRole(books.deps, otto, req(role)));
    expect(await saveRole(books.deps, otto, req(role))).toMatchObject({ error: { kind: 'name_taken' } });
    expect(await saveRole(books.deps, otto, req({ ...role, name: 'x', rights: ['fly'] }))).toMatchObject({
      error: { kind: 'not_found' },
    });
    must(await change('jun', { role: `own-${roleId}` }));
    const { token, actor } = must(await enter('jun', 'a new long one'));
    expect(actor).toMatchObject({ role: 'Stocktaker', rights: ['stock.read', 'stock.count'] });
    must(await saveRole(books.deps, otto, req({ ...role, roleId, version: 1, rights: ['stock.read'] })));
    expect((await readSession(books.deps, token))?.actor.rights).toEqual(['stock.read']);
    expect(await removeRole(books.deps, otto, req({ roleId }))).toMatchObject({
      error: { kind: 'role_in_use', people: 1 },
    });
    must(await change('jun', { role: 'shop' }));
    must(await removeRole(books.deps, otto, req({ roleId })));
    // Nobody gives a right that they don't have themselves.
    const weak = { ...otto, role: 'own', rights: ['people.edit'] as const };
    expect(await saveRole(books.deps, weak, req({ ...role, rights: ['books.close'] }))).toMatchObject({
      error: { kind: 'forbidden' },
    });
  });

  test('everybody sets their own language region', async () => {
    must(await setLocale(books.deps, mira, req({ locale: 'de-DE' })));
    expect(must(await enter('mira', 'quillon')).actor.locale).toBe('de-DE');
    expect(await setLocale(books.deps, mira, req({ locale: 'xx' }))).toMatchObject({
      error: { kind: 'invalid_field' },
    });
  });
});

test('changes: who, what, when, before and after; narrowed and paged', async () => {
  const { terms: was } = must(await readCompanyTerms(books.deps, otto));
  must(await setCompany(books.deps, otto, req({ ...was, costOrder: 'last_first' as const, was })));
  expect(await setCompany(books.deps, otto, req({ ...was, name: 'x', was }))).toMatchObject({
    error: { kind: 'changed_meanwhile' },
  });
  const all = { area: null, userId: null, from: '', to: '', before: 0 };
  const of = async (more: object) => must(await readChanges(books.deps, otto, { ...all, ...more }));
  const [first] = (await of({ area: 'setup' })).lines;
  expect([
    first?.who,
    first?.action,
    JSON.parse(first?.before ?? '').costOrder,
    JSON.parse(first?.after ?? '').costOrder,
  ]).toEqual([...['Otto Quillon', 'changed', 'standard_first', 'last_first']]);
  const people = await of({ area: 'people' });
  expect(new Set(people.lines.map((l) => l.entity))).toEqual(new Set(['user', 'role']));
  expect(JSON.stringify(people.lines)).not.toMatch(/\$argon2|needle and thread/);
  expect((await of({ userId: 1, area: 'people' })).lines).toEqual([]);
  expect((await of({ from: '2026-11-24' })).lines).toEqual([]);
  const page = await of({});
  expect(page.lines.map((l) => l.id)).toEqual([...page.lines.map((l) => l.id)].sort((a, b) => b - a));
});
