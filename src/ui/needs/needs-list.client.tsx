'use client';

import Link from 'next/link';
import { useRouter } from 'next/navigation';
import { type KeyboardEvent, useCallback, useDeferredValue, useEffect, useMemo, useRef, useState } from 'react';
import { flushSync } from 'react-dom';
import { checkLineQuantity } from '@/core/purchase';
import { entryText, toDecimal } from '@/core/quantity';
import type { AcceptedNeed } from '@/services/planning/acceptNeed';
import type { AcceptedNeeds } from '@/services/planning/acceptShown';
import type { NeedView } from '@/services/planning/needViews';
import type { NeedEntry, NeedsHead, NeedsStatus } from '@/services/planning/readNeeds';
import type { WayDelivery, WayView } from '@/services/planning/readWays';
import type { ViewLink } from '@/services/views/readViews';
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
import { failureSentence } from '../sentences';
import { SavedViews } from '../views/saved-views.client';
import { type AsideKind, AsideWindow } from './aside-window.client';
import { AssignWindow } from './assign-window.client';
import { ByHandWindow, type Place } from './by-hand.client';
import { GroupHead } from './group-head';
import { NeedPanel } from './need-panel.client';
import { cannotAccept, NeedCells, needLabel, type RowHands, type RowState } from './need-row';
import { NeedsFilters } from './needs-filters.client';
import { isNarrowed, type NeedQuery, needsHref } from './query';
import { SplitWindow } from './split-window.client';
import type { ReadWays } from './ways.client';

type Opened = { readonly head: NeedsHead; readonly first: readonly NeedEntry[] };
type Props = Opened & {
  readonly query: NeedQuery;
  readonly views: readonly ViewLink[];
  /** Places that something can be asked for at. */
  readonly places: readonly Place[];
  /** How many needs are put off and left out. */
  readonly aside: { readonly putOff: number; readonly leftOut: number };
};
const OPEN: RowState = { kind: 'open' };

