import { CommandQueue, type Outcome, type Patience, type Settled } from './queue';

export type { ClientFailure, Outcome, Settled } from './queue';

function freshKey(): string {
  const bytes = crypto.getRandomValues(new Uint8Array(18));
  return btoa(String.fromCharCode(...bytes))
    .replaceAll('+', '-')
    .replaceAll('/', '_');
}

/** Set by the sign-in dialog: asks for the password again and resolves when the person is signed in. */
let signInAgain: (() => Promise<boolean>) | null = null;
export const onSessionEnd = (ask: (() => Promise<boolean>) | null): void => {
  signInAgain = ask;
};

async function post<T>(url: string, method: string, body: unknown): Promise<Outcome<T>> {
  try {
    const response = await fetch(url, {
      method,
      headers: { 'Content-Type': 'application/json' },
      body: JSON.stringify(body),
    });
    const result = (await response.json()) as Outcome<T>;
    return typeof result?.ok === 'boolean' ? result : { ok: false, failure: { kind: 'unreachable' } };
  } catch {
    return { ok: false, failure: { kind: 'unreachable' } };
  }
}

/** The time to wait, or until the browser says that it is online again. */
const pause = (ms: number): Promise<void> =>
  new Promise((done) => {
    const end = () => {
      clearTimeout(timer);
      window.removeEventListener('online', end);
      done();
    };
    const timer = setTimeout(end, ms);
    window.addEventListener('online', end);
  });

/** The queue of this page. */
export const queue = new CommandQueue({
  post: (name, key, input) => post(`/api/commands/${name}`, 'POST', { key, input }),
  freshKey,
  pause,
  signInAgain: async () => (signInAgain ? signInAgain() : false),
});

/** Sends one command through the queue. When the session has ended the person signs in again in place and it goes on. */
export const sendCommand = <T>(name: string, input: unknown, patience: Patience = 'once'): Promise<Settled<T>> =>
  queue.send<T>(name, input, patience);

export const signIn = (login: string, password: string) =>
  post<{ name: string }>('/api/session', 'POST', { login, password });
export const signOut = () => post<null>('/api/session', 'DELETE', {});
