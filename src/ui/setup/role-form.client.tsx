'use client';

import { useState } from 'react';
import type { Right } from '@/core/people';
import type { PeopleView, RoleView } from '@/services/people/readPeople';
import { useCommand } from '../command/use-command.client';
import { useLeave } from '../frame/use-leave.client';
import { FormWindow } from './form-window.client';
import { rightWords } from './right-words';

/** A role of the company's own: its name and what it allows. */
export function RoleForm({ view, role, onClose }: { view: PeopleView; role: RoleView | null; onClose: () => void }) {
  const { busy, sentence, run } = useCommand();
  const [name, setName] = useState(role?.name ?? '');
  const [given, setGiven] = useState<ReadonlySet<Right>>(new Set(role?.rights));
  const dirty = name !== (role?.name ?? '') || [...given].sort().join() !== [...(role?.rights ?? [])].sort().join();
  const { leave, close, said } = useLeave(dirty, onClose);
  const save = async () => {
    const input = { roleId: role?.id ?? null, version: role?.version ?? null, name, rights: [...given] };
    if ((await run('save-role', input)).ok) onClose();
  };
  const remove = async () => {
    if (role?.id && (await run('remove-role', { roleId: role.id })).ok) onClose();
  };
  const all = view.roles.find((r) => r.key === 'owner')?.rights ?? [];
  return (
    <FormWindow title={role ? `Role ${role.name}` : 'A role of your own'} onClose={leave} onSubmit={save}>
      <label className="grid gap-0.5">
        <span className="second">Called</span>
        <input className="entry" value={name} maxLength={60} required onChange={(e) => setName(e.target.value)} />
      </label>
      <fieldset className="grid gap-1 sm:grid-cols-2">
        <legend className="second mb-1">It may</legend>
        {all.map((r) => (
          <label key={r} className="flex items-center gap-2">
            <input
              type="checkbox"
              className="accent-action"
              checked={given.has(r)}
              onChange={(e) => {
                const next = new Set(given);
                if (e.target.checked) next.add(r);
                else next.delete(r);
                setGiven(next);
              }}
            />
            {rightWords[r]}
          </label>
        ))}
      </fieldset>
      <div className="flex flex-wrap gap-3">
        <button type="submit" className="btn btn-primary" disabled={busy || name.trim() === ''}>
          Save
        </button>
        <button type="button" className="btn btn-outline" onClick={leave}>
          {close}
        </button>
        {role?.id && (
          <button type="button" className="btn btn-outline" disabled={busy} onClick={remove}>
            Take the role away
          </button>
        )}
        <span className="second self-center" role="status">
          {said}
        </span>
      </div>
      {sentence && (
        <p className="fault" role="alert">
          {sentence}
        </p>
      )}
    </FormWindow>
  );
}
