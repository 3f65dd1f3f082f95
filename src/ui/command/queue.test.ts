import { type ClientFailure, CommandQueue, type Line, type Outcome } from './queue';

type Posted = { name: string; key: string; input: unknown };
const ok = (value: unknown = null): Outcome<unknown> => ({ ok: true, value });
const no = (kind: string): Outcome<unknown> => ({ ok: false, failure: { kind } as ClientFailure });

/** A line that answers as told, and everything that was sent over it. */
function world(answers: (p: Posted, n: number) => Outcome<unknown> | Promise<Outcome<unknown>>, signIn = [true]) {
  const posted: Posted[] = [];
  const pauses: number[] = [];
  let keys = 0;
  let asked = 0;
  const line: Line = {
    post: async (name, key, input) => {
      posted.push({ name, key, input });
      return answers({ name, key, input }, posted.length);
    },
    freshKey: () => {
      keys += 1;
      return `key-${keys}`;
    },
    pause: async (ms) => {
      pauses.push(ms);
    },
    signInAgain: async () => {
      asked += 1;
      return signIn[asked - 1] ?? true;
    },
  };
  return { queue: new CommandQueue(line), posted, pauses, asked: () => asked };
}

test('commands go out one at a time, in the order they were given', async () => {
  let under = 0;
  let most = 0;
  const { queue, posted } = world(async () => {
    under += 1;
    most = Math.max(most, under);
    await new Promise((done) => setTimeout(done, 2));
    under -= 1;
    return ok();
  });
  await Promise.all([1, 2, 3, 4, 5].map((n) => queue.send('accept-need', n, 'until_sent')));
  expect(posted.map((p) => p.input)).toEqual([1, 2, 3, 4, 5]);
  expect(new Set(posted.map((p) => p.key)).size).toBe(5);
  expect(most).toBe(1);
  expect(queue.snapshot()).toEqual({ waiting: 0, held: null });
});

test('while the line is away an entry is repeated under its key, those behind it wait; nothing is lost or swapped', async () => {
  const { queue, posted, pauses } = world((_, n) =>
    n <= 15 ? no(n % 2 ? 'unreachable' : 'database_unavailable') : ok(n),
  );
  const seen: string[] = [];
  queue.subscribe(() => seen.push(`${queue.snapshot().waiting} ${queue.snapshot().held}`));
  const both = await Promise.all([queue.send('a', 1, 'until_sent'), queue.send('b', 2, 'until_sent')]);
  expect(both.map((o) => o.ok)).toEqual([true, true]);
  expect(posted.slice(0, 16).every((p) => p.key === 'key-1' && p.name === 'a')).toBe(true);
  expect(posted[16]).toEqual({ name: 'b', key: 'key-2', input: 2 });
  expect(pauses.slice(0, 6)).toEqual([300, 600, 1200, 2400, 4800, 5000]);
  // A minute is not too long.
  expect(pauses.reduce((a, b) => a + b)).toBeGreaterThan(55_000);
  expect(seen).toContain('2 unreachable');
  expect(seen.at(-1)).toBe('0 null');
});

test('a refusal concerns its own entry', async () => {
  const { queue, posted } = world((p) => (p.input === 2 ? no('already_decided') : ok()));
  const all = await Promise.all([1, 2, 3].map((n) => queue.send('accept-need', n, 'until_sent')));
  expect(all.map((o) => (o.ok ? 'ok' : o.failure.kind))).toEqual(['ok', 'already_decided', 'ok']);
  expect(posted).toHaveLength(3);
});

test('when the session has ended the entry waits for the password and goes on under its key', async () => {
  const { queue, posted, asked } = world((_, n) => (n === 1 ? no('not_signed_in') : ok()));
  expect((await queue.send('a', 1, 'until_sent')).ok).toBe(true);
  expect(posted.map((p) => p.key)).toEqual(['key-1', 'key-1']);
  expect(asked()).toBe(1);
});

test('who closes the sign-in is asked again for entries, and told so for a button', async () => {
  const away = (_: Posted, n: number) => (n <= 2 ? no('not_signed_in') : ok());
  const entries = world(away, [false, true]);
  expect((await entries.queue.send('a', 1, 'until_sent')).ok).toBe(true);
  expect(entries.asked()).toBe(2);
  const button = world(away, [false]);
  expect(await button.queue.send('a', 1, 'once')).toMatchObject({ ok: false, failure: { kind: 'not_signed_in' } });
});

test('a button says at once that it could not be sent; pressed again it goes out under the same key', async () => {
  const { queue, posted } = world((_, n) => (n === 1 ? no('unreachable') : ok()));
  expect((await queue.send('approve-order', { orderId: 7 }, 'once')).ok).toBe(false);
  expect((await queue.send('approve-order', { orderId: 8 }, 'once')).ok).toBe(true);
  expect((await queue.send('approve-order', { orderId: 7 }, 'once')).ok).toBe(true);
  expect((await queue.send('approve-order', { orderId: 7 }, 'once')).ok).toBe(true);
  expect(posted.map((p) => p.key)).toEqual(['key-1', 'key-2', 'key-1', 'key-3']);
});

test('a defect is said, not repeated by itself', async () => {
  const { queue, posted } = world(() => no('defect'));
  expect((await queue.send('a', 1, 'until_sent')).ok).toBe(false);
  expect(posted).toHaveLength(1);
});
