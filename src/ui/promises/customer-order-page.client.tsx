'use client';

import Link from 'next/link';
import { useEffect, useState } from 'react';
import { entryText } from '@/core/quantity';
import type { CustomerOrderView } from '@/services/promise/readCustomerOrder';
import type { CrossedLevel } from '@/services/stock/crossings';
import { useCommand } from '../command/use-command.client';
import { LineEntry } from '../entry/line-entry.client';
import { countOf, plural } from '../format';
import { useFormat } from '../format-context.client';
import { ListBar, WholeList } from '../frame/list';
import { Said } from '../frame/said';
import { crossedWords } from '../stock/words';
import { BuyShort } from './buy-short.client';
import { HoldForm } from './hold-form.client';
import { TellWindow } from './tell-window.client';
import { coverWords, isBehind, lineWords, promiseWords, slackWords, wayWords } from './words';

const states = { open: 'open', done: 'all handed over', cancelled: 'cancelled' } as const;
const channels = {
  counter: 'taken at the counter',
  file: 'from a spreadsheet',
  web_shop: 'from the web shop',
} as const;
type View = CustomerOrderView;
type Line = View['lines'][number];

/** What lies ready, as it would go. */
const readyOf = (order: View): ReadonlyMap<number, string> =>
  new Map(order.lines.map((l) => [l.lineNo, l.goesNow > 0 ? entryText(l.goesNow) : '']));

