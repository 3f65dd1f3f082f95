import { findSession } from '@/data/repositories/people';
import { readSnapshot } from '@/data/transaction';
import { readFrame } from '@/services/people/readFrame';
import { hashPassword, readSession, rotateSession, signIn, signOut } from '@/services/people/session';
import { type Books, freshBooks, jun, MONDAY, mira, must } from './support';

let books: Books;
beforeEach(async () => {
  books = await freshBooks();
});
afterEach(() => books.close());

const enter = (login: string, password = 'quillon', address = '127.0.0.1') =>
  signIn(books.deps, { login, password, address });
const later = (minutes: number) => new Date(Date.parse(MONDAY) + minutes * 60_000).toISOString();

describe('sign-in', () => {
  test('the right password opens a session of that person; the database keeps only a hash', async () => {
    const { token, actor } = must(await enter('jun'));
    expect(actor).toEqual(jun);
    expect((await readSession(books.deps, token))?.actor).toEqual(jun);
    const [row] = await books.rows<{ hash: Buffer }>('SELECT token_hash AS hash FROM session');
    expect(row?.hash.toString('base64url')).not.toBe(token);
  });

  test('passwords are kept as argon2id', async () => {
    expect(await hashPassword('a password')).toMatch(/^\$argon2id\$v=19\$m=19456,t=2,p=1\$/);
  });

  test('a wrong password, an unknown name and an inactive person are told the same', async () => {
    await books.owner.query("UPDATE app_user SET active = 0 WHERE login = 'otto'");
    for (const [login, password] of [
      ['mira', 'wrong'],
      ['nobody', 'quillon'],
      ['otto', 'quillon'],
    ] as const) {
      expect(await enter(login, password)).toEqual({ ok: false, error: { kind: 'wrong_password' } });
    }
  });

  test('after eight failures the name has to wait, other names not', async () => {
    for (let i = 0; i < 8; i += 1) await enter('mira', 'wrong', `10.0.0.${i}`);
    expect(await enter('mira')).toEqual({ ok: false, error: { kind: 'too_many_attempts', minutes: 15 } });
    expect((await enter('jun')).ok).toBe(true);
    books.deps.setClock(later(16));
    expect((await enter('mira')).ok).toBe(true);
  });

  test('one address can’t try many names', async () => {
    for (let i = 0; i < 40; i += 1) await enter(`name${i}`, 'wrong', '10.1.1.1');
    expect(await enter('mira', 'quillon', '10.1.1.1')).toMatchObject({ error: { kind: 'too_many_attempts' } });
  });
});

describe('session', () => {
  test('ends after eight idle hours, and after seven days in any case', async () => {
    const { token } = must(await enter('mira'));
    books.deps.setClock(later(8 * 60 - 1));
    expect(await readSession(books.deps, token)).not.toBeNull();
    books.deps.setClock(later(16 * 60 - 2));
    expect(await readSession(books.deps, token)).not.toBeNull();
    books.deps.setClock(later(24 * 60 - 1));
    expect(await readSession(books.deps, token)).toBeNull();
    books.deps.setClock(later(0));
    const second = must(await enter('mira')).token;
    for (let h = 7; h < 168; h += 7) {
      books.deps.setClock(later(h * 60));
      await readSession(books.deps, second);
    }
    books.deps.setClock(later(7 * 24 * 60 - 1));
    expect(await readSession(books.deps, second)).not.toBeNull();
    books.deps.setClock(later(7 * 24 * 60));
    expect(await readSession(books.deps, second)).toBeNull();
  });

  test('gets a new token every hour; the old one lasts a minute more and is not renewed twice', async () => {
    const { token } = must(await enter('mira'));
    expect((await readSession(books.deps, token))?.rotate).toBe(false);
    books.deps.setClock(later(61));
    expect((await readSession(books.deps, token))?.rotate).toBe(true);
    const fresh = (await rotateSession(books.deps, token)) ?? '';
    expect((await readSession(books.deps, fresh))?.actor.userId).toBe(mira.userId);
    expect(await readSession(books.deps, token)).toMatchObject({ rotate: false });
    expect(await rotateSession(books.deps, token)).toBeNull();
    books.deps.setClock(later(63));
    expect(await readSession(books.deps, token)).toBeNull();
    expect(await readSession(books.deps, fresh)).not.toBeNull();
  });

  test('signing out ends it at once, with the token it replaced', async () => {
    const { token } = must(await enter('mira'));
    const fresh = (await rotateSession(books.deps, token)) ?? '';
    await signOut(books.deps, fresh);
    expect(await readSession(books.deps, fresh)).toBeNull();
    expect(await readSession(books.deps, token)).toBeNull();
    expect(await readSession(books.deps, 'made up')).toBeNull();
    expect(await readSnapshot(books.deps.pool, (tx) => findSession(tx, Buffer.alloc(32)))).toBeNull();
  });

  test('a person who was made inactive is out', async () => {
    const { token } = must(await enter('mira'));
    await books.owner.query("UPDATE app_user SET active = 0 WHERE login = 'mira'");
    expect(await readSession(books.deps, token)).toBeNull();
  });
});

test('the bar counts what waits for the person, at the person’s places', async () => {
  const frame = await readFrame(books.deps, jun);
  expect(frame.locations.map((l) => l.name)).toEqual(['Market Hall']);
  expect(frame.counts.arrivals).toBe(1);
  expect((await readFrame(books.deps, mira)).counts).toMatchObject({ needs: 16, trays: 0, orders: 3, arrivals: 7 });
});
