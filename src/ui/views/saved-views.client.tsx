'use client';

import Link from 'next/link';
import { type FormEvent, useState } from 'react';
import type { ViewLink } from '@/services/views/readViews';
import { useCommand } from '../command/use-command.client';

/** Views of a list that were kept under a name, one's own and those that others share; the present one can be kept. */
export function SavedViews(props: { page: string; path: string; query: string; views: readonly ViewLink[] }) {
  const { views } = props;
  const { busy, sentence, run } = useCommand();
  const [name, setName] = useState('');
  const [shared, setShared] = useState(false);
  const keep = async (event: FormEvent) => {
    event.preventDefault();
    const outcome = await run('save-view', { page: props.page, name, query: props.query, shared });
    if (outcome.ok) setName('');
  };
  return (
    <details className="relative">
      <summary className="chip cursor-pointer list-none">Views{views.length > 0 ? ` ${views.length}` : ''}</summary>
      <div className="absolute right-0 z-20 mt-1 grid w-64 gap-2 rounded-sm border border-rule-strong bg-sheet p-3">
        {views.length === 0 && <p className="second">No view is kept yet. Narrow the list, then give it a name.</p>}
        <ul className="grid gap-1">
          {views.map((v) => (
            <li key={v.id} className="flex items-baseline justify-between gap-2">
              <Link className="link min-w-0 break-words" href={v.query ? `${props.path}?${v.query}` : props.path}>
                {v.name}
              </Link>
              {v.own ? (
                <button
                  type="button"
                  className="second hover:underline"
                  disabled={busy}
                  aria-label={`Take view ${v.name} away`}
                  onClick={() => run('remove-view', { viewId: v.id })}
                >
                  {v.shared ? 'shared, ' : ''}take away
                </button>
              ) : (
                <span className="second">{v.who}</span>
              )}
            </li>
          ))}
        </ul>
        <form onSubmit={keep} className="grid gap-2 border-t border-rule pt-2">
          <label className="grid gap-1">
            <span className="second">Keep this view as</span>
            <input className="entry" value={name} maxLength={60} onChange={(e) => setName(e.target.value)} />
          </label>
          <label className="flex items-center gap-2">
            <input
              type="checkbox"
              className="accent-action"
              checked={shared}
              onChange={(e) => setShared(e.target.checked)}
            />
            for everybody
          </label>
          <button type="submit" className="btn btn-outline justify-self-start" disabled={busy || name.trim() === ''}>
            Keep
          </button>
          {sentence && (
            <p className="fault" role="alert">
              {sentence}
            </p>
          )}
        </form>
      </div>
    </details>
  );
}
