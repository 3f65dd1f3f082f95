'use client';

import { type FormEvent, useState } from 'react';
import type { AlertSettings } from '@/services/alerts/readAlerts';
import type { HandlerFailure } from '@/services/failure';
import { AlertSettingsForm } from '../alerts/alert-settings.client';
import { useCommand } from '../command/use-command.client';
import { Format } from '../format';
import { useFormat } from '../format-context.client';
import { ListBar, WholeList } from '../frame/list';
import { failureSentence } from '../sentences';

/** What everybody sets for themselves: how figures and dates are written, what to hear of, and the password. */
export function AccountPage(props: {
  name: string;
  locale: string;
  locales: readonly string[];
  alerts: AlertSettings | null;
}) {
  const { name, locale, locales, alerts } = props;
  const { busy, sentence, run } = useCommand();
  const regions = new Intl.DisplayNames(['en'], { type: 'language' });
  const sample = new Format(locale || 'en-GB');
  return (
    <WholeList>
      <ListBar title={name} about="your account" />
      <div className="grid max-w-xl gap-8 px-4 py-5">
        <section>
          <h2 className="head">Figures and dates</h2>
          <label className="flex flex-wrap items-center gap-3">
            <span>written as in</span>
            <select
              className="entry"
              value={locale}
              disabled={busy}
              onChange={(e) => run('set-locale', { locale: e.target.value })}
            >
              <option value="">as the browser says</option>
              {locales.map((l) => (
                <option key={l} value={l}>
                  {regions.of(l)}
                </option>
              ))}
            </select>
            {locale !== '' && <span className="second">1234.5 is {sample.quantity(1_234_500_000)}</span>}
          </label>
          {sentence && (
            <p className="fault" role="alert">
              {sentence}
            </p>
          )}
        </section>
        {alerts && <AlertSettingsForm settings={alerts} />}
        <PasswordForm />
      </div>
    </WholeList>
  );
}

function PasswordForm() {
  const format = useFormat();
  const [said, setSaid] = useState<{ text: string; fault: boolean } | null>(null);
  const [busy, setBusy] = useState(false);
  const submit = async (event: FormEvent<HTMLFormElement>) => {
    event.preventDefault();
    const form = event.currentTarget;
    const { old, password } = Object.fromEntries(new FormData(form)) as Record<string, string>;
    setBusy(true);
    const response = await fetch('/api/password', {
      method: 'POST',
      headers: { 'content-type': 'application/json' },
      body: JSON.stringify({ old, password }),
    }).catch(() => null);
    const body = (await response?.json().catch(() => null)) as { ok: boolean; failure?: HandlerFailure } | null;
    setBusy(false);
    if (body?.ok) {
      form.reset();
      return setSaid({ text: 'The password is changed; sessions on other machines have ended.', fault: false });
    }
    const failure = body?.failure ?? { kind: 'unreachable' as const };
    const text =
      failure.kind === 'wrong_password' ? 'The old password is not right.' : failureSentence(failure, format);
    setSaid({ text, fault: true });
  };
  return (
    <form onSubmit={submit} className="grid gap-3">
      <h2 className="head">Password</h2>
      <label className="grid gap-1 sm:w-72">
        <span className="second">Old password</span>
        <input className="entry" type="password" name="old" autoComplete="current-password" required />
      </label>
      <label className="grid gap-1 sm:w-72">
        <span className="second">New password, 10 characters or more</span>
        <input className="entry" type="password" name="password" autoComplete="new-password" required />
      </label>
      <button type="submit" className="btn btn-primary justify-self-start" disabled={busy}>
        Change the password
      </button>
      {said && (
        <p className={said.fault ? 'fault' : ''} role={said.fault ? 'alert' : 'status'}>
          {said.text}
        </p>
      )}
    </form>
  );
}
