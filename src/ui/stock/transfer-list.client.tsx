'use client';

import Link from 'next/link';
import { useRouter } from 'next/navigation';
import { type FormEvent, useState } from 'react';
import type { NamedItem } from '@/services/catalogue/readItemsNamed';
import type { TransferSummary, TransfersView } from '@/services/stock/readTransfers';
import { useCommand } from '../command/use-command.client';
import { countOf } from '../format';
import { useFormat } from '../format-context.client';
import { ListBar, WholeList } from '../frame/list';
import { Modal } from '../frame/modal.client';
import { Notice } from '../frame/states';
import { type FieldItem, ItemField } from '../items/item-field.client';
import { useMay } from '../may-context.client';
import { transferWords } from './words';

/** What goes between our places: what somebody still has to do something about, and what ended. */
export function TransferList({ view, first }: { view: TransfersView; first: NamedItem | null }) {
  const mayAsk = useMay('stock.transfer');
  const [asking, setAsking] = useState(first !== null);
  return (
    <WholeList>
      <ListBar title={`${countOf(view.open.length, 'transfer')} open`} about="between our places">
        <span className="ml-auto" />
        {mayAsk && view.places.length > 1 && view.own.length > 0 && (
          <button type="button" className="btn btn-primary" onClick={() => setAsking(true)}>
            Ask for goods
          </button>
        )}
      </ListBar>
      {view.open.length === 0 ? (
        <Notice title="Nothing is asked for or on the road">
          A shop asks for goods here; needs that another place supplies come here when they are accepted.
        </Notice>
      ) : (
        <Table rows={view.open} today={view.today} />
      )}
      {view.ended.length > 0 && (
        <>
          <h2 className="px-4 pt-6 pb-2 text-[15px] font-semibold">Ended</h2>
          <Table rows={view.ended} today={view.today} />
        </>
      )}
      {asking && <Ask view={view} first={first} onLeave={() => setAsking(false)} />}
    </WholeList>
  );
}

function Table({ rows, today }: { rows: readonly TransferSummary[]; today: string }) {
  const format = useFormat();
  return (
    <table className="sheet">
      <thead>
        <tr>
          <th>Transfer</th>
          <th>From</th>
          <th>To</th>
          <th>State</th>
          <th className="max-md:hidden">What</th>
          <th className="max-sm:hidden">Wanted</th>
        </tr>
      </thead>
      <tbody>
        {rows.map((t) => {
          const due = t.wantedDate ? format.due(t.wantedDate, today) : null;
          const open = t.state === 'requested' || t.state === 'approved' || t.state === 'shipped';
          return (
            <tr key={t.id} className="two">
              <td>
                <Link className="name" href={`/stock/transfers/${t.id}`} prefetch={false}>
                  {t.number}
                </Link>
                {t.requestedBy && <span className="second block">asked for by {t.requestedBy}</span>}
              </td>
              <td>{t.from}</td>
              <td>{t.to}</td>
              <td>
                {transferWords[t.state]}
                {t.refusedBecause && <span className="second block">{t.refusedBecause}</span>}
              </td>
              <td className="max-md:hidden">
                {t.what.join(', ')}
                {t.lines > t.what.length && <span className="second"> and {t.lines - t.what.length} more</span>}
              </td>
              <td className={`max-sm:hidden ${due && due.late > 0 && open ? 'text-stop' : ''}`}>{due?.text ?? '–'}</td>
            </tr>
          );
        })}
      </tbody>
    </table>
  );
}

type Line = { readonly key: number; readonly item: FieldItem | NamedItem; readonly quantity: string };

