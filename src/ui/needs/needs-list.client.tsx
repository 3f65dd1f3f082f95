'use client';

import Link from 'next/link';
import { type KeyboardEvent, useCallback, useEffect, useMemo, useRef, useState } from 'react';
import { flushSync } from 'react-dom';
import { checkLineQuantity } from '@/core/purchase';
import { entryText, toDecimal } from '@/core/quantity';
import type { NeedsPage, NeedView } from '@/services/planning/readNeeds';
import { sendCommand } from '../command/send';
import { useRefresh } from '../command/use-refresh.client';
import { noteDone, onUndone } from '../command/done';
import { countOf, plural } from '../format';
import { useFormat } from '../format-context.client';
import { ListBar } from '../frame/list';
import { ListAndPanel, Notice } from '../frame/states';
import { GroupHead } from './group-head';
import { KeysHelp } from './keys-help.client';
import { NeedPanel } from './need-panel.client';
import { cannotAccept, NeedRow, type RowState } from './need-row';

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

  // Undone: the row is open again, as it was.
  const accepted = useRef(new Map<string, number>());
  useEffect(
    () =>
      onUndone((key) => {
        const needId = accepted.current.get(key);
        if (needId === undefined) return;
        setStates((all) => new Map([...all].filter(([id]) => id !== needId)));
        reopened.current.add(needId);
      }),
    [],
  );
  // Its place in the list stays; what it is now comes with the next reading.
  const reopened = useRef(new Set<number>());
  useEffect(() => {
    const back = fresh.groups.flatMap((g) => g.needs).filter((n) => reopened.current.has(n.id));
    if (back.length === 0) return;
    for (const n of back) reopened.current.delete(n.id);
    const replaced = (n: NeedView) => back.find((b) => b.id === n.id) ?? n;
    setPage((p) => ({ ...p, groups: p.groups.map((g) => ({ ...g, needs: g.needs.map(replaced) })) }));
  }, [fresh]);

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
    const input = { needId: need.id, fingerprint: need.fingerprint, packs };
    const outcome = await sendCommand<{ supplier: string }>('accept-need', input, 'until_sent');
    if (!outcome.ok) return put({ kind: 'failed', failure: outcome.failure });
    accepted.current.set(outcome.key, need.id);
    const words = `${toDecimal(checked.value)} ${plural(need.packName, checked.value)} of ${need.itemName} for ${need.location} went into the ${outcome.value.supplier} tray`;
    noteDone({ key: outcome.key, words });
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
      panel={
        current ? <NeedPanel need={current} currency={currency} today={page.today} /> : <p className="text-muted">–</p>
      }
    >
      <ListBar
        title={countOf(open.length, 'need')}
        about={`${new Set(open.map((n) => n.itemId)).size} of ${page.itemsOfAll} items · ${format.money(
          open.reduce((sum, n) => sum + (n.net ?? 0), 0),
          currency,
        )}${unpriced > 0 ? ` · ${unpriced} without a price` : ''}`}
      >
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
      </ListBar>
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
                  today={page.today}
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
