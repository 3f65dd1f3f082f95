'use client';

import Link from 'next/link';
import { type KeyboardEvent, useCallback, useEffect, useMemo, useRef, useState } from 'react';
import { baseQuantity, isWholePacks } from '@/core/packs';
import { checkLineQuantity } from '@/core/purchase';
import { entryText, MICRO, toDecimal } from '@/core/quantity';
import { flushSync } from 'react-dom';
import { fraction } from '@/core/units';
import type { NeedGroup, NeedsPage, NeedView } from '@/services/planning/readNeeds';
import { type ClientFailure, sendCommand } from '../command/send';
import { useRefresh } from '../command/use-refresh.client';
import { ListAndPanel, Notice } from '../frame/states';
import { type Format, plural } from '../format';
import { useFormat } from '../format-context.client';
import { Cause } from '../marks/cause';
import { FillGauge } from '../marks/fill-gauge';
import { gaugeWords, LevelStrip } from '../marks/level-strip';
import { failureSentence } from '../sentences';
import { KeysHelp } from './keys-help.client';
import { NeedPanel } from './need-panel.client';

type RowState =
  | { readonly kind: 'open' }
  | { readonly kind: 'saving' }
  | { readonly kind: 'accepted'; readonly tray: string; readonly packs: string }
  | { readonly kind: 'failed'; readonly failure: ClientFailure };

const OPEN: RowState = { kind: 'open' };

/** How many needs came, went or changed between two readings, without those decided here. */
function changesBetween(shown: NeedsPage, fresh: NeedsPage, settled: ReadonlySet<number>): number {
  const prints = (p: NeedsPage) => new Map(p.groups.flatMap((g) => g.needs.map((n) => [n.id, n.fingerprint])));
  const [a, b] = [prints(shown), prints(fresh)];
  const ids = [...new Set([...a.keys(), ...b.keys()])];
  return ids.filter((id) => !settled.has(id) && a.get(id) !== b.get(id)).length;
}

/** All needs, by supplier. Row mode: arrows move, a digit starts the quantity, Enter accepts and moves on. What is accepted
 *  stays in place, struck, until the list is refreshed; changes by others wait behind "n changed". */
