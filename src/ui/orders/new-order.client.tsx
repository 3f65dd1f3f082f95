'use client';

import { useRouter } from 'next/navigation';
import { type FormEvent, useState } from 'react';
import type { OrderFrom } from '@/services/purchase/newOrder';
import { useCommand } from '../command/use-command.client';
import { useFormat } from '../format-context.client';
import { ListBar, WholeList } from '../frame/list';

const MOST = 9;

/** A new order: whom it is from, by a few letters; its terms, address and contact fill in, and the draft is there to be typed into. */
export function NewOrder(props: {
  suppliers: readonly OrderFrom[];
  places: readonly { readonly id: number; readonly name: string }[];
  at: number;
  /** Asked for from a supplier's page. */
  supplierId: number | null;
}) {
  const router = useRouter();
  const format = useFormat();
  const { busy, failure, sentence, run } = useCommand();
  const [words, setWords] = useState('');
  const [chosen, setChosen] = useState<OrderFrom | null>(
    props.suppliers.find((s) => s.id === props.supplierId) ?? null,
  );
  const [at, setAt] = useState(0);
  const [locationId, setLocationId] = useState(props.at);
  const [addressId, setAddressId] = useState<number | null>(null);
  const typed = words.trim().toLowerCase();
  const fits = props.suppliers
    .filter((s) => `${s.code} ${s.name}`.toLowerCase().includes(typed))
    .sort((a, b) => Number(!a.name.toLowerCase().startsWith(typed)) - Number(!b.name.toLowerCase().startsWith(typed)))
    .slice(0, MOST);
  const choose = (s: OrderFrom) => {
    setChosen(s);
    setWords(s.name);
    setAddressId(s.addresses.length === 1 ? (s.addresses[0]?.id ?? null) : null);
  };
  const begin = async (event: FormEvent) => {
    event.preventDefault();
    if (!chosen) return;
    const outcome = await run<{ orderId: number }>(
      'new-order',
      { supplierId: chosen.id, locationId, addressId },
      { refresh: false },
    );
    if (outcome.ok) router.push(`/orders/${outcome.value.orderId}`);
  };
  const row = 'grid w-full grid-cols-[64px_1fr_auto] items-baseline gap-3 px-2 py-1 text-left';
  const facts: readonly (readonly [string, string])[] = chosen
    ? [
        ['Currency', chosen.currency],
        ['Payment', chosen.payment || 'nothing is agreed'],
        [
          'Delivery',
          [chosen.delivery, chosen.shippingWay && `by ${chosen.shippingWay}`].filter(Boolean).join(', ') ||
            'nothing is agreed',
        ],
        ['Minimum', chosen.minimum > 0 ? format.money(chosen.minimum, chosen.currency) : 'none'],
        [
          'Ask',
          chosen.contacts.map((c) => [c.name, c.phone].filter(Boolean).join(', ')).join('; ') || 'nobody on file',
        ],
      ]
    : [];
  return (
    <WholeList>
      <form onSubmit={begin}>
        <ListBar title="A new order">
          <span className="ml-auto flex items-center gap-3">
            {!chosen && <span className="second">still missing: a supplier</span>}
            <button type="submit" className="btn btn-primary" disabled={busy || !chosen}>
              Begin the order
            </button>
          </span>
        </ListBar>
        <div className="grid max-w-3xl gap-4 px-4 py-4">
          <div className="flex flex-wrap items-start gap-3">
            <label className="grid w-96 max-w-full gap-0.5">
              <span className="second">Supplier</span>
              <input
                className="entry w-full"
                role="combobox"
                aria-label="Supplier"
                aria-expanded={!chosen && typed !== ''}
                aria-controls="suppliers-that-fit"
                autoComplete="off"
                placeholder="a few letters of the name"
                // biome-ignore lint/a11y/noAutofocus: the page is there to choose one.
                autoFocus
                value={chosen && words === '' ? chosen.name : words}
                onChange={(e) => {
                  setWords(e.target.value);
                  setChosen(null);
                  setAt(0);
                }}
                onKeyDown={(e) => {
                  if (chosen) return;
                  if (e.key === 'Enter') {
                    e.preventDefault();
                    const fit = fits[at] ?? fits[0];
                    if (fit) choose(fit);
                  }
                  if (e.key !== 'ArrowDown' && e.key !== 'ArrowUp') return;
                  e.preventDefault();
                  setAt(Math.max(0, Math.min(fits.length - 1, at + (e.key === 'ArrowDown' ? 1 : -1))));
                }}
              />
            </label>
            <label className="grid gap-0.5">
              <span className="second">Deliver to</span>
              <select
                className="entry"
                aria-label="Deliver to"
                value={locationId}
                onChange={(e) => setLocationId(Number(e.target.value))}
              >
                {props.places.map((p) => (
                  <option key={p.id} value={p.id}>
                    {p.name}
                  </option>
                ))}
              </select>
            </label>
            {chosen && chosen.addresses.length > 1 && (
              <label className="grid gap-0.5">
                <span className="second">Order goes to</span>
                <select
                  className="entry"
                  aria-label="Order goes to"
                  aria-invalid={failure?.kind === 'invalid_field'}
                  value={addressId ?? ''}
                  onChange={(e) => setAddressId(e.target.value === '' ? null : Number(e.target.value))}
                >
                  <option value="">choose one</option>
                  {chosen.addresses.map((a) => (
                    <option key={a.id} value={a.id}>
                      {a.name}
                    </option>
                  ))}
                </select>
              </label>
            )}
          </div>
          {!chosen && (
            <div id="suppliers-that-fit" role="listbox" aria-label="Suppliers that fit" className="max-w-xl">
              {fits.map((s, i) => (
                <button
                  key={s.id}
                  type="button"
                  role="option"
                  aria-selected={i === at}
                  tabIndex={-1}
                  className={`${row} ${i === at ? 'bg-highlight' : 'hover:bg-highlight'}`}
                  onClick={() => choose(s)}
                >
                  <span className="code">{s.code}</span>
                  <span>
                    {s.name}
                    {s.blocked && <span className="marker ml-2">blocked</span>}
                  </span>
                  <span className="second">{s.currency}</span>
                </button>
              ))}
              {fits.length === 0 && <p className="text-muted">No supplier fits “{words.trim()}”.</p>}
            </div>
          )}
          {chosen && (
            <dl className="flex flex-wrap gap-x-8 gap-y-2 border-t border-rule pt-3">
              {facts.map(([name, what]) => (
                <div key={name} className="max-w-60 min-w-24">
                  <dt className="second">{name}</dt>
                  <dd className="font-semibold">{what}</dd>
                </div>
              ))}
            </dl>
          )}
          {chosen?.blocked && (
            <p className="note">This supplier is blocked: the order can be written, but not approved.</p>
          )}
          {sentence && (
            <p className="fault" role="alert">
              {sentence}
            </p>
          )}
        </div>
      </form>
    </WholeList>
  );
}
