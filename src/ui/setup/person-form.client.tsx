'use client';

import { useState } from 'react';
import type { PeopleView, PersonView } from '@/services/people/readPeople';
import { useCommand } from '../command/use-command.client';
import { useFormat } from '../format-context.client';
import { useLeave } from '../frame/use-leave.client';
import { FormWindow } from './form-window.client';

/** Inviting somebody, or what is said of somebody who is there. */
export function PersonForm(props: {
  view: PeopleView;
  person: PersonView | null;
  onClose: () => void;
  onLink: (name: string, token: string) => void;
}) {
  const { view, person } = props;
  const format = useFormat();
  const { busy, failure, sentence, run } = useCommand();
  const limit =
    person === null || person.approvalLimit === null ? '' : format.amount(person.approvalLimit, view.currency);
  const [first] = useState({
    ...{ login: '', name: person?.name ?? '', role: person?.role ?? 'buyer' },
    ...{ locationIds: person?.locationIds ?? [], limit: person ? limit : '0', active: person?.active ?? true },
  });
  const [said, setSaid] = useState(first);
  const { leave, close, said: unsaved } = useLeave(JSON.stringify(said) !== JSON.stringify(first), props.onClose);
  const set = (change: Partial<typeof said>) => setSaid({ ...said, ...change });
  const fault = (field: string) => (failure?.kind === 'invalid_field' && failure.field === field ? sentence : '');
  const save = async () => {
    const { login, active, ...terms } = said;
    if (person === null) {
      const made = await run<{ token: string | null }>('invite-person', { login, ...terms });
      if (made.ok && made.value.token) props.onLink(said.name, made.value.token);
    } else {
      const done = await run('change-person', { userId: person.id, version: person.version, active, ...terms });
      if (done.ok) props.onClose();
    }
  };
  const reset = async () => {
    if (!person) return;
    const made = await run<{ token: string | null }>('reset-password', { userId: person.id });
    if (made.ok && made.value.token) props.onLink(person.name, made.value.token);
  };
  return (
    <FormWindow title={person ? `${person.name}` : 'Invite somebody'} onClose={leave} onSubmit={save}>
      <div className="grid gap-3 sm:grid-cols-2">
        <label className="grid content-start gap-0.5">
          <span className="second">Full name</span>
          <input
            className="entry"
            value={said.name}
            maxLength={120}
            required
            onChange={(e) => set({ name: e.target.value })}
          />
          <span className="fault">{fault('name')}</span>
        </label>
        <label className="grid content-start gap-0.5">
          <span className="second">Name to sign in with</span>
          <input
            className="entry"
            value={person?.login ?? said.login}
            readOnly={person !== null}
            maxLength={60}
            required
            autoCapitalize="none"
            onChange={(e) => set({ login: e.target.value })}
          />
          <span className="fault">{fault('login')}</span>
        </label>
        <label className="grid content-start gap-0.5">
          <span className="second">Role</span>
          <select
            className="entry"
            value={said.role}
            disabled={person?.isSelf}
            onChange={(e) => set({ role: e.target.value })}
          >
            {view.roles.map((r) => (
              <option key={r.key} value={r.key}>
                {r.name}
              </option>
            ))}
          </select>
        </label>
        <label className="grid content-start gap-0.5">
          <span className="second">Approves orders up to, {view.currency}</span>
          <input
            className="entry figure"
            value={said.limit}
            inputMode="decimal"
            onChange={(e) => set({ limit: e.target.value })}
          />
          <span className={fault('limit') ? 'fault' : 'second'}>
            {fault('limit') || 'Net, without tax; empty = any sum.'}
          </span>
        </label>
      </div>
      <fieldset className="flex flex-wrap gap-x-4 gap-y-1">
        <legend className="second">Only at these places; none = everywhere</legend>
        {view.places.map((p) => (
          <label key={p.id} className="flex items-center gap-1.5">
            <input
              type="checkbox"
              className="accent-action"
              checked={said.locationIds.includes(p.id)}
              onChange={(e) =>
                set({
                  locationIds: e.target.checked
                    ? [...said.locationIds, p.id]
                    : said.locationIds.filter((id) => id !== p.id),
                })
              }
            />
            {p.name}
          </label>
        ))}
      </fieldset>
      {person && !person.isSelf && (
        <label className="flex items-center gap-2">
          <input
            type="checkbox"
            className="accent-action"
            checked={said.active}
            onChange={(e) => set({ active: e.target.checked })}
          />
          May sign in
        </label>
      )}
      <div className="flex flex-wrap items-center gap-3">
        <button type="submit" className="btn btn-primary" disabled={busy}>
          {person ? 'Save' : 'Invite'}
        </button>
        <button type="button" className="btn btn-outline" onClick={leave}>
          {close}
        </button>
        {person && !person.isSelf && (
          <button
            type="button"
            className="btn btn-outline"
            disabled={busy}
            onClick={reset}
            title="The old password and open sessions end at once; this can’t be undone."
          >
            Reset password, end sessions
          </button>
        )}
        <span className="second" role="status">
          {unsaved}
        </span>
      </div>
      {sentence && failure?.kind !== 'invalid_field' && (
        <p className="fault" role="alert">
          {sentence}
        </p>
      )}
    </FormWindow>
  );
}
