'use client';

import { type FormEvent, useState } from 'react';
import { type AlertHow, type AlertMatter, alertMatters } from '@/core/people';
import type { AlertSettings } from '@/services/alerts/readAlerts';
import { useCommand } from '../command/use-command.client';
import { alertWords } from './words';

/** What a person wants to hear of: not, daily or at once; in the application, and by mail where wanted. */
export function AlertSettingsForm({ settings }: { settings: AlertSettings }) {
  const { busy, failure, sentence, run } = useCommand();
  const [mail, setMail] = useState(settings.mail);
  const [rules, setRules] = useState(settings.rules);
  const of = (matter: AlertMatter) => rules.find((r) => r.matter === matter);
  const set = (matter: AlertMatter, how: AlertHow | '', byMail: boolean) =>
    setRules([...rules.filter((r) => r.matter !== matter), ...(how === '' ? [] : [{ matter, how, byMail }])]);
  const submit = (event: FormEvent) => {
    event.preventDefault();
    run('set-alerts', { mail, rules: alertMatters.flatMap((m) => of(m) ?? []) });
  };
  return (
    <form className="grid gap-3" onSubmit={submit}>
      <h2 className="head">Alerts</h2>
      <ul className="grid gap-2">
        {alertMatters.map((m) => {
          const rule = of(m);
          return (
            <li key={m} className="flex flex-wrap items-center gap-x-4 gap-y-1">
              <span className="w-64">
                {alertWords[m].head}
                <span className="second block">{alertWords[m].about}</span>
              </span>
              <select
                className="entry w-32"
                aria-label={`${alertWords[m].head}: how soon`}
                value={rule?.how ?? ''}
                onChange={(e) => set(m, e.target.value as AlertHow | '', rule?.byMail ?? false)}
              >
                <option value="">not</option>
                <option value="daily">daily</option>
                <option value="at_once">at once</option>
              </select>
              <label className="flex items-center gap-1.5">
                <input
                  type="checkbox"
                  disabled={!rule}
                  checked={rule?.byMail ?? false}
                  onChange={(e) => rule && set(m, rule.how, e.target.checked)}
                />
                by mail as well
              </label>
            </li>
          );
        })}
      </ul>
      <label className="grid gap-1 sm:w-72">
        <span className="second">Mail to</span>
        <input
          className="entry"
          inputMode="email"
          maxLength={200}
          value={mail}
          aria-invalid={failure?.kind === 'invalid_field'}
          onChange={(e) => setMail(e.target.value)}
        />
      </label>
      {sentence && (
        <p className="fault" role="alert">
          {sentence}
        </p>
      )}
      <button type="submit" className="btn btn-primary justify-self-start" disabled={busy}>
        Save alerts
      </button>
    </form>
  );
}