/** One customer's order: what lies ready, what is short and what covers it; put by, handed over, told. */
export function CustomerOrderPage({ order }: { order: View }) {
  const format = useFormat();
  const { busy, failure, sentence, run } = useCommand();
  const [going, setGoing] = useState(() => readyOf(order));
  // biome-ignore lint/correctness/useExhaustiveDependencies: once the order is another than it was.
  useEffect(() => setGoing(readyOf(order)), [order.version]);
  const [mix, setMix] = useState(false);
  const [holding, setHolding] = useState<number | null>(null);
  const [telling, setTelling] = useState(false);
  const [said, setSaid] = useState<readonly string[]>([]);
  const at = { orderId: order.id, version: order.version };
  const places = [...new Map(order.lines.filter((l) => l.open > 0).map((l) => [l.locationId, l.location]))];
  const handOver = async (locationId: number) => {
    const lines = order.lines
      .filter((l) => l.locationId === locationId && (going.get(l.lineNo) ?? '').trim() !== '')
      .map((l) => ({ lineNo: l.lineNo, quantity: going.get(l.lineNo) ?? '' }));
    const outcome = await run<{ sale: string; crossed: readonly CrossedLevel[] }>('hand-over', {
      ...{ ...at, locationId, lines, mixLots: mix },
    });
    if (outcome.ok)
      setSaid([
        `Handed over on sale ${outcome.value.sale}.`,
        ...outcome.value.crossed.map((c) => crossedWords(c, format)),
      ]);
  };
  const wrong = failure?.kind === 'invalid_field' ? failure.field : '';
  const goes = order.lines.some((l) => (going.get(l.lineNo) ?? '').trim() !== '');
  const cell = (q: number) => (q === 0 ? '–' : format.quantity(q));
  return (
    <WholeList>
      <ListBar title={`${order.number}, ${order.customer}`} about={states[order.state]}>
        <span className="ml-auto flex flex-wrap items-center gap-3">
          {order.may.cancel && (
            <button
              type="button"
              className="btn btn-outline"
              disabled={busy}
              onClick={() =>
                run('cancel-customer-lines', { ...at, lines: 'all' }, { words: `Order ${order.number} cancelled` })
              }
            >
              Cancel what is open
            </button>
          )}
          {order.may.tell && (
            <button type="button" className="btn btn-outline" disabled={busy} onClick={() => setTelling(true)}>
              Tell the customer
            </button>
          )}
          {order.may.hand_over &&
            places.map(([id, name]) => (
              <button
                key={id}
                type="button"
                className="btn btn-primary"
                disabled={busy || !goes}
                title={goes ? undefined : 'Nothing lies ready; type what goes all the same.'}
                onClick={() => handOver(id)}
              >
                Hand over{places.length > 1 ? ` at ${name}` : ''}
              </button>
            ))}
        </span>
      </ListBar>
      <Head key={order.version} order={order} />
      <Said lines={said} fault={sentence} />
      {failure?.kind === 'lots_would_mix' && (
        <label className="flex items-center gap-2 px-4 pt-1">
          <input type="checkbox" className="accent-action" checked={mix} onChange={(e) => setMix(e.target.checked)} />
          hand it over from several dye lots all the same
        </label>
      )}
      <table className="sheet mt-3">
        <thead>
          <tr>
            <th>Item</th>
            <th className="max-sm:hidden">Wanted</th>
            <th className="figure">Ordered</th>
            <th className="figure max-md:hidden">Handed over</th>
            <th className="figure">Ready</th>
            <th className="figure">Short</th>
            <th className="max-sm:hidden">Covered by</th>
            <th>Promised</th>
            {order.may.hand_over && <th className="figure">Goes now</th>}
          </tr>
        </thead>
        <tbody>
          {order.lines.map((l) => (
            <tr key={l.lineNo} className="two align-top">
              <td>
                <Link className="name" href={`/items/${l.itemId}`} prefetch={false}>
                  {l.name}
                </Link>
                <span className="second block">
                  <span className="code">{l.number}</span> · {l.location}, <Way order={order} line={l} />
                </span>
              </td>
              <td className="max-sm:hidden">
                {format.date(l.wanted)}
                {l.shipBy !== l.wanted && <span className="second block">to go out {format.date(l.shipBy)}</span>}
              </td>
              <td className="figure">
                {format.quantity(l.ordered)} <span className="second">{plural(l.unit, l.ordered)}</span>
                {l.cancelled > 0 && <span className="second block">{format.quantity(l.cancelled)} cancelled</span>}
              </td>
              <td className="figure max-md:hidden">{cell(l.handedOver)}</td>
              <td className="figure">
                {cell(Math.min(l.ready, l.open))}
                {order.may.allocate && l.open > 0 && l.way !== 'straight' && (
                  <button
                    type="button"
                    className="link second block w-full text-right"
                    aria-expanded={holding === l.lineNo}
                    onClick={() => setHolding(holding === l.lineNo ? null : l.lineNo)}
                  >
                    put by
                  </button>
                )}
                <Hold line={l} timeZone={order.timeZone} />
              </td>
              <td className={`figure ${l.short > 0 ? 'font-semibold' : ''}`}>{cell(l.short)}</td>
              <td className="max-sm:hidden">
                <Covers line={l} />
              </td>
              <td>
                <span className={isBehind(l) ? 'font-semibold text-stop' : ''}>
                  {l.open === 0 ? lineWords[l.state] : promiseWords(l, format)}
                </span>
                <span className={`second block ${isBehind(l) ? 'text-stop' : ''}`}>{slackWords(l, format)}</span>
                {l.promise && l.short > 0 && l.promise.cautious !== l.promise.date && (
                  <span className="second block">with care {format.date(l.promise.cautious)}</span>
                )}
                {l.told && (
                  <span className={`second block ${l.moved ? 'text-attention' : ''}`}>
                    told {l.told.date ? format.date(l.told.date) : 'no date'}
                  </span>
                )}
              </td>
              {order.may.hand_over && (
                <td className="figure">
                  {l.open === 0 || l.way === 'straight' ? (
                    '–'
                  ) : (
                    <input
                      className="entry figure w-20 max-sm:w-14"
                      inputMode="decimal"
                      aria-label={`Goes now: ${l.name}`}
                      aria-invalid={wrong.startsWith('lines.')}
                      value={going.get(l.lineNo) ?? ''}
                      onChange={(e) => setGoing((all) => new Map(all).set(l.lineNo, e.target.value))}
                    />
                  )}
                </td>
              )}
            </tr>
          ))}
        </tbody>
      </table>
      {holding !== null && (
        <HoldForm
          key={holding}
          order={at}
          line={order.lines.find((l) => l.lineNo === holding) as Line}
          onDone={() => setHolding(null)}
        />
      )}
      {order.may.change && (
        <div className="px-4 py-3">
          <LineEntry
            label="Add a line"
            locationId={places[0]?.[0] ?? order.places[0]?.id ?? 0}
            onTake={(m) =>
              run('add-customer-lines', {
                ...at,
                lines: [
                  {
                    ...{ itemId: m.itemId, packId: m.packId, quantity: m.quantity, way: 'collect' },
                    locationId: places[0]?.[0] ?? order.places[0]?.id ?? 0,
                    ...{ wantedDate: '', shipBy: '', holdUntil: '' },
                  },
                ],
              })
            }
          />
        </div>
      )}
      <History order={order} />
      {telling && <TellWindow order={order} onLeave={() => setTelling(false)} />}
    </WholeList>
  );
}

/** How a line gets to the customer; what is open can go another way. */
function Way({ order, line }: { order: View; line: Line }) {
  const { busy, sentence, run } = useCommand();
  if (!order.may.change || line.open === 0) return wayWords[line.way];
  return (
    <>
      <select
        className="entry h-6 py-0 text-[12px]"
        aria-label={`Way of ${line.name}`}
        value={line.way}
        disabled={busy}
        onChange={(e) =>
          run('set-line-way', { orderId: order.id, version: order.version, lineNo: line.lineNo, way: e.target.value })
        }
      >
        {Object.entries(wayWords).map(([way, words]) => (
          <option key={way} value={way}>
            {words}
          </option>
        ))}
      </select>
      {line.way === 'straight' && order.address === '' && (
        <span className="block text-attention">no address of {order.customer} is on file</span>
      )}
      {sentence && (
        <span className="fault block" role="alert">
          {sentence}
        </span>
      )}
    </>
  );
}

