'use client';

import { useState } from 'react';
import type { AddedOther } from '@/services/purchase/addOtherLine';
import type { Filled } from '@/services/purchase/fillFromNeeds';
import type { Pasted } from '@/services/purchase/pasteLines';
import type { OrderView } from '@/services/purchase/readOrder';
import type { OrderEntryMatch } from '@/services/purchase/readOrderEntry';
import { useCommand } from '../command/use-command.client';
import { LineField } from '../entry/line-entry.client';
import { countOf, plural } from '../format';
import { useFormat } from '../format-context.client';
import { Labelled } from '../frame/labelled';
import { NewItemDialog } from '../items/new-item.client';
import { originWords } from '../items/words';
import { AskedWindow } from './asked-window.client';
import { EarlierWindow } from './earlier-window.client';

/** `name`: what was bought as text before and may become an item. */
type Said = { readonly words: string; readonly fault?: boolean; readonly name?: string };
const leftWords: Readonly<Record<Pasted['left'][number]['why'], string>> = {
  unknown: 'is no item of ours',
  several: 'fits several items',
  not_a_quantity: 'says no quantity',
  stopped: 'is not bought any more',
};

/** What new lines are entered with: the one field, rows from a spreadsheet, needs, earlier purchases, or something that is no stock
 *  item. */
