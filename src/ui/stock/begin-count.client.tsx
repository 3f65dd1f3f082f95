'use client';

import { useRouter } from 'next/navigation';
import { type FormEvent, useState } from 'react';
import type { NamedItem } from '@/services/catalogue/readItemsNamed';
import type { CountsView } from '@/services/stock/readCounts';
import { useCommand } from '../command/use-command.client';
import { Modal } from '../frame/modal.client';
import { type FieldItem, ItemField } from '../items/item-field.client';

type What = 'all' | 'category' | 'shelf' | 'marked';
const whats: readonly (readonly [What, string])[] = [
  ['all', 'everything there'],
  ['category', 'a category'],
  ['shelf', 'a shelf'],
  ['marked', 'these items'],
];

/** What is counted, where and how; once, or again and again. */
export function BeginCount(props: {
  view: CountsView;
  categories: readonly string[];
  first: readonly NamedItem[];
  onLeave: () => void;
}) {
  const { view, first, onLeave } = props;
  const router = useRouter();
  const { busy, sentence, failure, run } = useCommand();
  const [locationId, setPlace] = useState(view.places[0]?.id ?? 0);
  const [what, setWhat] = useState<What>(first.length > 0 ? 'marked' : 'category');
  const [category, setCategory] = useState('');
  const [shelf, setShelf] = useState('');
  const [items, setItems] = useState<readonly (NamedItem | FieldItem)[]>(first);
  const [name, setName] = useState('');
  const [blind, setBlind] = useState(true);
  const [again, setAgain] = useState(false);
  const [everyDays, setEvery] = useState('7');
  const [firstOn, setFirst] = useState('');
  const [field, setField] = useState(1);
  const place = view.places.find((p) => p.id === locationId)?.name ?? '';
  const called =
    name.trim() ||
    `${what === 'all' ? 'Everything' : what === 'category' ? category.split(' > ').at(-1) || 'A category' : what === 'shelf' ? `Shelf ${shelf}` : `${items.length} items`}, ${place}`;
  const missing =
    what === 'category' && category === ''
      ? 'Choose a category first'
      : what === 'shelf' && shelf.trim() === ''
        ? 'Name a shelf first'
        : what === 'marked' && items.length === 0
          ? 'Add an item first'
          : undefined;
  const days = Number(everyDays);
  const rhythm = Number.isInteger(days) && days >= 1 && days <= 999;
  const submit = async (event: FormEvent) => {
    event.preventDefault();
    const scope = { locationId, what, category, shelf, itemIds: items.map((i) => i.id), name: called, blind };
    if (again) {
      const planned = await run('plan-count', { ...scope, everyDays: days, firstOn });
      if (planned.ok) onLeave();
      return;
    }
    const begun = await run<{ countId: number }>('begin-count', scope);
    if (begun.ok) router.push(`/stock/counts/${begun.value.countId}`);
  };
  return (
    <Modal title="Count stock" width="w-[600px]" onLeave={onLeave}>
      <form className="grid gap-4 p-5" onSubmit={submit}>
        <h2 className="text-[16px] font-semibold">Count stock</h2>
        <div className="grid grid-cols-2 gap-3 max-sm:grid-cols-1">
          <label className="grid gap-1">
            <span className="second">At</span>
            <select className="entry" value={locationId} onChange={(e) => setPlace(Number(e.target.value))}>
              {view.places.map((p) => (
                <option key={p.id} value={p.id}>
                  {p.name}
                </option>
              ))}
            </select>
          </label>
          <label className="grid gap-1">
            <span className="second">What</span>
            <select className="entry" value={what} onChange={(e) => setWhat(e.target.value as What)}>
              {whats.map(([key, words]) => (
                <option key={key} value={key}>
                  {words}
                </option>
              ))}
            </select>
          </label>
        </div>
        {what === 'category' && (
          <label className="grid gap-1">
            <span className="second">Category, with what is below it</span>
            <select className="entry" value={category} onChange={(e) => setCategory(e.target.value)}>
              <option value="">choose</option>
              {props.categories.map((c) => (
                <option key={c} value={c}>
                  {c}
                </option>
              ))}
            </select>
          </label>
        )}
        {what === 'shelf' && (
          <label className="grid gap-1">
            <span className="second">Shelf, or how the names of several begin</span>
            <input
              className="entry"
              list="shelves"
              placeholder="A1"
              maxLength={40}
              value={shelf}
              onChange={(e) => setShelf(e.target.value)}
            />
            <datalist id="shelves">
              {view.shelves
                .filter((s) => s.locationId === locationId)
                .map((s) => (
                  <option key={s.shelf} value={s.shelf} />
                ))}
            </datalist>
          </label>
        )}
        {what === 'marked' && (
          <div className="grid gap-1">
            <ul className="max-h-44 overflow-y-auto">
              {items.map((i) => (
                <li key={i.id} className="flex items-center gap-2 py-0.5">
                  <span className="min-w-0 flex-1">
                    {i.name} <span className="code">{i.number}</span>
                  </span>
                  <button
                    type="button"
                    className="second hover:underline"
                    aria-label={`Take ${i.name} off`}
                    onClick={() => setItems((all) => all.filter((x) => x.id !== i.id))}
                  >
                    take off
                  </button>
                </li>
              ))}
            </ul>
            <ItemField
              key={field}
              label="Another item"
              placeholder="another item: name, number or a scan"
              taken={null}
              onTake={(item) => {
                if (item && !items.some((i) => i.id === item.id)) setItems((all) => [...all, item]);
                setField(field + 1);
              }}
            />
          </div>
        )}
        <label className="grid gap-1">
          <span className="second">Called</span>
          <input
            className="entry"
            placeholder={called}
            maxLength={120}
            value={name}
            onChange={(e) => setName(e.target.value)}
          />
        </label>
        <label className="flex items-start gap-2">
          <input type="checkbox" className="mt-1" checked={blind} onChange={(e) => setBlind(e.target.checked)} />
          <span>
            Blind
            <span className="second block">Who counts does not see what the books expect before it is posted.</span>
          </span>
        </label>
        <div className="flex flex-wrap items-center gap-2">
          <label className="flex items-center gap-2">
            <input type="checkbox" checked={again} onChange={(e) => setAgain(e.target.checked)} />
            <span>Again and again</span>
          </label>
          {again && (
            <>
              <label className="flex items-center gap-1.5">
                every
                <input
                  className="entry figure w-14"
                  inputMode="numeric"
                  aria-label="Days between counts"
                  aria-invalid={!rhythm}
                  value={everyDays}
                  onChange={(e) => setEvery(e.target.value)}
                />
                days
              </label>
              <label className="flex items-center gap-1.5">
                from
                <input
                  className="entry w-28"
                  placeholder="today, fri, +3"
                  aria-label="First on"
                  aria-invalid={failure?.kind === 'invalid_field' && failure.field === 'firstOn'}
                  value={firstOn}
                  onChange={(e) => setFirst(e.target.value)}
                />
                on
              </label>
            </>
          )}
        </div>
        {again && !rhythm && <p className="fault">A rhythm is a whole number of days, 1 to 999.</p>}
        {sentence && (
          <p className="fault" role="alert">
            {sentence}
          </p>
        )}
        <div className="flex justify-end gap-2">
          <button type="button" className="btn btn-outline" onClick={onLeave}>
            Leave it
          </button>
          <button
            type="submit"
            className="btn btn-primary"
            disabled={busy || missing !== undefined || (again && !rhythm)}
            title={missing}
          >
            {again ? 'Keep this rhythm' : 'Begin'}
          </button>
        </div>
      </form>
    </Modal>
  );
}
