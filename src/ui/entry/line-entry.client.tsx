'use client';

import { useEffect, useRef, useState } from 'react';
import type { EntryMatch } from '@/services/promise/readEntry';
import { useFormat } from '../format-context.client';
import { NewItemDialog } from '../items/new-item.client';
import { useMay } from '../may-context.client';

const PAUSE_MS = 120;

async function ask(words: string, place: number): Promise<readonly EntryMatch[] | null> {
  const response = await fetch(`/api/reads/entry?q=${encodeURIComponent(words)}&place=${place}`).catch(() => null);
  return response?.ok ? ((await response.json()) as { value: EntryMatch[] }).value : null;
}

/** The one field that new lines are typed into: quantity, pack and item in any order, or a scan. It shows the best matches with
 *  stock and price, takes the first on Enter (arrows choose another), and is ready for the next. */
export function LineEntry(props: {
  label: string;
  /** Whose stock is shown. */
  locationId: number;
  onTake: (match: EntryMatch) => void;
  autoFocus?: boolean;
}) {
  const { locationId, onTake } = props;
  const format = useFormat();
  const mayMake = useMay('catalogue.edit');
  const field = useRef<HTMLInputElement>(null);
  const [words, setWords] = useState('');
  /** What was found, and for which words. */
  const [found, setFound] = useState<{ for: string; rows: readonly EntryMatch[] }>({ for: '', rows: [] });
  const [chosen, setChosen] = useState(0);
  const [said, setSaid] = useState('');
  const [making, setMaking] = useState(false);
  const typed = words.trim();
  useEffect(() => {
    setChosen(0);
    if (typed.length < 2) return setFound({ for: '', rows: [] });
    let stale = false;
    const timer = setTimeout(async () => {
      const rows = await ask(typed, locationId);
      if (!stale && rows) setFound({ for: typed, rows });
    }, PAUSE_MS);
    return () => {
      stale = true;
      clearTimeout(timer);
    };
  }, [typed, locationId]);
  const take = (m: EntryMatch) => {
    setWords('');
    setFound({ for: '', rows: [] });
    setSaid('');
    onTake(m);
    field.current?.focus();
  };
  /** Enter is quicker than the list: what it would show is asked for at once. */
  const enter = async () => {
    const rows = found.for === typed ? found.rows : await ask(typed, locationId);
    const row = rows?.[found.for === typed ? chosen : 0];
    if (row) take(row);
    else setSaid(rows ? `Nothing fits “${typed}”.` : 'This can’t be looked up just now. What you typed is still here.');
  };
  const shown = found.for === typed ? found.rows : [];
  const row = 'grid w-full grid-cols-[minmax(0,1fr)_auto_auto] items-baseline gap-4 px-2 py-1 text-left';
  return (
    <div className="relative max-w-3xl">
      <input
        ref={field}
        className="entry w-full"
        role="combobox"
        aria-expanded={shown.length > 0}
        aria-controls="entry-matches"
        aria-activedescendant={shown.length > 0 ? `entry-${chosen}` : undefined}
        aria-label={props.label}
        placeholder="6 bag fen moss · 10412-07 60 · a scan"
        autoComplete="off"
        // biome-ignore lint/a11y/noAutofocus: the page is there to type lines into.
        autoFocus={props.autoFocus}
        value={words}
        onChange={(e) => {
          setWords(e.target.value);
          setSaid('');
        }}
        onKeyDown={(e) => {
          if (e.key === 'Enter' && typed !== '') {
            e.preventDefault();
            enter();
          } else if (e.key === 'ArrowDown' || e.key === 'ArrowUp') {
            e.preventDefault();
            setChosen(Math.max(0, Math.min(shown.length - 1, chosen + (e.key === 'ArrowDown' ? 1 : -1))));
          } else if (e.key === 'Escape') setWords('');
        }}
      />
      {said && (
        <p className="fault" role="alert">
          {said}
        </p>
      )}
      {shown.length > 0 && (
        <div
          id="entry-matches"
          role="listbox"
          aria-label="What fits"
          className="absolute z-10 w-full rounded-sm border border-rule-strong bg-sheet"
        >
          {shown.map((m, i) => (
            <button
              key={m.itemId}
              id={`entry-${i}`}
              type="button"
              role="option"
              aria-selected={i === chosen}
              tabIndex={-1}
              className={`${row} ${i === chosen ? 'bg-highlight' : 'hover:bg-highlight'}`}
              onClick={() => take(m)}
            >
              <span className="min-w-0">
                {m.quantity} {m.packName} · {m.name} <span className="code">{m.number}</span>
              </span>
              <span className="figure second">
                {format.quantity(m.free)} free{m.coming > 0 && `, ${format.quantity(m.coming)} on the way`}
              </span>
              <span className="figure second">{m.salePrice === null ? '–' : format.price(m.salePrice)}</span>
            </button>
          ))}
        </div>
      )}
      {found.for === typed && typed.length >= 2 && shown.length === 0 && (
        <p className="second pt-1">
          Nothing fits “{typed}”.{' '}
          {mayMake && (
            <button type="button" className="link text-action" onClick={() => setMaking(true)}>
              Make a new item
            </button>
          )}
        </p>
      )}
      {making && (
        <NewItemDialog
          name={typed}
          onClose={() => setMaking(false)}
          onMade={async (made) => {
            setMaking(false);
            const [match] = (await ask(made.number, locationId)) ?? [];
            if (match) take(match);
          }}
        />
      )}
    </div>
  );
}