export function OrderEntry({ order }: { order: OrderView }) {
  const format = useFormat();
  const { busy, sentence, run } = useCommand();
  const { id: orderId, currency } = order.head;
  const [locationId, setLocationId] = useState(order.head.locationId ?? order.places[0]?.id ?? 0);
  const [open, setOpen] = useState<'fill' | 'other' | 'paste' | 'earlier' | 'asked' | null>(null);
  const [rows, setRows] = useState('');
  const [said, setSaid] = useState<readonly Said[]>([]);
  const [making, setMaking] = useState('');
  const take = async (m: OrderEntryMatch) => {
    const { itemId, packId, quantity, sold, packName, name } = m;
    const outcome = await run('add-order-line', { orderId, itemId, locationId, packs: quantity, packId, price: '' });
    if (!outcome.ok) return;
    const words = `${quantity} ${packName} ${name}`;
    setSaid([
      { words: sold ? `Added: ${words}.` : `Added: ${words}. ${order.head.supplierName} sells it from now on.` },
    ]);
  };
  const paste = async (pasted: readonly string[]) => {
    const outcome = await run<Pasted>('paste-lines', { orderId, locationId, rows: pasted.slice(0, 500) });
    if (!outcome.ok) return setRows(pasted.join('\n'));
    const { added, left } = outcome.value;
    setRows(left.map((l) => l.row).join('\n'));
    setOpen(left.length > 0 ? 'paste' : null);
    setSaid([
      { words: `${countOf(added, 'line')} added.` },
      ...left.map((l) => ({ words: `“${l.row.replaceAll('\t', ' ')}” ${leftWords[l.why]}.`, fault: true })),
    ]);
  };
  const fill = async (asked: FillAsked) => {
    const outcome = await run<Filled>(
      'fill-from-needs',
      { orderId, ...asked },
      { words: (f) => `${countOf(f.taken, 'need')} of ${order.head.supplierName} decided and put on the order` },
    );
    if (!outcome.ok) return;
    const { taken, warned: stayed } = outcome.value;
    setSaid([
      {
        words: `${taken === 0 ? 'No need' : countOf(taken, 'need')} of this supplier put on the order${
          stayed > 0 ? `; ${countOf(stayed, 'need')} with a warning stayed` : ''
        }.`,
      },
    ]);
  };
  return (
    <section className="grid gap-2 border-t border-rule px-4 py-3" aria-label="More lines">
      <div className="flex flex-wrap items-start gap-2">
        <div className="min-w-64 flex-1">
          <LineField<OrderEntryMatch>
            label="Add a line"
            address={`/api/reads/order-entry?order=${orderId}&place=${locationId}`}
            autoFocus={order.lines.length === 0}
            onTake={take}
            onPaste={paste}
            beside={(m) => [
              `${m.packId !== null ? `${format.quantity(m.base)} ${plural(m.unit, m.base)} · ` : ''}${format.quantity(m.free)} free${m.coming > 0 ? `, ${format.quantity(m.coming)} coming` : ''}${m.sold ? '' : ' · not theirs yet'}`,
              m.price !== null
                ? m.packId === null
                  ? `${m.each} ${currency} each`
                  : `${m.price} ${currency}`
                : m.origin !== null && m.origin !== 'list'
                  ? `${m.each} each, ${originWords[m.origin]}`
                  : 'no price',
            ]}
          />
        </div>
        <select
          className="entry"
          value={locationId}
          aria-label="For"
          onChange={(e) => setLocationId(Number(e.target.value))}
        >
          {order.places.map((p) => (
            <option key={p.id} value={p.id}>
              {p.name}
            </option>
          ))}
        </select>
      </div>
      <div className="flex flex-wrap gap-2">
        <button type="button" className="chip" onClick={() => setOpen(open === 'fill' ? null : 'fill')}>
          Fill from Needs
        </button>
        <button type="button" className="chip" onClick={() => setOpen(open === 'earlier' ? null : 'earlier')}>
          Bought before
        </button>
        <button type="button" className="chip" onClick={() => setOpen(open === 'asked' ? null : 'asked')}>
          Asked for by name
        </button>
        <button type="button" className="chip" onClick={() => setOpen(open === 'paste' ? null : 'paste')}>
          Paste rows
        </button>
        <button type="button" className="chip" onClick={() => setOpen(open === 'other' ? null : 'other')}>
          Something else
        </button>
      </div>
      {open === 'fill' && <FillForm order={order} busy={busy} onFill={fill} />}
      {open === 'other' && <OtherLine orderId={orderId} locationId={locationId} onSaid={(s) => setSaid([s])} />}
      {open === 'paste' && (
        <form
          className="grid max-w-3xl gap-2"
          onSubmit={(e) => {
            e.preventDefault();
            paste(rows.split('\n').filter((r) => r.trim() !== ''));
          }}
        >
          <label className="grid gap-0.5">
            <span className="second">Rows with item number or name, quantity, pack, in any order</span>
            <textarea
              className="entry h-28 w-full py-1.5"
              aria-label="Rows"
              value={rows}
              onChange={(e) => setRows(e.target.value)}
            />
          </label>
          <button type="submit" className="btn btn-outline justify-self-start" disabled={busy || rows.trim() === ''}>
            Take the rows
          </button>
        </form>
      )}
      {open === 'asked' && <AskedWindow order={order} onLeave={() => setOpen(null)} />}
      {open === 'earlier' && <EarlierWindow order={order} locationId={locationId} onLeave={() => setOpen(null)} />}
      {said.length > 0 && (
        <div role="status">
          {said.map((s) => (
            <p key={s.words} className={s.fault ? 'fault' : 'second'}>
              {s.words}{' '}
              {s.name && (
                <button type="button" className="link" onClick={() => setMaking(s.name ?? '')}>
                  Make it an item
                </button>
              )}
            </p>
          ))}
        </div>
      )}
      {making !== '' && (
        <NewItemDialog
          name={making}
          onClose={() => setMaking('')}
          onMade={(made) => {
            setMaking('');
            setSaid([{ words: `${made.name} is an item now, ${made.number}: type it into the field.` }]);
          }}
        />
      )}
      {sentence && (
        <p className="fault" role="alert">
          {sentence}
        </p>
      )}
    </section>
  );
}

type FillAsked = { readonly locationId: number | null; readonly words: string; readonly warned: boolean };

