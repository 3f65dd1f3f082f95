'use client';

import { type FormEvent, useState } from 'react';
import { useFormat } from '../format-context.client';
import { failureSentence } from '../sentences';
import { signIn } from './send';

export function SignInForm({ next }: { next: string }) {
  const [fault, setFault] = useState('');
  const [busy, setBusy] = useState(false);
  const format = useFormat();
  const submit = async (event: FormEvent<HTMLFormElement>) => {
    event.preventDefault();
    const data = new FormData(event.currentTarget);
    setBusy(true);
    const outcome = await signIn(String(data.get('login')), String(data.get('password')));
    if (outcome.ok) return window.location.assign(next);
    setBusy(false);
    setFault(failureSentence(outcome.failure, format));
  };
  return (
    <form onSubmit={submit} method="post" className="grid gap-3">
      <label className="grid gap-1">
        <span className="text-muted">Name</span>
        {/* biome-ignore lint/a11y/noAutofocus: the only thing to do on this page. */}
        <input name="login" className="entry h-9" autoComplete="username" autoCapitalize="none" required autoFocus />
      </label>
      <label className="grid gap-1">
        <span className="text-muted">Password</span>
        <input name="password" type="password" className="entry h-9" autoComplete="current-password" required />
      </label>
      <p className="fault min-h-4" role="alert">
        {fault}
      </p>
      <button type="submit" className="btn btn-primary h-9" disabled={busy}>
        {busy ? 'Signing in' : 'Sign in'}
      </button>
    </form>
  );
}
