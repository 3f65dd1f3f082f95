'use client';

import { type FormEvent, useEffect, useRef, useState } from 'react';
import type { HandlerFailure } from '@/services/failure';
import { useFormat } from '../format-context.client';
import { failureSentence } from '../sentences';

type Fault = { readonly field: string; readonly sentence: string };

/** The first page of a new company: its name, money and time, and who owns it. What was typed stays when it is refused. */
export function WelcomeForm({ code, currencies }: { code: string; currencies: readonly string[] }) {
  const format = useFormat();
  const [fault, setFault] = useState<Fault | null>(null);
  const [busy, setBusy] = useState(false);
  const zone = useRef<HTMLInputElement>(null);
  // The browser knows where it is; the server, which makes the page first, does not.
  useEffect(() => {
    if (zone.current?.value === '') zone.current.value = Intl.DateTimeFormat().resolvedOptions().timeZone;
  }, []);

  const submit = async (event: FormEvent<HTMLFormElement>) => {
    event.preventDefault();
    const data = Object.fromEntries(new FormData(event.currentTarget)) as Record<string, string>;
    setBusy(true);
    setFault(null);
    const response = await fetch('/api/company', {
      method: 'POST',
      headers: { 'content-type': 'application/json' },
      body: JSON.stringify(data),
    }).catch(() => null);
    const body = (await response?.json().catch(() => null)) as { ok: boolean; failure?: HandlerFailure } | null;
    if (body?.ok) return window.location.assign('/sheets');
    setBusy(false);
    const failure = body?.failure ?? { kind: 'unreachable' as const };
    setFault({
      field: failure.kind === 'invalid_field' ? failure.field : '',
      sentence: failureSentence(failure, format),
    });
  };

  const entry = (name: string, label: string, more: Record<string, unknown> = {}) => (
    <label className="grid content-start gap-1">
      <span className="text-muted">{label}</span>
      <input
        name={name}
        className="entry h-9"
        required
        aria-invalid={fault?.field === name}
        aria-describedby={fault?.field === name ? `${name}-fault` : undefined}
        {...more}
      />
      {fault?.field === name && (
        <span id={`${name}-fault`} className="fault">
          {fault.sentence}
        </span>
      )}
    </label>
  );

  return (
    <form onSubmit={submit} method="post" className="grid gap-6">
      <fieldset className="grid gap-3 sm:grid-cols-[1fr_120px_200px]">
        <legend className="head mb-2">The company</legend>
        {entry('company', 'Name', { autoFocus: true, maxLength: 120, autoComplete: 'organization' })}
        <label className="grid content-start gap-1">
          <span className="text-muted">Currency</span>
          <select name="currency" className="entry h-9" defaultValue="EUR">
            {currencies.map((c) => (
              <option key={c}>{c}</option>
            ))}
          </select>
        </label>
        {entry('timeZone', 'Time zone', { ref: zone })}
      </fieldset>
      <fieldset className="grid gap-3 sm:grid-cols-3">
        <legend className="head mb-2">Its owner</legend>
        {entry('name', 'Full name', { maxLength: 120, autoComplete: 'name' })}
        {entry('login', 'Name to sign in with', { maxLength: 60, autoComplete: 'username', autoCapitalize: 'none' })}
        {entry('password', 'Password, 10 characters or more', { type: 'password', autoComplete: 'new-password' })}
      </fieldset>
      {code === '' ? (
        <fieldset className="grid gap-3">
          <legend className="head mb-2">The code</legend>
          {entry('code', 'As the start command has printed it', { autoComplete: 'off' })}
        </fieldset>
      ) : (
        <input type="hidden" name="code" value={code} />
      )}
      <div className="flex flex-wrap items-center gap-4">
        <button type="submit" className="btn btn-primary h-9" disabled={busy}>
          {busy ? 'Setting up' : 'Set up the company'}
        </button>
        <p className="fault min-h-4" role="alert">
          {fault?.field === '' ? fault.sentence : ''}
        </p>
      </div>
    </form>
  );
}