/** A place asks another for goods: line after line. */
function Ask({ view, first, onLeave }: { view: TransfersView; first: NamedItem | null; onLeave: () => void }) {
  const router = useRouter();
  const { busy, sentence, failure, run } = useCommand();
  const [to, setTo] = useState(view.own[0]?.id ?? 0);
  const [from, setFrom] = useState(view.places.findLast((p) => p.id !== view.own[0]?.id)?.id ?? 0);
  const [wantedDate, setWanted] = useState('');
  const [note, setNote] = useState('');
  const [lines, setLines] = useState<readonly Line[]>(first ? [{ key: 1, item: first, quantity: '' }] : []);
  const [taken, setTaken] = useState<FieldItem | null>(null);
  const [next, setNext] = useState(2);
  const wrong =
    failure?.kind === 'invalid_field' ? failure.field : failure?.kind === 'not_free' ? `item.${failure.itemId}` : '';
  const add = (item: FieldItem | null) => {
    setTaken(null);
    if (!item || lines.some((l) => l.item.id === item.id)) return;
    setLines((all) => [...all, { key: next, item, quantity: '' }]);
    setNext(next + 1);
  };
  const submit = async (event: FormEvent) => {
    event.preventDefault();
    const outcome = await run<{ transferId: number }>('request-transfer', {
      ...{ fromLocationId: from, toLocationId: to, wantedDate, note },
      lines: lines.map((l) => ({ itemId: l.item.id, quantity: l.quantity })),
    });
    if (outcome.ok) router.push(`/stock/transfers/${outcome.value.transferId}`);
  };
  const place = (label: string, value: number, set: (id: number) => void, places: TransfersView['places']) => (
    <label className="grid gap-1">
      <span className="second">{label}</span>
      <select className="entry" value={value} onChange={(e) => set(Number(e.target.value))}>
        {places.map((p) => (
          <option key={p.id} value={p.id}>
            {p.name}
          </option>
        ))}
      </select>
    </label>
  );
  return (
    <Modal title="Ask for goods" width="w-[620px]" onLeave={onLeave}>
      <form className="grid gap-4 p-5" onSubmit={submit}>
        <h2 className="text-[16px] font-semibold">Ask for goods</h2>
        <div className="grid grid-cols-3 gap-3 max-sm:grid-cols-1">
          {place('For', to, setTo, view.own)}
          {place('From', from, setFrom, view.places)}
          <label className="grid gap-1">
            <span className="second">Wanted on</span>
            <input
              className="entry"
              placeholder="fri, +3, wk 50"
              value={wantedDate}
              aria-invalid={wrong === 'wantedDate'}
              onChange={(e) => setWanted(e.target.value)}
            />
          </label>
        </div>
        <ul className="grid gap-1">
          {lines.map((l, i) => (
            <li key={l.key} className="flex items-center gap-2">
              <span className="min-w-0 flex-1">
                {l.item.name} <span className="code">{l.item.number}</span>
              </span>
              <input
                className="entry figure w-24"
                inputMode="decimal"
                aria-label={`Quantity of ${l.item.name}`}
                aria-invalid={wrong === `lines.${i}`}
                value={l.quantity}
                onChange={(e) =>
                  setLines((all) => all.map((x) => (x.key === l.key ? { ...x, quantity: e.target.value } : x)))
                }
              />
              <button
                type="button"
                className="second hover:underline"
                aria-label={`Take ${l.item.name} off`}
                onClick={() => setLines((all) => all.filter((x) => x.key !== l.key))}
              >
                take off
              </button>
            </li>
          ))}
        </ul>
        <ItemField
          key={next}
          label="Another item"
          placeholder="another item: name, number or a scan"
          taken={taken}
          onTake={add}
        />
        <label className="grid gap-1">
          <span className="second">Note</span>
          <input className="entry" maxLength={200} value={note} onChange={(e) => setNote(e.target.value)} />
        </label>
        {from === to && <p className="fault">Goods go from one place to another.</p>}
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
            disabled={busy || lines.length === 0 || from === to}
            title={lines.length === 0 ? 'Add an item first' : undefined}
          >
            Ask
          </button>
        </div>
      </form>
    </Modal>
  );
}