export function NeedsList({ page: fresh }: { page: NeedsPage }) {
  const format = useFormat();
  const readAgain = useRefresh();
  const [page, setPage] = useState(fresh);
  const [states, setStates] = useState<ReadonlyMap<number, RowState>>(new Map());
  const [typed, setTyped] = useState<ReadonlyMap<number, string>>(new Map());
  const rows = useMemo(() => page.groups.flatMap((g) => g.needs), [page]);
  const [currentId, setCurrentId] = useState<number | null>(rows[0]?.id ?? null);
  const table = useRef<HTMLTableElement>(null);
  const settled = useMemo(
    () => new Set([...states].filter(([, s]) => s.kind === 'accepted' || s.kind === 'saving').map(([id]) => id)),
    [states],
  );
  const changed = fresh === page ? 0 : changesBetween(page, fresh, settled);
  const current = rows.find((n) => n.id === currentId) ?? rows[0] ?? null;
  const currency = page.currency;
  const open = rows.filter((n) => !settled.has(n.id));
  const unpriced = open.filter((n) => n.net === null).length;

  const refresh = () => {
    setPage(fresh);
    setStates(new Map());
    setTyped(new Map());
    readAgain();
  };
  // A refresh asked for by the person shows what comes back at once.
  const [adopt, setAdopt] = useState(false);
  useEffect(() => {
    if (adopt) {
      setPage(fresh);
      setAdopt(false);
    }
  }, [fresh, adopt]);

  const rowOf = (id: number) => table.current?.querySelector<HTMLElement>(`tr[data-need="${id}"]`);
  // biome-ignore lint/correctness/useExhaustiveDependencies: the table is a ref.
  const focusRow = useCallback((id: number) => {
    setCurrentId(id);
    rowOf(id)?.focus();
  }, []);

  /** A digit pressed on a row is the first of its quantity: the field holds it, with the caret behind it, before the next
   *  key can come. */
  const startQuantity = (id: number, digit: string) => {
    flushSync(() => setTyped((all) => new Map(all).set(id, digit)));
    const field = rowOf(id)?.querySelector<HTMLInputElement>('input');
    field?.focus();
    field?.setSelectionRange(digit.length, digit.length);
  };

  const step = useCallback(
    (from: number, by: number, onlyOpen = false) => {
      const index = rows.findIndex((n) => n.id === from);
      for (let i = index + by; i >= 0 && i < rows.length; i += by) {
        const next = rows[i] as NeedView;
        if (!onlyOpen || !settled.has(next.id)) return focusRow(next.id);
      }
      focusRow(from);
    },
    [rows, settled, focusRow],
  );

  const accept = async (need: NeedView) => {
    const packs = typed.get(need.id) ?? entryText(need.packs);
    const put = (state: RowState) => setStates((all) => new Map(all).set(need.id, state));
    const refusal = cannotAccept(need);
    const checked = checkLineQuantity(packs);
    if (refusal) return put({ kind: 'failed', failure: { kind: 'no_supplier' } });
    if (!checked.ok)
      return put({ kind: 'failed', failure: { kind: 'invalid_field', field: 'packs', fault: checked.error } });
    put({ kind: 'saving' });
    step(need.id, 1, true);
    const outcome = await sendCommand<{ supplier: string }>('accept-need', {
      needId: need.id,
      fingerprint: need.fingerprint,
      packs,
    });
    if (!outcome.ok) return put({ kind: 'failed', failure: outcome.failure });
    put({ kind: 'accepted', tray: outcome.value.supplier, packs: toDecimal(checked.value) });
    readAgain();
  };

  const onRowKey = (event: KeyboardEvent<HTMLTableRowElement>, need: NeedView) => {
    if (event.ctrlKey || event.metaKey || event.altKey) return;
    const inField = event.target instanceof HTMLInputElement;
    if (event.target instanceof HTMLAnchorElement && event.key === 'Enter') return;
    const done = settled.has(need.id);
    if (event.key === 'Enter') {
      event.preventDefault();
      if (!done) accept(need);
    } else if (event.key === 'ArrowDown' || event.key === 'ArrowUp') {
      event.preventDefault();
      step(need.id, event.key === 'ArrowDown' ? 1 : -1);
    } else if (inField && event.key === 'Escape') {
      setTyped((all) => new Map([...all].filter(([id]) => id !== need.id)));
      setStates((all) => new Map([...all].filter(([id]) => id !== need.id)));
      focusRow(need.id);
    } else if (!inField && /^\d$/.test(event.key) && !done) {
      event.preventDefault();
      startQuantity(need.id, event.key);
    } else if (!inField && (event.key === 'Home' || event.key === 'End')) {
      event.preventDefault();
      const to = event.key === 'Home' ? rows[0] : rows.at(-1);
      if (to) focusRow(to.id);
    }
  };

  return (
    <ListAndPanel
      label="Reckoning"
      panel={current ? <NeedPanel need={current} currency={currency} /> : <p className="text-muted">–</p>}
    >
      <div className="bar sticky top-0 z-2">
        <h1 className="text-[15px] font-semibold">
          {open.length} {open.length === 1 ? 'need' : 'needs'}
        </h1>
        <p className="text-muted">
          {new Set(open.map((n) => n.itemId)).size} of {page.itemsOfAll} items ·{' '}
          {format.money(
            open.reduce((sum, n) => sum + (n.net ?? 0), 0),
            currency,
          )}
          {unpriced > 0 && ` · ${unpriced} without a price`}
        </p>
        <div className="ml-auto flex items-center gap-2">
          {changed > 0 ? (
            <button type="button" className="chip border-attention text-attention" onClick={refresh}>
              {changed} changed, show
            </button>
          ) : (
            settled.size > 0 && (
              <button
                type="button"
                className="chip"
                onClick={() => {
                  setAdopt(true);
                  refresh();
                }}
              >
                Clear {settled.size} decided
              </button>
            )
          )}
          <KeysHelp
            keys={[
              ['↑ ↓', 'move'],
              ['0 … 9', 'start a quantity'],
              ['Enter', 'accept and go on'],
              ['Esc', 'back to the suggestion'],
              ['Home, End', 'first, last'],
            ]}
          />
        </div>
      </div>
      {rows.length === 0 ? (
        <Notice title="Nothing is below its minimum">
          When stock falls, what is short stands here.{' '}
          <Link className="link" href="/trays">
            Trays
          </Link>{' '}
          hold what was decided.
        </Notice>
      ) : (
        // biome-ignore lint/a11y/noNoninteractiveElementToInteractiveRole: a table whose rows are worked in is a grid.
        <table ref={table} className="sheet" role="grid" aria-label="Needs" aria-rowcount={rows.length}>
          <thead>
            <tr>
              <th style={{ width: '33%' }}>Item</th>
              <th className="max-sm:hidden">Why</th>
              <th className="max-md:hidden">Stock</th>
              <th colSpan={2} className="pl-6">
                Order
              </th>
              <th className="figure">
                Total
                <br />
                net
              </th>
            </tr>
          </thead>
          {page.groups.map((group) => (
            <tbody key={group.supplierId ?? 'none'}>
              <GroupHead
                group={group}
                trayNet={fresh.trays.find((t) => t.supplierId === group.supplierId)?.net ?? 0}
                format={format}
                currency={currency}
              />
              {group.needs.map((need) => (
                <NeedRow
                  key={need.id}
                  need={need}
                  index={rows.indexOf(need)}
                  format={format}
                  currency={currency}
                  state={states.get(need.id) ?? OPEN}
                  typed={typed.get(need.id)}
                  current={need.id === current?.id}
                  onFocus={() => setCurrentId(need.id)}
                  onKey={(e) => onRowKey(e, need)}
                  onType={(value) => setTyped((all) => new Map(all).set(need.id, value))}
                  onAccept={() => accept(need)}
                />
              ))}
            </tbody>
          ))}
        </table>
      )}
    </ListAndPanel>
  );
}

