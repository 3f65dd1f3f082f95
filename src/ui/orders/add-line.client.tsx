'use client';

import { type FormEvent, useEffect, useRef, useState } from 'react';
import type { Found } from '@/services/people/readFind';
import { useCommand } from '../command/use-command.client';
import { NewItemDialog } from '../items/new-item.client';
import { useMay } from '../may-context.client';

type Item = Found['items'][number];

const figures = [
  ['packs', 'Packs', 'packs', 'w-20'],
  ['price', 'Price per pack', 'list price', 'w-24'],
] as const;

/** Another line on a draft: an item by name or number, how many packs, for which place. An item that is not there yet is made
 *  on the way. */
export function AddLine(props: { orderId: number; places: readonly { readonly id: number; readonly name: string }[] }) {
  const { busy, failure, sentence, run } = useCommand();
  const mayMake = useMay('catalogue.edit');
  const [words, setWords] = useState('');
  const [item, setItem] = useState<Item | null>(null);
  const [found, setFound] = useState<readonly Item[]>([]);
  const [rest, setRest] = useState({ packs: '', price: '', locationId: props.places[0]?.id ?? 0 });
  const [making, setMaking] = useState(false);
  const field = useRef<HTMLInputElement>(null);
  useEffect(() => {
    if (words.trim().length < 2 || item) return setFound([]);
    let stale = false;
    const timer = setTimeout(async () => {
      const response = await fetch(`/api/reads/find?q=${encodeURIComponent(words)}`).catch(() => null);
      const body = response?.ok ? ((await response.json()) as { value: Found }) : null;
      if (!stale) setFound(body?.value.items ?? []);
    }, 120);
    return () => {
      stale = true;
      clearTimeout(timer);
    };
  }, [words, item]);
  const take = (i: Item) => {
    setItem(i);
    setWords(`${i.number} ${i.name}`);
    setFound([]);
  };
  const add = async (event: FormEvent) => {
    event.preventDefault();
    if (!item) return found[0] && take(found[0]);
    const outcome = await run('add-order-line', { orderId: props.orderId, itemId: item.id, ...rest });
    if (!outcome.ok) return;
    setItem(null);
    setWords('');
    setRest({ ...rest, packs: '', price: '' });
    field.current?.focus();
  };
  const fault = (name: string) => (failure?.kind === 'invalid_field' && failure.field === name ? sentence : '');
  return (
    <form
      onSubmit={add}
      className="flex flex-wrap items-start gap-2 border-t border-rule px-4 py-3"
      aria-label="Add a line"
    >
      <div className="relative min-w-64 flex-1">
        <input
          ref={field}
          className="entry w-full"
          value={words}
          placeholder="Add an item: name, number or barcode"
          aria-label="Item to add"
          autoComplete="off"
          onChange={(e) => {
            setWords(e.target.value);
            setItem(null);
          }}
        />
        {!item && words.trim().length >= 2 && (
          <ul className="absolute z-10 w-full rounded-sm border border-rule-strong bg-sheet">
            {found.map((i) => (
              <li key={i.id}>
                <button
                  type="button"
                  className="flex w-full justify-between gap-3 px-2 py-1 text-left hover:bg-highlight"
                  onClick={() => take(i)}
                >
                  {i.name} <span className="code">{i.number}</span>
                </button>
              </li>
            ))}
            {mayMake && (
              <li>
                <button
                  type="button"
                  className="w-full px-2 py-1 text-left hover:bg-highlight"
                  onClick={() => setMaking(true)}
                >
                  Make a new item called “{words.trim()}”
                </button>
              </li>
            )}
          </ul>
        )}
      </div>
      {figures.map(([name, label, placeholder, width]) => (
        <label key={name} className="grid">
          <input
            className={`entry figure ${width}`}
            value={rest[name]}
            inputMode="decimal"
            placeholder={placeholder}
            aria-label={label}
            onChange={(e) => setRest({ ...rest, [name]: e.target.value })}
          />
          <span className="fault max-w-40">{fault(name)}</span>
        </label>
      ))}
      <select
        className="entry"
        value={rest.locationId}
        aria-label="For"
        onChange={(e) => setRest({ ...rest, locationId: Number(e.target.value) })}
      >
        {props.places.map((p) => (
          <option key={p.id} value={p.id}>
            {p.name}
          </option>
        ))}
      </select>
      <button type="submit" className="btn btn-outline" disabled={busy || !item || rest.packs.trim() === ''}>
        Add
      </button>
      {sentence && failure?.kind !== 'invalid_field' && (
        <p className="fault w-full" role="alert">
          {sentence}
        </p>
      )}
      {making && (
        <NewItemDialog
          name={words.trim()}
          onClose={() => setMaking(false)}
          onMade={(made) => take({ id: made.itemId, number: made.number, name: words.trim() })}
        />
      )}
    </form>
  );
}
