'use client';

import { useState } from 'react';
import type { PeopleView, PersonView, RoleView } from '@/services/people/readPeople';
import { useFormat } from '../format-context.client';
import { ExportLinks } from '../frame/export-links';
import { ListBar } from '../frame/list';
import { ListAndPanel } from '../frame/states';
import { PersonForm } from './person-form.client';
import { rightWords } from './right-words';
import { RoleForm } from './role-form.client';

/** Everybody with an account; the roles and what they allow. */
export function PeoplePage({ view }: { view: PeopleView }) {
  const format = useFormat();
  const [person, setPerson] = useState<PersonView | 'new' | null>(null);
  const [role, setRole] = useState<RoleView | 'new' | null>(null);
  const [link, setLink] = useState<{ name: string; url: string } | null>(null);
  const places = (ids: readonly number[]) =>
    ids.length === 0 ? 'everywhere' : view.places.flatMap((p) => (ids.includes(p.id) ? [p.name] : [])).join(', ');
  return (
    <ListAndPanel label="Roles" panel={<Roles view={view} onOpen={setRole} />}>
      <ListBar title="People">
        <span className="ml-auto">
          <ExportLinks of="People" path="/api/exports/people" />
        </span>
        <button type="button" className="btn btn-primary" onClick={() => setPerson('new')}>
          Invite somebody
        </button>
      </ListBar>
      {link && (
        <div className="bar">
          <p className="min-w-0">
            Give {link.name} this link; it is shown only now and good for a week:{' '}
            <input
              className="entry code w-full max-w-xl"
              readOnly
              value={link.url}
              aria-label="Link"
              onFocus={(e) => e.target.select()}
            />
          </p>
          <button type="button" className="btn btn-outline" onClick={() => setLink(null)}>
            Done
          </button>
        </div>
      )}
      <table className="sheet">
        <thead>
          <tr>
            <th>Person</th>
            <th>Role</th>
            <th className="max-sm:hidden">Where</th>
            <th className="figure max-sm:hidden">Approves up to</th>
            <th>
              <span className="sr-only">Change</span>
            </th>
          </tr>
        </thead>
        <tbody>
          {view.people.map((p) => (
            <tr key={p.id} className="two">
              <td>
                <span className="name block">
                  {p.name} {p.isSelf && <span className="second font-normal">you</span>}
                </span>
                <span className="code">{p.login}</span>
                {!p.active && <span className="marker ml-2">may not sign in</span>}
                {p.active && !p.hasPassword && (
                  <span className="marker ml-2">{p.linkUntil ? 'invited' : 'no password, no link'}</span>
                )}
              </td>
              <td>{p.roleName}</td>
              <td className="max-sm:hidden">{places(p.locationIds)}</td>
              <td className="figure max-sm:hidden">
                {p.approvalLimit === null ? 'any sum' : format.money(p.approvalLimit, view.currency)}
              </td>
              <td className="figure">
                <button
                  type="button"
                  className="link text-action"
                  aria-label={`Change ${p.name}`}
                  onClick={() => setPerson(p)}
                >
                  Change
                </button>
              </td>
            </tr>
          ))}
        </tbody>
      </table>
      {person && (
        <PersonForm
          key={person === 'new' ? 'new' : person.id}
          view={view}
          person={person === 'new' ? null : person}
          onClose={() => setPerson(null)}
          onLink={(name, token) => {
            setPerson(null);
            setLink({ name, url: `${window.location.origin}/invitation/${token}` });
          }}
        />
      )}
      {role && (
        <RoleForm
          key={role === 'new' ? 'new' : role.key}
          view={view}
          role={role === 'new' ? null : role}
          onClose={() => setRole(null)}
        />
      )}
    </ListAndPanel>
  );
}

function Roles({ view, onOpen }: { view: PeopleView; onOpen: (role: RoleView | 'new') => void }) {
  return (
    <section>
      <h2 className="head">
        Roles
        <button type="button" className="link font-normal text-action" onClick={() => onOpen('new')}>
          Add a role
        </button>
      </h2>
      <ul className="grid gap-3">
        {view.roles.map((r) => (
          <li key={r.key}>
            <p className="flex justify-between gap-2">
              <strong>{r.name}</strong>
              {r.id === null ? (
                <span className="second">built in</span>
              ) : (
                <button
                  type="button"
                  className="link text-action"
                  aria-label={`Change role ${r.name}`}
                  onClick={() => onOpen(r)}
                >
                  Change
                </button>
              )}
            </p>
            <p className="second">{r.rights.map((x) => rightWords[x]).join(', ') || 'nothing'}</p>
          </li>
        ))}
      </ul>
    </section>
  );
}