const cannotAccept = (n: NeedView): string | null => (n.supplierId === null ? 'no supplier yet' : null);

function GroupHead(props: { group: NeedGroup; trayNet: number; format: Format; currency: string }) {
  const { format, currency, trayNet } = props;
  const { supplier, arrives, orderMinimum } = props.group;
  return (
    <tr className="group">
      <th colSpan={6} scope="rowgroup">
        <div className="flex flex-wrap items-baseline gap-x-2.5">
          <span className="font-semibold">{supplier ?? 'No supplier yet'}</span>
          <span className="second">
            {supplier === null
              ? 'stays here until the item has one'
              : `any working day · arrives ${format.date(arrives ?? '')}`}
          </span>
          {supplier !== null && (
            <span className="second ml-auto flex items-center gap-2">
              {orderMinimum > 0 && (
                <FillGauge value={trayNet} target={orderMinimum} label="Tray against the supplier’s minimum" />
              )}
              {orderMinimum > 0
                ? `tray ${format.amount(trayNet, currency)} of ${format.amount(orderMinimum, currency)} minimum`
                : trayNet > 0
                  ? `tray ${format.amount(trayNet, currency)}, no minimum`
                  : 'no minimum'}
            </span>
          )}
        </div>
      </th>
    </tr>
  );
}