/** Which needs of the supplier are put on the order: of one place or all, with some words, with a warning too. */
function FillForm(props: { order: OrderView; busy: boolean; onFill: (asked: FillAsked) => void }) {
  const { order, busy, onFill } = props;
  const [asked, setAsked] = useState<FillAsked>({ locationId: null, words: '', warned: false });
  return (
    <form
      className="flex flex-wrap items-end gap-3"
      onSubmit={(e) => {
        e.preventDefault();
        onFill(asked);
      }}
    >
      <Labelled label="Needs of">
        <select
          className="entry"
          value={asked.locationId ?? ''}
          onChange={(e) => setAsked({ ...asked, locationId: e.target.value === '' ? null : Number(e.target.value) })}
        >
          <option value="">all places</option>
          {order.places.map((p) => (
            <option key={p.id} value={p.id}>
              {p.name}
            </option>
          ))}
        </select>
      </Labelled>
      <Labelled label="With these words">
        <input
          className="entry w-44"
          maxLength={100}
          placeholder="any item"
          value={asked.words}
          onChange={(e) => setAsked({ ...asked, words: e.target.value })}
        />
      </Labelled>
      <label className="flex min-h-7 items-center gap-1.5">
        <input
          type="checkbox"
          checked={asked.warned}
          onChange={(e) => setAsked({ ...asked, warned: e.target.checked })}
        />
        with a warning too
      </label>
      <button type="submit" className="btn btn-outline" disabled={busy}>
        Put them on the order
      </button>
    </form>
  );
}

const kindWords = { non_stock: 'bought once', charge: 'charge', service: 'service' } as const;

/** Something that is no stock item, by its description. */
function OtherLine(props: { orderId: number; locationId: number; onSaid: (said: Said) => void }) {
  const { busy, sentence, failure, run } = useCommand();
  const empty = { description: '', quantity: '1', unit: '', price: '' };
  const [kind, setKind] = useState<keyof typeof kindWords>('non_stock');
  const [typed, setTyped] = useState(empty);
  const wrong = failure?.kind === 'invalid_field' ? failure.field : '';
  const field = (name: keyof typeof typed, label: string, width: string, placeholder = '') => (
    <label className={`grid gap-0.5 ${name === 'description' ? 'grow' : ''}`}>
      <span className="second">{label}</span>
      <input
        className={`entry ${width}`}
        aria-label={label}
        aria-invalid={wrong === name}
        placeholder={placeholder}
        maxLength={name === 'description' ? 200 : 40}
        value={typed[name]}
        onChange={(e) => setTyped({ ...typed, [name]: e.target.value })}
      />
    </label>
  );
  return (
    <form
      className="grid gap-1.5"
      onSubmit={async (e) => {
        e.preventDefault();
        const { orderId, locationId } = props;
        const outcome = await run<AddedOther>('add-other-line', { orderId, kind, locationId, ...typed });
        if (!outcome.ok) return;
        const { before } = outcome.value;
        const words = `Added: ${typed.description}.`;
        props.onSaid(
          before > 0
            ? {
                words: `${words} It was bought ${before === 1 ? 'once' : `${before} times`} before.`,
                name: typed.description,
              }
            : { words },
        );
        setTyped(empty);
      }}
    >
      <div className="flex flex-wrap items-end gap-2">
        <label className="grid gap-0.5">
          <span className="second">What it is</span>
          <select
            className="entry"
            aria-label="What it is"
            value={kind}
            onChange={(e) => setKind(e.target.value as keyof typeof kindWords)}
          >
            {Object.entries(kindWords).map(([k, words]) => (
              <option key={k} value={k}>
                {words}
              </option>
            ))}
          </select>
        </label>
        {field('description', 'Description', 'w-full')}
        {field('quantity', 'Quantity', 'figure w-20')}
        {field('unit', 'Unit', 'w-24', kind === 'non_stock' ? 'piece' : 'time')}
        {field('price', 'Price each', 'figure w-24')}
        <button type="submit" className="btn btn-outline" disabled={busy || typed.description.trim() === ''}>
          Add
        </button>
      </div>
      {sentence && (
        <p className="fault" role="alert">
          {sentence}
        </p>
      )}
    </form>
  );
}
