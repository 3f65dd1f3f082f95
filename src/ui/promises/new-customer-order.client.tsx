'use client';

import { useRouter } from 'next/navigation';
import { type FormEvent, useEffect, useRef, useState } from 'react';
import type { CustomerRow } from '@/data/repositories/customerOrders';
import type { EntryMatch } from '@/services/promise/readEntry';
import type { PromiseLine } from '@/services/promise/readPromises';
import { useCommand } from '../command/use-command.client';
import { LineEntry } from '../entry/line-entry.client';
import { countOf, plural } from '../format';
import { useFormat } from '../format-context.client';
import { ListBar, WholeList } from '../frame/list';
import { TakeWebOrders } from './take-web-orders.client';

type Line = EntryMatch & { readonly key: number; readonly wantedDate: string; readonly way: PromiseLine['way'] };
type Who = Pick<CustomerRow, 'name' | 'mail' | 'phone' | 'address'>;

const NOBODY: Who = { name: '', mail: '', phone: '', address: '' };
const PAUSE_MS = 150;

/** A customer's order, taken by keyboard: who, then line after line in one field. What is free is said while typing. */
export function NewCustomerOrder(props: {
  places: readonly { readonly id: number; readonly name: string }[];
  at: number;
  /** A web shop is named. */
  webShop: boolean;
}) {
  const router = useRouter();
  const format = useFormat();
  const { busy, failure, sentence, run } = useCommand();
  const [known, setKnown] = useState<CustomerRow | null>(null);
  const [who, setWho] = useState<Who>(NOBODY);
  const [place, setPlace] = useState(props.at);
  const [delivers, setDelivers] = useState<'in_part' | 'complete'>('in_part');
  const [note, setNote] = useState('');
  const [lines, setLines] = useState<readonly Line[]>([]);
  const [next, setNext] = useState(1);
  const [wanted, setWanted] = useState('');
  const drafted = { who, delivers, note, lines, wanted };
  useKept(drafted, (d) => {
    setWho(d.who);
    setDelivers(d.delivers);
    setNote(d.note);
    setLines(d.lines);
    setWanted(d.wanted);
    setNext(Math.max(0, ...d.lines.map((l) => l.key)) + 1);
  });
  const customers = useCustomers(who.name, known);
  const take = (m: EntryMatch) => {
    setLines((all) => [...all, { ...m, key: next, wantedDate: wanted, way: 'collect' }]);
    setNext(next + 1);
  };
  const put = (key: number, change: Partial<Line>) =>
    setLines((all) => all.map((l) => (l.key === key ? { ...l, ...change } : l)));
  const choose = (c: CustomerRow) => {
    setKnown(c);
    setWho({ name: c.name, mail: c.mail, phone: c.phone, address: c.address });
    setDelivers(c.delivers);
  };
  const say = (change: Partial<Who>) => {
    setKnown(null);
    setWho({ ...who, ...change });
  };
  const submit = async (event: FormEvent) => {
    event.preventDefault();
    const outcome = await run<{ orderId: number }>(
      'enter-customer-order',
      {
        ...{
          customerId: known?.id ?? null,
          customer: who,
          channel: 'counter',
          reference: '',
          delivers,
          priority: null,
          note,
        },
        lines: lines.map((l) => ({
          ...{ itemId: l.itemId, packId: l.packId, quantity: l.quantity, locationId: place, way: l.way },
          ...{ wantedDate: l.wantedDate, shipBy: '', holdUntil: '' },
        })),
      },
      { refresh: false },
    );
    if (!outcome.ok) return;
    sessionStorage.removeItem(KEPT);
    router.push(`/promises/${outcome.value.orderId}`);
  };
  const wrong = failure?.kind === 'invalid_field' ? failure.field : '';
  const missing = [who.name.trim() === '' && 'a name', lines.length === 0 && 'a line'].filter(Boolean);
  const field = (name: keyof Who, label: string, width: string) => (
    <label className="grid gap-0.5">
      <span className="second">{label}</span>
      <input
        className={`entry ${width}`}
        value={who[name]}
        autoComplete="off"
        aria-invalid={wrong === name || (name === 'name' && wrong === 'customer')}
        onChange={(e) => say({ [name]: e.target.value })}
      />
      {(wrong === name || (name === 'name' && wrong === 'customer')) && <span className="fault">{sentence}</span>}
    </label>
  );
  return (
    <WholeList>
      <form onSubmit={submit}>
        <ListBar title="A customer’s order" about={known ? 'has ordered before' : undefined}>
          <span className="ml-auto flex items-center gap-3">
            <TakeWebOrders there={props.webShop} />
            {missing.length > 0 && <span className="second">still missing: {missing.join(', ')}</span>}
            <button type="submit" className="btn btn-primary" disabled={busy || missing.length > 0}>
              Take it
            </button>
          </span>
        </ListBar>
        <div className="grid gap-4 px-4 py-4">
          <fieldset className="flex flex-wrap items-start gap-3">
            <legend className="sr-only">Customer</legend>
            <div className="relative">
              {field('name', 'Customer', 'w-56')}
              {customers.length > 0 && (
                <ul
                  className="absolute z-10 w-80 rounded-sm border border-rule-strong bg-sheet"
                  aria-label="Customers who fit"
                >
                  {customers.map((c) => (
                    <li key={c.id}>
                      <button
                        type="button"
                        className="w-full px-2 py-1 text-left hover:bg-highlight"
                        onClick={() => choose(c)}
                      >
                        {c.name} <span className="second">{c.mail || c.phone}</span>
                      </button>
                    </li>
                  ))}
                </ul>
              )}
            </div>
            {field('mail', 'Mail', 'w-56')}
            {field('phone', 'Phone', 'w-36')}
            {field('address', 'Address', 'w-64')}
          </fieldset>
          <div className="flex flex-wrap items-start gap-3">
            <label className="grid gap-0.5">
              <span className="second">From the stock of</span>
              <select className="entry" value={place} onChange={(e) => setPlace(Number(e.target.value))}>
                {props.places.map((p) => (
                  <option key={p.id} value={p.id}>
                    {p.name}
                  </option>
                ))}
              </select>
            </label>
            <label className="grid gap-0.5">
              <span className="second">Goes out</span>
              <select
                className="entry"
                value={delivers}
                onChange={(e) => setDelivers(e.target.value as 'in_part' | 'complete')}
              >
                <option value="in_part">in part</option>
                <option value="complete">only complete</option>
              </select>
            </label>
            <label className="grid gap-0.5">
              <span className="second">Wanted (fri, +7, 3 dec)</span>
              <input
                className="entry w-36"
                value={wanted}
                placeholder="today"
                onChange={(e) => {
                  const before = wanted;
                  setWanted(e.target.value);
                  // Lines that still follow it move along.
                  setLines((all) =>
                    all.map((l) => (l.wantedDate === before ? { ...l, wantedDate: e.target.value } : l)),
                  );
                }}
              />
            </label>
            <label className="grid gap-0.5">
              <span className="second">Note</span>
              <input className="entry w-64" value={note} maxLength={200} onChange={(e) => setNote(e.target.value)} />
            </label>
          </div>
          <LineEntry label="Add a line" locationId={place} onTake={take} />
        </div>
        {sentence && failure?.kind !== 'invalid_field' && (
          <p className="fault px-4" role="alert">
            {sentence}
          </p>
        )}
        {lines.length > 0 && (
          <table className="sheet" aria-label="Lines">
            <thead>
              <tr>
                <th>Item</th>
                <th className="figure">Quantity</th>
                <th className="max-sm:hidden">Wanted</th>
                <th className="max-sm:hidden">Goes</th>
                <th className="figure">Free</th>
                <th className="max-md:hidden">May be promised</th>
                <th aria-label="Actions" />
              </tr>
            </thead>
            <tbody>
              {lines.map((l, i) => (
                <tr key={l.key} className="two">
                  <td>
                    <span className="name">{l.name}</span>
                    <span className="second block">
                      <span className="code">{l.number}</span>
                    </span>
                  </td>
                  <td className="figure">
                    <input
                      className="entry figure w-20"
                      inputMode="decimal"
                      aria-label={`Quantity: ${l.name}`}
                      aria-invalid={wrong === `lines.${i}`}
                      value={l.quantity}
                      onChange={(e) => put(l.key, { quantity: e.target.value })}
                    />{' '}
                    <span className="second">{l.packName}</span>
                    {wrong === `lines.${i}` && <span className="fault block">{sentence}</span>}
                  </td>
                  <td className="max-sm:hidden">
                    <input
                      className="entry w-28"
                      aria-label={`Wanted: ${l.name}`}
                      aria-invalid={wrong === `lines.${i}.wantedDate`}
                      placeholder="today"
                      value={l.wantedDate}
                      onChange={(e) => put(l.key, { wantedDate: e.target.value })}
                    />
                    {wrong === `lines.${i}.wantedDate` && <span className="fault block">{sentence}</span>}
                  </td>
                  <td className="max-sm:hidden">
                    <select
                      className="entry"
                      aria-label={`Goes: ${l.name}`}
                      value={l.way}
                      onChange={(e) => put(l.key, { way: e.target.value as Line['way'] })}
                    >
                      <option value="collect">collected</option>
                      <option value="from_stock">sent</option>
                      <option value="straight">straight from the supplier</option>
                    </select>
                  </td>
                  <td className="figure">
                    {format.quantity(l.free)} <span className="second">{plural(l.unit, l.free)}</span>
                  </td>
                  <td className="max-md:hidden">
                    {l.mayPromise === null
                      ? 'any quantity'
                      : `${format.quantity(l.mayPromise)} ${plural(l.unit, l.mayPromise)}`}
                    {beyond(l) && <span className="block text-attention">more is asked for than may be promised</span>}
                  </td>
                  <td>
                    <button
                      type="button"
                      className="link"
                      onClick={() => setLines((all) => all.filter((x) => x.key !== l.key))}
                    >
                      take out
                    </button>
                  </td>
                </tr>
              ))}
            </tbody>
            <tfoot>
              <tr>
                <td colSpan={7} className="second">
                  {countOf(lines.length, 'line')}
                </td>
              </tr>
            </tfoot>
          </table>
        )}
      </form>
    </WholeList>
  );
}

