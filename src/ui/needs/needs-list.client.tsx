'use client';

import Link from 'next/link';
import { useRouter } from 'next/navigation';
import { type KeyboardEvent, useCallback, useDeferredValue, useEffect, useMemo, useRef, useState } from 'react';
import { flushSync } from 'react-dom';
import { checkLineQuantity } from '@/core/purchase';
import { entryText, toDecimal } from '@/core/quantity';
import type { AcceptedNeed } from '@/services/planning/acceptNeed';
import type { NeedEntry, NeedsHead, NeedsStatus, NeedView } from '@/services/planning/readNeeds';
import type { WayView } from '@/services/planning/readWays';
import { noteDone, onUndone } from '../command/done';
import { sendCommand } from '../command/send';
import { useSettled } from '../command/use-settled.client';
import { countOf, plural } from '../format';
import { useFormat } from '../format-context.client';
import { ExportLinks } from '../frame/export-links';
import { ListBar } from '../frame/list';
import { ListAndPanel, Notice } from '../frame/states';
import { Grid, type Line, ScanSaid } from '../grid/grid.client';
import { KeysHelp } from '../grid/keys-help.client';
import { useEdits } from '../grid/use-edits.client';
import { twoLines, useGridView } from '../grid/use-grid-view.client';
import { useMay } from '../may-context.client';
import { GroupHead } from './group-head';
import { NeedPanel } from './need-panel.client';
import { cannotAccept, NeedCells, needLabel, type RowHands, type RowState } from './need-row';

type Opened = { readonly head: NeedsHead; readonly first: readonly NeedEntry[] };
const OPEN: RowState = { kind: 'open' };

const idOfWay = ({ sourceId, locationId }: WayView) => (sourceId === null ? { locationId } : { sourceId });
const LOOK_AGAIN_MS = 30_000;

type Changes = { readonly changed: readonly number[]; readonly status: NeedsStatus };

/** What has changed since this list was opened: looked at after one's own commands, now and then, and on coming back.
 *  `gone` when the server does not know the list any more. */
function useChanges(head: NeedsHead): Changes & { readonly gone: boolean } {
  const none = useMemo(() => ({ list: head.list, changed: [], status: head.status, gone: false }), [head]);
  const [state, setState] = useState<Changes & { list: string; gone: boolean }>(none);
  const look = useCallback(async () => {
    if (document.visibilityState === 'hidden') return;
    const response = await fetch(`/api/reads/need-changes?list=${encodeURIComponent(head.list)}`).catch(() => null);
    if (response?.ok) {
      const { value } = (await response.json()) as { value: Changes };
      setState({ list: head.list, ...value, gone: false });
    } else if (response?.status === 410) setState({ ...none, gone: true });
  }, [head.list, none]);
  useSettled(look);
  useEffect(() => {
    const timer = setInterval(look, LOOK_AGAIN_MS);
    document.addEventListener('visibilitychange', look);
    return () => {
      clearInterval(timer);
      document.removeEventListener('visibilitychange', look);
    };
  }, [look]);
  return state.list === head.list ? state : none;
}

/** All needs, by supplier. Row mode: arrows move, a digit starts the quantity, Enter accepts and moves on. What is accepted
 *  stays in place, struck, until the list is refreshed; changes by others wait behind "n changed". */
