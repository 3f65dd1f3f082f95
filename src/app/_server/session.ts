import { cookies, headers } from 'next/headers';
import { redirect } from 'next/navigation';
import type { Actor } from '@/core/people';
import { type LiveSession, readSession, rotateSession } from '@/services/people/session';
import { deps } from './deps';

const COOKIE = 'vorrat_session';

export const sessionToken = async (): Promise<string | null> => (await cookies()).get(COOKIE)?.value ?? null;

export async function setSessionToken(token: string | null): Promise<void> {
  const jar = await cookies();
  if (token === null) jar.delete(COOKIE);
  else {
    const secure = Boolean(process.env.VORRAT_TLS_CERT);
    jar.set(COOKIE, token, { httpOnly: true, sameSite: 'lax', path: '/', secure, maxAge: 7 * 24 * 3600 });
  }
}

export async function currentSession(): Promise<LiveSession | null> {
  const token = await sessionToken();
  return token === null ? null : readSession(deps(), token);
}

/** The acting person of a page, or on to the sign-in page and back. */
export async function requireActor(): Promise<Actor> {
  const session = await currentSession();
  if (session) return session.actor;
  const path = (await headers()).get('x-path') ?? '/';
  redirect(`/sign-in?next=${encodeURIComponent(path)}`);
}

/** Renews the token of a session that is due; only route handlers may set cookies. */
export async function rotateIfDue(session: LiveSession): Promise<void> {
  const token = session.rotate ? await sessionToken() : null;
  const fresh = token && (await rotateSession(deps(), token));
  if (fresh) await setSessionToken(fresh);
}