/** More is asked for, in base units, than may be promised; packs are not reckoned here. */
const beyond = (l: Line): boolean =>
  l.mayPromise !== null && l.packId === null && Number(l.quantity.replace(',', '.')) * 1_000_000 > l.mayPromise;

const KEPT = 'vorrat-customer-order';

/** Keeps what is typed in this window until it is taken: leaving the page by mistake loses nothing. */
function useKept<T>(now: T, restore: (kept: T) => void): void {
  const begun = useRef(false);
  // biome-ignore lint/correctness/useExhaustiveDependencies: what was kept is taken once.
  useEffect(() => {
    begun.current = true;
    const kept = sessionStorage.getItem(KEPT);
    if (kept) restore(JSON.parse(kept) as T);
  }, []);
  const text = JSON.stringify(now);
  const first = useRef(text);
  useEffect(() => {
    if (begun.current && text !== first.current) sessionStorage.setItem(KEPT, text);
  }, [text]);
}

/** Customers who fit the name that is being typed. */
function useCustomers(name: string, known: CustomerRow | null): readonly CustomerRow[] {
  const [found, setFound] = useState<readonly CustomerRow[]>([]);
  useEffect(() => {
    if (known || name.trim().length < 2) return setFound([]);
    let stale = false;
    const timer = setTimeout(async () => {
      const response = await fetch(`/api/reads/customers?q=${encodeURIComponent(name)}`).catch(() => null);
      const rows = response?.ok ? ((await response.json()) as { value: CustomerRow[] }).value : [];
      if (!stale) setFound(rows);
    }, PAUSE_MS);
    return () => {
      stale = true;
      clearTimeout(timer);
    };
  }, [name, known]);
  return found;
}
