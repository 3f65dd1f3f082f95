import type { HandlerFailure } from '@/services/failure';

export type ClientFailure = HandlerFailure | { readonly kind: 'unreachable' };
export type Outcome<T> =
  | { readonly ok: true; readonly value: T }
  | { readonly ok: false; readonly failure: ClientFailure };

/** Keys of commands that were sent and not yet answered. The same command sent again (a double click, a retry after the
 *  network failed) goes out under the same key, so it takes effect once. */
const unanswered = new Map<string, string>();

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

/** Sends one command. When the session has ended the person signs in again in place and the command goes on. */
export async function sendCommand<T>(name: string, input: unknown): Promise<Outcome<T>> {
  const what = `${name} ${JSON.stringify(input)}`;
  const key = unanswered.get(what) ?? freshKey();
  unanswered.set(what, key);
  let outcome = await post<T>(`/api/commands/${name}`, 'POST', { key, input });
  if (!outcome.ok && outcome.failure.kind === 'not_signed_in' && signInAgain && (await signInAgain())) {
    outcome = await post<T>(`/api/commands/${name}`, 'POST', { key, input });
  }
  const lost = !outcome.ok && ['unreachable', 'database_unavailable', 'defect'].includes(outcome.failure.kind);
  if (!lost) unanswered.delete(what);
  return outcome;
}

export const signIn = (login: string, password: string) =>
  post<{ name: string }>('/api/session', 'POST', { login, password });
export const signOut = () => post<null>('/api/session', 'DELETE', {});