const partOfWay = ({ sourceId, locationId, packs }: WayDelivery) => ({
  packs: entryText(packs),
  way: sourceId === null ? { locationId } : { sourceId },
});
/** What a window is open for. */
type Window =
  | { readonly kind: AsideKind; readonly needs: readonly NeedView[] }
  | { readonly kind: 'split'; readonly need: NeedView }
  | { readonly kind: 'assign'; readonly needs: readonly NeedView[] }
  | { readonly kind: 'by_hand' };
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
export function NeedsList(fresh: Props) {
  const { query } = fresh;
  const format = useFormat();
  const router = useRouter();
  const mayDecide = useMay('needs.decide');
  // What is shown stays as it was opened, also when the page is read again; a refresh that was asked for takes it over.
  const asked = needsHref(query);
  const [{ head, first, href }, setOpened] = useState<Opened & { readonly href: string }>({ ...fresh, href: asked });
  /** The list that was there when a refresh was asked for: the next one is taken over. */
  const [adopt, setAdopt] = useState<string | null>(null);
  const [states, setStates] = useState<ReadonlyMap<number, RowState>>(new Map());
  const edits = useEdits<number, string>();
  /** Marked rows, by id, for what is done with many at once. */
  const [marked, setMarked] = useState<ReadonlyMap<number, NeedView>>(new Map());
  const [window, setWindow] = useState<Window | null>(null);
  const [said, setSaid] = useState('');
  const known = fresh.head.list;
  const refresh = useCallback(() => {
    setAdopt(known);
    router.refresh();
  }, [router, known]);
  const view = useGridView('needs', head, first, {
    start: query.by === 'urgent' ? 0 : 1,
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
  const settledIds = [...states]
    .filter(([, s]) => s.kind === 'accepted' || s.kind === 'aside' || s.kind === 'saving')
    .map(([id]) => id);
  const settled = new Set(settledIds);

  const clear = edits.clear;
  const { onCurrent } = view.props;
  const start = query.by === 'urgent' ? 0 : 1;
  useEffect(() => {
    const other = asked !== href;
    if (!other && (adopt === null || fresh.head.list === adopt)) return;
    setOpened({ head: fresh.head, first: fresh.first, href: asked });
    setAdopt(null);
    setStates(new Map());
    setMarked(new Map());
    clear();
    // Another question is another list: it begins at its first row.
    if (other) onCurrent(start);
  }, [fresh.head, fresh.first, adopt, clear, asked, href, onCurrent, start]);
  useEffect(() => {
    if (changes.gone) refresh();
  }, [changes.gone, refresh]);

  // Undone: the row is open again once it has been read as it is now (an entry made on the old one would be refused); its
  // place in the list stays.
  const accepted = useRef(new Map<string, readonly { readonly id: number; readonly index: number }[]>());
  const reopened = useRef(new Set<number>());
  useEffect(
    () =>
      onUndone((key) => {
        const rows = accepted.current.get(key);
        if (!rows) return;
        const ids = new Set(rows.map((r) => r.id));
        for (const id of ids) reopened.current.add(id);
        const at = rows.map((r) => r.index);
        again(Math.min(...at), Math.max(...at) + 1).finally(() =>
          setStates((all) => new Map([...all].filter(([id]) => !ids.has(id)))),
        );
      }),
    [again],
  );
  const indexOf = (id: number): number => {
    for (let i = 0; i < head.count; i += 1) {
      const row = rowAt(i);
      if (row?.kind === 'need' && row.id === id) return i;
    }
    return -1;
  };
  /** Rows that were done with together, struck until the list is refreshed. */
  const settle = (key: string | null, done: readonly { readonly id: number; readonly state: RowState }[]) => {
    setStates((all) => new Map([...all, ...done.map(({ id, state }) => [id, state] as const)]));
    setMarked((all) => new Map([...all].filter(([id]) => !done.some((d) => d.id === id))));
    const rows = done.map(({ id }) => ({ id, index: indexOf(id) })).filter((r) => r.index >= 0);
    if (key !== null && rows.length > 0) accepted.current.set(key, rows);
    // The hand goes on to the next row that is open, once the window over it is gone.
    const gone = new Set(done.map((d) => d.id));
    requestAnimationFrame(() => {
      const to = grid.current?.next(currentIndex, 1, (i) => {
        const row = rowAt(i);
        return row?.kind !== 'need' || !(settled.has(row.id) || gone.has(row.id));
      });
      grid.current?.focus(to === undefined || to < 0 ? currentIndex : to);
    });
  };
  const changed = changes.changed.filter((id) => !settled.has(id) && !reopened.current.has(id)).length;

  /** W was pressed on this need: the next figure takes a way. */
  const [picking, setPicking] = useState<number | null>(null);
  const ways = useRef<ReadWays | null>(null);
  const onWays = useCallback((read: ReadWays) => {
    ways.current = read;
  }, []);

  const accept = async (need: NeedView, index: number, way?: WayView) => {
    setPicking(null);
    const [taken, ...more] = way && !way.shown ? way.deliveries : [];
    const packs = way ? entryText(way.deliveries[0].packs) : (edits.get(need.id) ?? entryText(need.packs));
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
    const other = taken ? { ...partOfWay(taken), ...(more.length > 0 ? { also: more.map(partOfWay) } : {}) } : {};
    const input = { needId: need.id, fingerprint: need.fingerprint, packs, ...other };
    const outcome = await sendCommand<AcceptedNeed>('accept-need', input, 'until_sent');
    if (!outcome.ok) return put({ kind: 'failed', failure: outcome.failure });
    const { supplier, transfer, also } = outcome.value;
    accepted.current.set(outcome.key, [{ id: need.id, index }]);
    const packName = way?.deliveries[0].packName || need.packName;
    const words = `${toDecimal(checked.value)} ${plural(packName, checked.value)} of ${need.itemName} for ${need.location} ${transfer ? `will be sent from ${supplier} (${transfer.number})` : `went into the ${supplier} tray`}${also.length > 0 ? `, the rest comes from ${also.map((p) => p.supplier).join(', ')}` : ''}`;
    noteDone({ key: outcome.key, words });
    put({
      ...{ kind: 'accepted', tray: supplier, packs: toDecimal(checked.value), packName, transfer },
      also: also.map((p) => p.supplier),
    });
  };

  /** Accepts all that is shown, or what is marked, without what has a warning. */
  const acceptMany = async (only: readonly number[] | null) => {
    setSaid('');
    const outcome = await sendCommand<AcceptedNeeds>('accept-shown', {
      list: head.list,
      ...(only ? { needIds: only } : {}),
    });
    if (!outcome.ok) return setSaid(failureSentence(outcome.failure, format));
    const { accepted: taken, warned, changed: moved, left } = outcome.value;
    settle(
      outcome.key,
      taken.map(({ needId, packs, part }) => {
        const row = rowAt(indexOf(needId));
        const packName = row?.kind === 'need' ? row.packName : '';
        const { supplier: tray, transfer } = part;
        return { id: needId, state: { kind: 'accepted', tray, packs: toDecimal(packs), packName, transfer } };
      }),
    );
    if (taken.length > 0)
      noteDone({ key: outcome.key, words: `${countOf(taken.length, 'need')} went into trays and onto transfers` });
    const rest = [
      warned > 0 ? `${countOf(warned, 'need')} with a warning stayed` : '',
      moved > 0 ? `${countOf(moved, 'need')} had changed` : '',
      left > 0 ? `${countOf(left, 'need')} more can be accepted next` : '',
    ].filter(Boolean);
    setSaid(taken.length === 0 && rest.length === 0 ? 'Nothing is left to accept.' : rest.join(', '));
  };

  const mark = (need: NeedView) =>
    setMarked((all) => {
      const next = new Map(all);
      if (!next.delete(need.id)) next.set(need.id, need);
      return next;
    });
  /** What a letter is about: the marked rows, or the one under the hand. */
  const meant = (need: NeedView): readonly NeedView[] => (marked.size > 0 ? [...marked.values()] : [need]);
  const openSplit = (need: NeedView) => {
    if (ways.current?.needId === need.id && ways.current.ways.length > 0) setWindow({ kind: 'split', need });
    else setSaid('Its ways are still being read.');
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
    // No quantity has a space in it.
    if (event.key === ' ') {
      event.preventDefault();
      if (!done) {
        mark(row);
        grid.current?.focus(Math.max(index, grid.current.next(index + 1, 1)));
      }
    } else if (event.key === 'Enter') {
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
          marked={marked.has(row.id)}
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
            onMended={refresh}
          />
        ) : (
          <p className="text-muted">–</p>
        )
      }
    >
      <ListBar
        title={
          isNarrowed(query) || query.at !== ''
            ? `${head.shown} of ${countOf(status.needs, 'need')}`
            : countOf(status.needs, 'need')
        }
        about={
          said ? (
            <span role="status">{said}</span>
          ) : (
            `${status.items} of ${status.itemsOfAll} items · ${format.money(status.net, currency)}${
              status.unpriced > 0 ? ` · ${status.unpriced} without a price` : ''
            }`
          )
        }
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
          <Link className="link second" href="/needs/decisions">
            {asideWords(fresh.aside)}
          </Link>
          <SavedViews page="needs" path="/needs" query={asked.split('?')[1] ?? ''} views={fresh.views} />
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
                    ['Space', 'mark, for many at once'],
                  ] as const)
                : []),
              ['a scan', 'to the row of that item'],
            ]}
            letters={
              mayDecide
                ? [
                    ['W', 'another way: its number follows'],
                    ['S', 'split over several'],
                    ['P', 'put off'],
                    ['L', 'leave out'],
                    ['N', 'ask for something by hand'],
                  ]
                : []
            }
          />
        </div>
      </ListBar>
      {marked.size > 0 ? (
        <div className="bar gap-2" role="toolbar" aria-label="Marked needs">
          <span className="font-semibold">{marked.size} marked</span>
          <span className="text-muted">
            {format.money(
              [...marked.values()].reduce((a, n) => a + (n.net ?? 0), 0),
              currency,
            )}
          </span>
          <button type="button" className="btn btn-primary btn-sm" onClick={() => acceptMany([...marked.keys()])}>
            Accept as suggested
          </button>
          <button
            type="button"
            className="btn btn-outline btn-sm"
            onClick={() => setWindow({ kind: 'put_off', needs: [...marked.values()] })}
          >
            Put off
          </button>
          <button
            type="button"
            className="btn btn-outline btn-sm"
            onClick={() => setWindow({ kind: 'leave_out', needs: [...marked.values()] })}
          >
            Leave out
          </button>
          <button
            type="button"
            className="btn btn-outline btn-sm"
            onClick={() => setWindow({ kind: 'assign', needs: [...marked.values()] })}
          >
            Split across suppliers
          </button>
          <button type="button" className="link second" onClick={() => setMarked(new Map())}>
            unmark
          </button>
        </div>
      ) : (
        <NeedsFilters query={query}>
          {mayDecide && head.shown > 0 && (
            <button
              type="button"
              className="chip"
              title="As suggested; what has a warning stays"
              onClick={() => acceptMany(null)}
            >
              Accept all shown
            </button>
          )}
          {mayDecide && (
            <button type="button" className="chip" onClick={() => setWindow({ kind: 'by_hand' })}>
              By hand
            </button>
          )}
        </NeedsFilters>
      )}
      {(window?.kind === 'put_off' || window?.kind === 'leave_out') && (
        <AsideWindow
          kind={window.kind}
          needs={window.needs.map((n) => ({ needId: n.id, fingerprint: n.fingerprint }))}
          name={window.needs.length === 1 ? (window.needs[0]?.itemName ?? '') : countOf(window.needs.length, 'need')}
          onLeave={() => setWindow(null)}
          onDone={(key, words) => {
            settle(
              key,
              window.needs.map((n) => ({ id: n.id, state: { kind: 'aside', words } })),
            );
            setWindow(null);
          }}
        />
      )}
      {window?.kind === 'split' && ways.current && (
        <SplitWindow
          need={window.need}
          ways={ways.current.ways}
          missing={ways.current.missing}
          onLeave={() => setWindow(null)}
          onDone={(key, { supplier: tray, transfer, also }, packs) => {
            const state: RowState = {
              ...{ kind: 'accepted', tray, packs, packName: '', transfer },
              also: also.map((p) => p.supplier),
            };
            settle(key, [{ id: window.need.id, state }]);
            setWindow(null);
          }}
        />
      )}
      {window?.kind === 'assign' && (
        <AssignWindow
          needIds={window.needs.map((n) => n.id)}
          onLeave={() => setWindow(null)}
          onTaken={(key, needIds) => {
            settle(
              key,
              needIds.map((id) => ({ id, state: { kind: 'aside', words: 'in a tray, as assigned' } })),
            );
            setWindow(null);
          }}
        />
      )}
      {window?.kind === 'by_hand' && (
        <ByHandWindow
          places={fresh.places}
          first={fresh.places[0]?.id ?? 0}
          onLeave={(asked) => {
            setWindow(null);
            if (asked > 0) refresh();
          }}
        />
      )}
      {head.count === 0 ? (
        <Notice title={isNarrowed(query) ? 'No need fits this' : 'Nothing is short'}>
          {isNarrowed(query) ? (
            <Link className="link" href={needsHref({ ...query, q: '', show: 'open', cause: '', mine: false })}>
              Show all needs
            </Link>
          ) : (
            <>
              When stock falls, what is short stands here.{' '}
              <Link className="link" href="/trays">
                Trays
              </Link>{' '}
              hold what was decided.
            </>
          )}
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
            s: (row) => {
              if (mayDecide && row.kind === 'need' && !settled.has(row.id)) openSplit(row);
            },
            p: (row) => {
              if (mayDecide && row.kind === 'need' && !settled.has(row.id))
                setWindow({ kind: 'put_off', needs: meant(row) });
            },
            l: (row) => {
              if (mayDecide && row.kind === 'need' && !settled.has(row.id))
                setWindow({ kind: 'leave_out', needs: meant(row) });
            },
            n: () => {
              if (mayDecide) setWindow({ kind: 'by_hand' });
            },
          }}
        />
      )}
    </ListAndPanel>
  );
}

/** The way to what was put off and left out, and to all decisions. */
const asideWords = ({ putOff, leftOut }: Props['aside']): string =>
  [putOff > 0 ? `${putOff} put off` : '', leftOut > 0 ? `${leftOut} left out` : ''].filter(Boolean).join(', ') ||
  'Decisions';