function NeedRow(props: {
  need: NeedView;
  index: number;
  format: Format;
  currency: string;
  state: RowState;
  typed: string | undefined;
  current: boolean;
  onFocus: () => void;
  onKey: (e: KeyboardEvent<HTMLTableRowElement>) => void;
  onType: (value: string) => void;
  onAccept: () => void;
}) {
  const { need, format, currency, state, typed } = props;
  const text = typed ?? entryText(need.packs);
  const checked = checkLineQuantity(text);
  const content = fraction(BigInt(need.content.num), BigInt(need.content.den));
  const base = checked.ok ? baseQuantity(checked.value, content) : null;
  const settled = state.kind === 'accepted' || state.kind === 'saving';
  const fault = state.kind === 'failed' ? failureSentence(state.failure, format) : null;
  // The server prices again; here the row only follows the quantity at the price it shows.
  const net = need.net !== null && base !== null && need.base > 0 ? Math.round((need.net / need.base) * base) : null;
  const cause = cannotAccept(need);
  return (
    <tr
      className={`two ${settled ? 'struck' : ''}`}
      data-need={need.id}
      data-current={props.current}
      tabIndex={props.current ? 0 : -1}
      aria-rowindex={props.index + 1}
      aria-selected={props.current}
      aria-label={`${need.itemName}, ${need.location}, below minimum, ${gaugeWords(need.gauge, format)}, order ${text} ${plural(need.packName, checked.ok ? checked.value : 0)}`}
      onFocus={props.onFocus}
      onKeyDown={props.onKey}
    >
      <td>
        <Link href={`/items/${need.itemId}`} className="name block" tabIndex={-1}>
          {need.itemName}
        </Link>
        <span className="second">
          <span className="code">{need.itemNumber}</span> · {need.location}
        </span>
      </td>
      <td className="max-sm:hidden">
        <Cause />
      </td>
      <td className="max-md:hidden">
        <LevelStrip gauge={need.gauge} format={format} id={`n${need.id}`} />
        <span className="second">{gaugeWords(need.gauge, format)}</span>
      </td>
      {state.kind === 'accepted' ? (
        <td colSpan={2} className="pl-6">
          <Link href="/trays" className="link" tabIndex={-1}>
            in the {state.tray} tray
          </Link>
          <span className="second block">
            {state.packs} {plural(need.packName, checked.ok ? checked.value : 0)}
          </span>
        </td>
      ) : (
        <>
          <td className="w-[62px] pl-6 pr-0">
            <input
              className="entry figure w-[54px]"
              inputMode="decimal"
              aria-label={`Quantity of ${need.itemName} at ${need.location} in ${plural(need.packName, 2 * MICRO)}`}
              aria-invalid={!checked.ok || fault !== null}
              aria-describedby={fault ? `fault-${need.id}` : undefined}
              value={text}
              tabIndex={-1}
              readOnly={settled}
              onFocus={(e) => typed === undefined && e.target.select()}
              onChange={(e) => props.onType(e.target.value)}
            />
          </td>
          <td className="min-w-32">
            <span className="flex items-center justify-between gap-2">
              <span>
                {checked.ok ? plural(need.packName, checked.value) : need.packName}
                <span className="second block">
                  {base === null ? '–' : `${format.quantity(base)} ${plural(need.unit, base)}`}
                </span>
                {checked.ok && !isWholePacks(checked.value) && need.packName !== need.unit && (
                  <span className="marker">not whole {plural(need.packName, 2 * MICRO)}</span>
                )}
              </span>
              {!settled && (
                <button
                  type="button"
                  className={`chip ${props.current ? '' : 'opacity-70'}`}
                  tabIndex={-1}
                  disabled={cause !== null}
                  title={cause ?? 'Accept into the tray (Enter)'}
                  aria-label={`Accept ${need.itemName} at ${need.location}`}
                  onClick={props.onAccept}
                >
                  {cause ?? 'Accept'}
                </button>
              )}
              {state.kind === 'saving' && <span className="second">saving</span>}
            </span>
            {fault && (
              <span className="fault block max-w-52" id={`fault-${need.id}`} role="alert">
                {fault}
              </span>
            )}
          </td>
        </>
      )}
      <td className="figure">
        {need.supplierId === null ? (
          '–'
        ) : need.net === null ? (
          <span className="marker">no price</span>
        ) : (
          <>
            {net === null ? '–' : format.amount(net, currency)}
            <span className="second block">{need.each} each</span>
          </>
        )}
      </td>
    </tr>
  );
}
