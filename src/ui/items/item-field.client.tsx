'use client';

import { useEffect, useState } from 'react';
import type { Found } from '@/services/people/readFind';
import { useMay } from '../may-context.client';
import { find } from './find';
import { NewItemDialog } from './new-item.client';

export type FieldItem = Found['items'][number];

const PAUSE_MS = 120;

/** The item with exactly this number or code on a label; 'unknown' where none has it, null when that could not be asked. */
export async function itemOfCode(code: string): Promise<FieldItem | 'unknown' | null> {
  const found = await find(code);
  if (!found) return null;
  return (found.exact > 0 && found.items[0]) || 'unknown';
}

/** A field that finds an item by name, number or barcode as one types, Enter takes the first; an item that is not there yet
 *  is made on the way. It empties when it is given another `key`. */
export function ItemField(props: {
  label: string;
  placeholder: string;
  taken: FieldItem | null;
  onTake: (item: FieldItem | null) => void;
  autoFocus?: boolean;
}) {
  const { taken, onTake } = props;
  const mayMake = useMay('catalogue.edit');
  const [words, setWords] = useState('');
  const [found, setFound] = useState<readonly FieldItem[]>([]);
  const [making, setMaking] = useState(false);
  useEffect(() => {
    if (words.trim().length < 2 || taken) return setFound([]);
    let stale = false;
    const timer = setTimeout(async () => {
      const now = await find(words);
      if (!stale) setFound(now?.items ?? []);
    }, PAUSE_MS);
    return () => {
      stale = true;
      clearTimeout(timer);
    };
  }, [words, taken]);
  const take = (i: FieldItem) => {
    onTake(i);
    setWords(`${i.number} ${i.name}`);
    setFound([]);
  };
  const row = 'flex w-full justify-between gap-3 px-2 py-1 text-left hover:bg-highlight';
  return (
    <div className="relative min-w-64 flex-1">
      <input
        className="entry w-full"
        value={words}
        placeholder={props.placeholder}
        aria-label={props.label}
        autoComplete="off"
        // biome-ignore lint/a11y/noAutofocus: only where the hand was a moment ago.
        autoFocus={props.autoFocus}
        onChange={(e) => {
          setWords(e.target.value);
          onTake(null);
        }}
        onKeyDown={(e) => {
          if (e.key !== 'Enter' || taken) return;
          e.preventDefault();
          if (found[0]) take(found[0]);
        }}
      />
      {!taken && words.trim().length >= 2 && (
        <ul className="absolute z-10 w-full rounded-sm border border-rule-strong bg-sheet">
          {found.map((i) => (
            <li key={i.id}>
              <button type="button" className={row} onClick={() => take(i)}>
                {i.name} <span className="code">{i.number}</span>
              </button>
            </li>
          ))}
          {mayMake ? (
            <li>
              <button type="button" className={row} onClick={() => setMaking(true)}>
                Make a new item called “{words.trim()}”
              </button>
            </li>
          ) : (
            found.length === 0 && <li className="px-2 py-1 text-muted">Nothing found</li>
          )}
        </ul>
      )}
      {making && <NewItemDialog name={words.trim()} onClose={() => setMaking(false)} onMade={take} />}
    </div>
  );
}
