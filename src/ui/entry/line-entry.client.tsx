'use client';

import { useEffect, useRef, useState } from 'react';
import type { EntryMatch } from '@/services/promise/readEntry';
import { plural } from '../format';
import { useFormat } from '../format-context.client';
import { takeScans } from '../grid/scans';
import { NewItemDialog } from '../items/new-item.client';
import { useMay } from '../may-context.client';

const PAUSE_MS = 120;

/** What fits a typed line: an item with quantity and pack. */
type LineMatch = {
  readonly itemId: number;
  readonly number: string;
  readonly name: string;
  readonly quantity: string;
  readonly packId: number | null;
  readonly packName: string;
};

/** Asks one of the reads for what fits; null when it can't be asked. */
export async function askFor<M>(address: string, words: string): Promise<readonly M[] | null> {
  const response = await fetch(`${address}&q=${encodeURIComponent(words)}`).catch(() => null);
  return response?.ok ? ((await response.json()) as { value: M[] }).value : null;
}

/** The one field that new lines are typed into, with what is free at a place and what an item sells at. */
export function LineEntry(props: {
  label: string;
  /** Whose stock is shown. */
  locationId: number;
  onTake: (match: EntryMatch) => void;
  autoFocus?: boolean;
}) {
  const format = useFormat();
  return (
    <LineField<EntryMatch>
      label={props.label}
      address={`/api/reads/entry?place=${props.locationId}`}
      onTake={props.onTake}
      autoFocus={props.autoFocus ?? false}
      beside={(m) => [
        `${format.quantity(m.free)} free${m.coming > 0 ? `, ${format.quantity(m.coming)} on the way` : ''}`,
        m.salePrice === null ? '–' : format.price(m.salePrice),
      ]}
    />
  );
}

/** The one field that new lines are typed into: quantity, pack and item in any order, or a scan. It shows the best matches with
 *  what is said beside them, takes the first on Enter (arrows choose another), and is ready for the next. Several pasted rows
 *  are handed on. */
export function LineField<M extends LineMatch>(props: {
  label: string;
  /** The read that is asked, with its own parameters. */
  address: string;
  onTake: (match: M) => void;
  /** What stands right of a match: stock, and a price. */
  beside: (match: M) => readonly [string, string];
  onPaste?: (rows: readonly string[]) => void;
  autoFocus?: boolean;
}) {
  const { address, onTake } = props;
  const mayMake = useMay('catalogue.edit');
  const field = useRef<HTMLInputElement>(null);
  const [words, setWords] = useState('');
  /** What was found, and for which words. */
  const [found, setFound] = useState<{ for: string; rows: readonly M[] }>({ for: '', rows: [] });
  const [chosen, setChosen] = useState(0);
  const [said, setSaid] = useState('');
  const [making, setMaking] = useState(false);
  const typed = words.trim();
  useEffect(() => {
    setChosen(0);
    if (typed.length < 2) return setFound({ for: '', rows: [] });
    let stale = false;
    const timer = setTimeout(async () => {
      const rows = await askFor<M>(address, typed);
      if (!stale && rows) setFound({ for: typed, rows });
    }, PAUSE_MS);
    return () => {
      stale = true;
      clearTimeout(timer);
    };
  }, [typed, address]);
  const take = (m: M) => {
    setWords('');
    setFound({ for: '', rows: [] });
    setSaid('');
    onTake(m);
    field.current?.focus();
  };
  /** Enter is quicker than the list: what it would show is asked for at once. */
  const enter = async () => {
    const rows = found.for === typed ? found.rows : await askFor<M>(address, typed);
    const row = rows?.[found.for === typed ? chosen : 0];
    if (row) take(row);
    else setSaid(rows ? `Nothing fits “${typed}”.` : 'This can’t be looked up just now. What you typed is still here.');
  };
  // A scan is a line of one, wherever the hand is.
  const scanned = useRef<(code: string) => void>(() => undefined);
  scanned.current = async (code) => {
    const [row] = (await askFor<M>(address, code)) ?? [];
    if (row) take(row);
    else setSaid(`Nothing has the code ${code}.`);
  };
  useEffect(() => takeScans({ take: (code) => scanned.current(code) }), []);
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
        onPaste={(e) => {
          const rows = e.clipboardData
            .getData('text')
            .split(/\r?\n/)
            .filter((r) => r.trim() !== '');
          if (!props.onPaste || (rows.length < 2 && !rows[0]?.includes('\t'))) return;
          e.preventDefault();
          props.onPaste(rows);
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
              key={`${m.itemId}/${m.packId}`}
              id={`entry-${i}`}
              type="button"
              role="option"
              aria-selected={i === chosen}
              tabIndex={-1}
              className={`${row} ${i === chosen ? 'bg-highlight' : 'hover:bg-highlight'}`}
              onClick={() => take(m)}
            >
              <span className="min-w-0">
                {m.quantity} {plural(m.packName, Number(m.quantity.replace(',', '.')) * 1_000_000)} · {m.name}{' '}
                <span className="code">{m.number}</span>
              </span>
              {props.beside(m).map((words, k) => (
                // biome-ignore lint/suspicious/noArrayIndexKey: two places that never move.
                <span key={k} className="figure second">
                  {words}
                </span>
              ))}
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
            const [match] = (await askFor<M>(address, made.number)) ?? [];
            if (match) take(match);
          }}
        />
      )}
    </div>
  );
}