export function NeedsList(fresh: Opened) {
  const format = useFormat();
  const router = useRouter();
  const mayDecide = useMay('needs.decide');
  // What is shown stays as it was opened, also when the page is read again; a refresh that was asked for takes it over.
  const [{ head, first }, setOpened] = useState<Opened>(fresh);
  /** The list that was there when a refresh was asked for: the next one is taken over. */
  const [adopt, setAdopt] = useState<string | null>(null);
  const [states, setStates] = useState<ReadonlyMap<number, RowState>>(new Map());
  const edits = useEdits<number, string>();
  const known = fresh.head.list;
  const refresh = useCallback(() => {
    setAdopt(known);
    router.refresh();
  }, [router, known]);
  const view = useGridView('needs', head, first, {
    start: 1,
    idOf: (r) => (r.kind === 'need' ? r.id : null),
    reopen: refresh,
  });
  const { rowAt, again, grid, current: currentIndex } = view;
  const { currency, today } = head;
  const changes = useChanges(head);
  const { status } = changes;
  const entry = rowAt(currentIndex);
  // The reckoning follows the hand when there is time.
  const current = useDeferredValue(entry?.kind === 'need' ? entry : null);
  const settledIds = [...states].filter(([, s]) => s.kind === 'accepted' || s.kind === 'saving').map(([id]) => id);
  const settled = new Set(settledIds);

  const clear = edits.clear;
  useEffect(() => {
    if (adopt === null || fresh.head.list === adopt) return;
    setOpened({ head: fresh.head, first: fresh.first });
    setAdopt(null);
    setStates(new Map());
    clear();
  }, [fresh.head, fresh.first, adopt, clear]);
  useEffect(() => {
    if (changes.gone) refresh();
  }, [changes.gone, refresh]);

  // Undone: the row is open again once it has been read as it is now (an entry made on the old one would be refused); its
  // place in the list stays.
  const accepted = useRef(new Map<string, { readonly id: number; readonly index: number }>());
  const reopened = useRef(new Set<number>());
  useEffect(
    () =>
      onUndone((key) => {
        const row = accepted.current.get(key);
        if (!row) return;
        reopened.current.add(row.id);
        again(row.index, row.index + 1).finally(() =>
          setStates((all) => new Map([...all].filter(([id]) => id !== row.id))),
        );
      }),
    [again],
  );
  const changed = changes.changed.filter((id) => !settled.has(id) && !reopened.current.has(id)).length;

  /** W was pressed on this need: the next figure takes a way. */
  const [picking, setPicking] = useState<number | null>(null);
  const ways = useRef<{ readonly needId: number; readonly ways: readonly WayView[] } | null>(null);
  const onWays = useCallback((read: typeof ways.current) => {
    ways.current = read;
  }, []);

  const accept = async (need: NeedView, index: number, way?: WayView) => {
    setPicking(null);
    const packs = way ? entryText(way.packs) : (edits.get(need.id) ?? entryText(need.packs));
    const put = (state: RowState) => setStates((all) => new Map(all).set(need.id, state));
    const checked = checkLineQuantity(packs);
    if (!way && cannotAccept(need))
      return put({
        kind: 'failed',
        failure: need.sentFrom ? { kind: 'not_free', itemId: need.itemId, free: 0 } : { kind: 'no_supplier' },
      });
    if (!checked.ok)
      return put({ kind: 'failed', failure: { kind: 'invalid_field', field: 'packs', fault: checked.error } });
    put({ kind: 'saving' });
    const to = grid.current?.next(index + 1, 1, (i) => {
      const row = rowAt(i);
      return row?.kind !== 'need' || !settled.has(row.id);
    });
    grid.current?.focus(to === undefined || to < 0 ? index : to);
    const other = way && !way.shown ? { way: idOfWay(way) } : {};
    const input = { needId: need.id, fingerprint: need.fingerprint, packs, ...other };
    const outcome = await sendCommand<AcceptedNeed>('accept-need', input, 'until_sent');
    if (!outcome.ok) return put({ kind: 'failed', failure: outcome.failure });
    const { supplier, transfer } = outcome.value;
    accepted.current.set(outcome.key, { id: need.id, index });
    const words = `${toDecimal(checked.value)} ${plural(way?.packName || need.packName, checked.value)} of ${need.itemName} for ${need.location} ${transfer ? `will be sent from ${supplier} (${transfer.number})` : `went into the ${supplier} tray`}`;
    noteDone({ key: outcome.key, words });
    const packName = way?.packName || need.packName;
    put({ kind: 'accepted', tray: supplier, packs: toDecimal(checked.value), packName, transfer });
  };

  const latest = useRef({ put: edits.put, accept });
  latest.current = { put: edits.put, accept };
  const hands = useMemo<RowHands>(
    () => ({
      type: (need, value) => latest.current.put(need.id, value),
      accept: (need, index) => latest.current.accept(need, index),
    }),
    [],
  );

  const onKey = (event: KeyboardEvent, row: NeedEntry, index: number) => {
    if (!mayDecide || row.kind !== 'need' || (event.target instanceof HTMLAnchorElement && event.key === 'Enter'))
      return;
    const inField = event.target instanceof HTMLInputElement;
    const done = settled.has(row.id);
    if (picking === row.id && !inField) {
      event.preventDefault();
      setPicking(null);
      const way = ways.current?.needId === row.id ? ways.current.ways[Number(event.key) - 1] : undefined;
      if (way && !done) accept(row, index, way);
      return;
    }
    if (event.key === 'Enter') {
      event.preventDefault();
      if (!done) accept(row, index);
    } else if (inField && event.key === 'Escape') {
      edits.drop(row.id);
      setStates((all) => new Map([...all].filter(([id]) => id !== row.id)));
      grid.current?.focus(index);
    } else if (!inField && /^\d$/.test(event.key) && !done) {
      // The field holds the digit, with the caret behind it, before the next key can come.
      event.preventDefault();
      flushSync(() => edits.put(row.id, event.key));
      grid.current?.focus(index, 'packs', 'end');
    }
  };

  const line = (row: NeedEntry, index: number): Line => {
    if (row.kind === 'group') {
      const trayNet = status.trays.find((t) => t.supplierId === row.group.supplierId)?.net ?? 0;
      return {
        group: true,
        cells: <GroupHead group={row.group} trayNet={trayNet} format={format} currency={currency} />,
      };
    }
    const state = states.get(row.id) ?? OPEN;
    const typed = edits.get(row.id);
    return {
      label: needLabel(row, typed ?? entryText(row.packs), format),
      className: settled.has(row.id) || (!row.open && state.kind === 'open') ? 'struck' : '',
      cells: (
        <NeedCells
          need={row}
          index={index}
          format={format}
          currency={currency}
          today={today}
          state={state}
          typed={typed}
          current={index === currentIndex}
          hands={hands}
        />
      ),
    };
  };

  return (
    <ListAndPanel
      label="Reckoning"
      fixed
      panel={
        current ? (
          <NeedPanel
            need={current}
            currency={currency}
            today={today}
            ways={{
              picking: picking === current.id,
              onTake: mayDecide && !settled.has(current.id) ? (way) => accept(current, currentIndex, way) : null,
              onRead: onWays,
            }}
          />
        ) : (
          <p className="text-muted">–</p>
        )
      }
    >
      <ListBar
        title={countOf(status.needs, 'need')}
        about={`${status.items} of ${status.itemsOfAll} items · ${format.money(status.net, currency)}${
          status.unpriced > 0 ? ` · ${status.unpriced} without a price` : ''
        }`}
      >
        <div className="ml-auto flex items-center gap-2">
          <ScanSaid text={view.said} code={view.unknown} />
          {changed > 0 ? (
            <button type="button" className="chip border-attention text-attention" onClick={refresh}>
              {changed} changed, show
            </button>
          ) : (
            settled.size > 0 && (
              <button type="button" className="chip" onClick={refresh}>
                Clear {settled.size} decided
              </button>
            )
          )}
          <ExportLinks of="Needs" path={`/api/exports/needs?list=${head.list}`} />
          <KeysHelp
            keys={[
              ['↑ ↓', 'move'],
              ['Page ↑ ↓', 'move by a page'],
              ['Home, End', 'first, last'],
              ...(mayDecide
                ? ([
                    ['0 … 9', 'start a quantity'],
                    ['Enter', 'accept and go on'],
                    ['Esc', 'back to the suggestion'],
                  ] as const)
                : []),
              ['a scan', 'to the row of that item'],
            ]}
            letters={mayDecide ? [['W', 'another way: its number follows']] : []}
          />
        </div>
      </ListBar>
      {head.count === 0 ? (
        <Notice title="Nothing is below its minimum">
          When stock falls, what is short stands here.{' '}
          <Link className="link" href="/trays">
            Trays
          </Link>{' '}
          hold what was decided.
        </Notice>
      ) : (
        <Grid
          {...view.props}
          label="Needs"
          rowHeight={twoLines}
          columns="needs-columns"
          heads={[
            { text: 'Item' },
            { text: 'Why', className: 'max-sm:hidden' },
            { text: 'Stock · days it lasts', className: 'max-md:hidden' },
            { text: 'Order', className: 'col-span-2' },
            { text: 'Total net', className: 'figure' },
          ]}
          line={line}
          onKey={onKey}
          letters={{
            w: (row) => {
              if (mayDecide && row.kind === 'need' && !settled.has(row.id)) setPicking(row.id);
            },
          }}
        />
      )}
    </ListAndPanel>
  );
}