function Head({ order }: { order: View }) {
  const format = useFormat();
  const { busy, sentence, run } = useCommand();
  const [note, setNote] = useState(order.note);
  const change = (said: { delivers?: 'in_part' | 'complete'; priority?: number; note?: string }) =>
    run('change-customer-order', {
      ...{ orderId: order.id, version: order.version, delivers: order.delivers, priority: order.priority },
      ...{ note: order.note, ...said },
    });
  const fixed = !order.may.change || busy;
  return (
    <div className="flex flex-wrap items-center gap-x-4 gap-y-1 px-4 pt-3">
      <span className="second">
        {[
          `ordered ${format.date(order.orderedOn)}`,
          channels[order.channel],
          order.reference,
          order.mail,
          order.phone,
          order.address,
        ]
          .filter(Boolean)
          .join(' · ')}
      </span>
      <label className="flex items-center gap-1.5">
        <span className="second">goes out</span>
        <select
          className="entry"
          value={order.delivers}
          disabled={fixed}
          onChange={(e) => change({ delivers: e.target.value as 'in_part' | 'complete' })}
        >
          <option value="in_part">in part</option>
          <option value="complete">only complete</option>
        </select>
      </label>
      <label className="flex items-center gap-1.5">
        <span className="second">turn</span>
        <select
          className="entry"
          value={order.priority}
          disabled={fixed}
          aria-label="Priority among those who want it the same day"
          onChange={(e) => change({ priority: Number(e.target.value) })}
        >
          {[1, 2, 3, 4, 5, 6, 7, 8, 9].map((n) => (
            <option key={n} value={n}>
              {n === 1 ? '1, first' : n === 5 ? '5, as usual' : n === 9 ? '9, last' : n}
            </option>
          ))}
        </select>
      </label>
      <input
        className="entry w-64"
        value={note}
        placeholder="Note"
        aria-label="Note"
        maxLength={200}
        disabled={fixed}
        onChange={(e) => setNote(e.target.value)}
        onBlur={() => note !== order.note && change({ note })}
      />
      {sentence && (
        <span className="fault" role="alert">
          {sentence}
        </span>
      )}
    </div>
  );
}

function Hold({ line: l, timeZone }: { line: Line; timeZone: string }) {
  const format = useFormat();
  if (l.open === 0 || (!l.holdUntil && !l.byHand)) return null;
  return (
    <span className="second block">{l.holdUntil ? `until ${format.moment(l.holdUntil, timeZone)}` : 'by hand'}</span>
  );
}

/** What covers what is short; who could send it, and what an order of today would do. */
function Covers({ line: l }: { line: Line }) {
  const format = useFormat();
  if (l.backordered === 0) return <>–</>;
  return (
    <>
      {l.covers.map((c) => (
        <span key={`${c.kind}${c.ref}${c.date}`} className="block">
          {format.quantity(c.quantity)} ·{' '}
          {c.href ? (
            <Link className="link" href={c.href} prefetch={false}>
              {coverWords(c)}
            </Link>
          ) : (
            coverWords(c)
          )}
          {c.kind !== 'stock' && (
            <span className="second">
              {' '}
              {format.date(c.date)}
              {c.lateDays > 0 && `, overdue by ${format.days(c.lateDays)}`}
            </span>
          )}
        </span>
      ))}
      {l.missing > 0 && (
        <span className="block">
          <span className="text-stop">{format.quantity(l.missing)} by nothing</span>
          <span className="second block">
            {l.ifOrdered ? `ordered today: ${format.date(l.ifOrdered)}` : 'no supplier is known'}
            {l.about && `, for ${l.about}`}
          </span>
        </span>
      )}
      {l.need && <BuyShort key={l.need.fingerprint} need={l.need} name={l.name} />}
      {l.couldSend.map((p) => (
        <span key={p.locationId} className="second block">
          {p.location} could send {format.quantity(p.surplus)}, here {format.date(p.arrives)}
        </span>
      ))}
    </>
  );
}

function History({ order }: { order: View }) {
  const format = useFormat();
  return (
    <details className="px-4 py-3">
      <summary className="cursor-pointer">
        {countOf(order.history.length, 'step')}
        {order.handOvers.length > 0 && `, handed over on ${order.handOvers.map((h) => h.sale).join(', ')}`}
      </summary>
      <ul className="pt-2">
        {order.history.map((h) => (
          <li key={`${h.at}${h.action}`}>
            {h.action}{' '}
            <span className="second">
              {[h.who, format.date(h.at.slice(0, 10)), h.at.slice(11, 16)].filter(Boolean).join(', ')}
            </span>
          </li>
        ))}
      </ul>
    </details>
  );
}
