'use client';

import { type FormEvent, useState } from 'react';
import type { HandlerFailure } from '@/services/failure';
import { useFormat } from '../format-context.client';
import { failureSentence } from '../sentences';

/** Somebody who was invited, or whose password was reset, sets one. */
export function InvitationForm({ token, name, login }: { token: string; name: string; login: string }) {
  const format = useFormat();
  const [fault, setFault] = useState('');
  const [busy, setBusy] = useState(false);
  const submit = async (event: FormEvent<HTMLFormElement>) => {
    event.preventDefault();
    const password = String(new FormData(event.currentTarget).get('password'));
    setBusy(true);
    const response = await fetch('/api/invitations', {
      method: 'POST',
      headers: { 'content-type': 'application/json' },
      body: JSON.stringify({ token, password }),
    }).catch(() => null);
    const body = (await response?.json().catch(() => null)) as { ok: boolean; failure?: HandlerFailure } | null;
    if (body?.ok) return window.location.assign('/');
    setBusy(false);
    setFault(failureSentence(body?.failure ?? { kind: 'unreachable' }, format));
  };
  return (
    <form onSubmit={submit} method="post" className="grid gap-3">
      <p>
        Welcome, {name}. You sign in as <strong>{login}</strong>; choose a password.
      </p>
      <input type="hidden" name="login" value={login} autoComplete="username" />
      <label className="grid gap-1">
        <span className="text-muted">Password, 10 characters or more</span>
        {/* biome-ignore lint/a11y/noAutofocus: the only thing to do on this page. */}
        <input name="password" type="password" className="entry h-9" autoComplete="new-password" required autoFocus />
      </label>
      <p className="fault min-h-4" role="alert">
        {fault}
      </p>
      <button type="submit" className="btn btn-primary h-9" disabled={busy}>
        {busy ? 'Setting it' : 'Set the password'}
      </button>
    </form>
  );
}
