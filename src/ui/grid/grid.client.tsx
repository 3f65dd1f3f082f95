'use client';

import Link from 'next/link';
import {
  type CSSProperties,
  type KeyboardEvent,
  type ReactNode,
  type Ref,
  useEffect,
  useImperativeHandle,
  useLayoutEffect,
  useRef,
  useState,
} from 'react';
import { flushSync } from 'react-dom';
import { moveOf } from './moves';
import { FASTEST_HAND_MS } from './scan';
import { takeScans } from './scans';
import { useLetters } from './use-letters.client';
import {
  type Extent,
  type Higher,
  heightOf,
  measured,
  offsetOf,
  offsetToShow,
  rowsAt,
  scrollHeight,
  scrollTopOf,
  topOf,
  totalHeight,
} from './viewport';

export type Head = {
  readonly text: ReactNode;
  readonly className?: string;
  /** The order that a press on this head asks for. */
  readonly sort?: string;
  /** That order begins with the most or the latest. */
  readonly descending?: boolean;
};
/** What a row shows; a group head spans all columns and never has the focus. */
export type Line = {
  readonly cells: ReactNode;
  readonly className?: string;
  readonly label?: string;
  readonly group?: boolean;
};
export type Sorted = { readonly by: string; readonly href: (by: string) => string };

/** What a view can ask of its grid. */
export type GridHandle = {
  /** Brings a row into view and gives it the focus, or the field of that name in it: all of its text chosen, or the caret
   *  behind it. */
  readonly focus: (index: number, field?: string, caret?: 'all' | 'end') => void;
  /** The next row from one on that can have the focus, in a direction; -1 when there is none. */
  readonly next: (from: number, by: 1 | -1, fits?: (index: number) => boolean) => number;
};

/** Pixels that a row keeps free around its cells. */
const ROOM = 4;
const NONE_HIGHER = { higher: [], at: '' } as const;

type Props<R> = {
  readonly ref?: Ref<GridHandle>;
  readonly label: string;
  readonly count: number;
  /** Another list: what was measured no longer holds. */
  readonly listKey: string;
  /** In pixels; the same for all rows, but it may depend on the width of the list. */
  readonly rowHeight: number | ((width: number) => number);
  /** A class that sets grid-template-columns for heads and rows alike. */
  readonly columns: string;
  readonly heads: readonly Head[];
  readonly sorted?: Sorted;
  readonly style?: CSSProperties;
  /** Rows on both sides of those in view that are there too: fewer where a row is a lot of work. */
  readonly beside?: number;
  readonly rowAt: (index: number) => R | undefined;
  /** Says which rows are looked at. */
  readonly onShow: (from: number, end: number) => void;
  readonly line: (row: R, index: number) => Line;
  readonly current: number;
  readonly onCurrent: (index: number) => void;
  /** Keys the grid does not take itself. */
  readonly onKey?: (event: KeyboardEvent, row: R, index: number) => void;
  readonly onLeaveRow?: (index: number) => void;
  /** Letters that are commands on a row. */
  readonly letters?: Readonly<Record<string, (row: R, index: number) => void>>;
  /** A scan, wherever it lands on the page. */
  readonly onScan?: (code: string) => void;
};

/** A cell of a row. */
export const Cell = ({ className, children }: { className?: string; children?: ReactNode }) => (
  // biome-ignore lint/a11y/useSemanticElements: a cell of a row that is no table row.
  // biome-ignore lint/a11y/useFocusableInteractive: the row has the focus, or a field in it.
  <span role="gridcell" className={className}>
    {children}
  </span>
);

/** What a scan did not find. */
export const ScanSaid = ({ text, code = '' }: { text: string; code?: string }) =>
  text === '' ? null : (
    <>
      <span className="fault" role="alert">
        {text}
      </span>
      {code !== '' && (
        <button
          type="button"
          className="link text-action"
          onClick={() => window.dispatchEvent(new CustomEvent('vorrat-find', { detail: code }))}
        >
          Find it or make it
        </button>
      )}
    </>
  );

const sortOf = (head: Head, sorted: Sorted | undefined) => {
  if (head.sort === undefined || !sorted) return undefined;
  return head.sort !== sorted.by ? 'none' : head.descending ? 'descending' : 'ascending';
};

/** One list of any length: only the rows in view are there, one of them has the focus (arrows, Page, Home, End move it),
 *  and a list longer than a browser can scroll is scaled. In a field of a row only Enter, Tab, Esc and arrows act. */
export function Grid<R>(props: Props<R>) {
  const { count } = props;
  const scroller = useRef<HTMLDivElement>(null);
  const heads = useRef<HTMLDivElement>(null);
  const [{ height, width }, setSize] = useState({ height: 0, width: Number.POSITIVE_INFINITY });
  const rowHeight = typeof props.rowHeight === 'number' ? props.rowHeight : props.rowHeight(width);
  const [offset, setOffset] = useState(0);
  /** The scroll position that was set from here: its event brings nothing new. */
  const set = useRef(0);
  const [{ higher, at: measuredAt }, setHigher] = useState<{ higher: readonly Higher[]; at: string }>(NONE_HIGHER);
  // What was measured holds for this list at this width.
  const measure = `${props.listKey}/${width}`;
  const extent: Extent = { count, rowHeight, height, higher: measuredAt === measure ? higher : NONE_HIGHER.higher };

  useLayoutEffect(() => {
    const box = scroller.current;
    if (!box) return;
    const look = () =>
      setSize({ height: Math.max(0, box.clientHeight - (heads.current?.offsetHeight ?? 0)), width: box.clientWidth });
    const observer = new ResizeObserver(look);
    observer.observe(box);
    look();
    return () => observer.disconnect();
  }, []);

  // A list that was scrolled before it was alive shows the place where it stands.
  // biome-ignore lint/correctness/useExhaustiveDependencies: once its height is known.
  useLayoutEffect(() => {
    const at = scroller.current?.scrollTop ?? 0;
    if (height === 0 || Math.abs(at - set.current) < 1) return;
    set.current = at;
    setOffset(offsetOf(extent, at));
  }, [height]);

  const lineAt = (index: number): Line | null => {
    const row = props.rowAt(index);
    return row === undefined ? null : props.line(row, index);
  };
  const next = (from: number, by: 1 | -1, fits: (index: number) => boolean = () => true): number => {
    for (let i = from; i >= 0 && i < count; i += by) if (!lineAt(i)?.group && fits(i)) return i;
    return -1;
  };

  // Where a list that was read again has a group's head, the row beside it takes the focus.
  const beside = lineAt(props.current)?.group ? Math.max(next(props.current, 1), next(props.current, -1)) : -1;
  const current = beside >= 0 ? beside : props.current;
  const { onCurrent } = props;
  useEffect(() => {
    if (beside >= 0) onCurrent(beside);
  }, [beside, onCurrent]);

  const moveTo = (to: number) => {
    const box = scroller.current;
    if (!box) return;
    // First, as rows that turn out higher once they are there move it again.
    box.scrollTop = scrollTopOf(extent, to);
    set.current = box.scrollTop;
    flushSync(() => setOffset(to));
  };

  /** The row that the hand was brought to, until somebody scrolls. */
  const kept = useRef(-1);
  // It is not cut off where the list becomes lower (what was done last is shown at its foot), or rows above it turn out higher.
  // biome-ignore lint/correctness/useExhaustiveDependencies: when heights change.
  useLayoutEffect(() => {
    const box = scroller.current;
    const place = kept.current === current ? offsetToShow(extent, offset, current) : null;
    if (!box || place === null) return;
    box.scrollTop = scrollTopOf(extent, place);
    set.current = box.scrollTop;
    setOffset(place);
  }, [height, extent.higher]);

  // A turn of the wheel moves by what it says, also where the scroll bar is scaled.
  const whole = totalHeight(extent);
  const scaled = scrollHeight(extent) < whole;
  const turn = useRef<(by: number) => void>(() => undefined);
  turn.current = (by) => {
    kept.current = -1;
    moveTo(Math.max(0, Math.min(offset + by, whole - height)));
  };
  useEffect(() => {
    const box = scroller.current;
    if (!box || !scaled) return;
    const onWheel = (e: WheelEvent) => {
      if (e.ctrlKey) return;
      e.preventDefault();
      turn.current(e.deltaMode === WheelEvent.DOM_DELTA_LINE ? e.deltaY * 16 : e.deltaY);
    };
    box.addEventListener('wheel', onWheel, { passive: false });
    return () => box.removeEventListener('wheel', onWheel);
  }, [scaled]);

  const { first, end } = rowsAt(extent, offset, props.beside);
  const { onShow } = props;
  useEffect(() => {
    onShow(first, end);
  }, [onShow, first, end]);

  const focus = (index: number, field?: string, caret: 'all' | 'end' = 'all') => {
    const wanted = Math.max(0, Math.min(index, count - 1));
    const to = lineAt(wanted)?.group ? Math.max(next(wanted, 1), 0) : wanted;
    const place = offsetToShow(extent, offset, to);
    kept.current = to;
    flushSync(() => props.onCurrent(to));
    if (place !== null) moveTo(place);
    const row = scroller.current?.querySelector<HTMLElement>(`[data-index="${to}"]`);
    const target = field ? row?.querySelector<HTMLElement>(`[data-column="${field}"]`) : row;
    (target ?? row)?.focus({ preventScroll: true });
    if (!(target instanceof HTMLInputElement)) return;
    if (caret === 'all') target.select();
    else target.setSelectionRange(target.value.length, target.value.length);
  };
  useImperativeHandle(props.ref, () => ({ focus, next }));

  const onScan = useRef(props.onScan);
  onScan.current = props.onScan;
  const takesScans = props.onScan !== undefined;
  useEffect(() => (takesScans ? takeScans({ take: (code) => onScan.current?.(code) }) : undefined), [takesScans]);

  // A letter that is followed at once by another key is the beginning of a scan, not a command.
  const [lettersOn] = useLetters();
  const letter = useRef<ReturnType<typeof setTimeout>>(undefined);
  useEffect(() => () => clearTimeout(letter.current), []);

  const onKey = (event: KeyboardEvent<HTMLDivElement>, index: number) => {
    clearTimeout(letter.current);
    if (event.ctrlKey || event.metaKey || event.altKey) return;
    const row = props.rowAt(index);
    const inField = event.target instanceof HTMLInputElement;
    const page = Math.max(1, Math.floor(height / rowHeight) - 1);
    const move = moveOf(event.key, index, { count, page, inField });
    if (move) {
      event.preventDefault();
      const to = next(move.to, move.by);
      if (to >= 0) focus(to, inField ? (event.target as HTMLInputElement).dataset.column : undefined);
      return;
    }
    if (row === undefined) return;
    const command = inField || !lettersOn ? undefined : props.letters?.[event.key.toLowerCase()];
    if (command) letter.current = setTimeout(() => command(row, index), FASTEST_HAND_MS);
    else props.onKey?.(event, row, index);
  };

  // Names wrap and are not cut: a row grows to what its cells need.
  useLayoutEffect(() => {
    const needs = new Map<number, number>();
    for (const row of scroller.current?.querySelectorAll<HTMLElement>('[data-index]') ?? []) {
      const cells = [...row.children] as HTMLElement[];
      needs.set(Number(row.dataset.index), Math.max(...cells.map((c) => c.offsetHeight)) + ROOM);
    }
    const before = measuredAt === measure ? higher : NONE_HIGHER.higher;
    const now = measured(before, rowHeight, needs);
    if (now !== before) setHigher({ higher: now, at: measure });
  });

  // The row with the focus stays there when it is scrolled out of view.
  const shown = Array.from({ length: end - first }, (_, i) => first + i);
  if (count > 0 && current < count && (current < first || current >= end)) shown.push(current);
  const top = scaled ? scrollTopOf(extent, offset) : offset;
  return (
    // biome-ignore lint/a11y/useSemanticElements: rows are placed one by one, which a table can't.
    <div
      ref={scroller}
      role="grid"
      aria-label={props.label}
      aria-rowcount={count + 1}
      tabIndex={-1}
      className="min-h-0 flex-1 overflow-y-auto"
      style={props.style}
      onScroll={(e) => {
        const at = e.currentTarget.scrollTop;
        if (Math.abs(at - set.current) < 1) return;
        set.current = at;
        kept.current = -1;
        setOffset(offsetOf(extent, at));
      }}
    >
      {/* biome-ignore lint/a11y/useFocusableInteractive: heads are read, not worked in. */}
      {/* biome-ignore lint/a11y/useSemanticElements: as above. */}
      <div ref={heads} role="row" aria-rowindex={1} className={`grid-heads ${props.columns}`}>
        {props.heads.map((h, i) => (
          // biome-ignore lint/a11y/useSemanticElements: as above.
          <span
            // biome-ignore lint/suspicious/noArrayIndexKey: heads stay in their order.
            key={i}
            role="columnheader"
            tabIndex={-1}
            className={h.className}
            aria-sort={sortOf(h, props.sorted)}
          >
            {h.sort && props.sorted ? (
              <Link className="sort" prefetch={false} href={props.sorted.href(h.sort)} replace scroll={false}>
                {h.text}
              </Link>
            ) : (
              h.text
            )}
          </span>
        ))}
      </div>
      <div role="presentation" style={{ position: 'relative', height: scrollHeight(extent) }}>
        {shown.map((index) => {
          const line = lineAt(index);
          const at = Math.max(-1e5, Math.min(1e5, topOf(extent, index) - offset));
          return (
            // biome-ignore lint/a11y/useSemanticElements: as above.
            <div
              key={index}
              role="row"
              aria-rowindex={index + 2}
              aria-selected={index === current}
              aria-label={line?.label}
              data-index={index}
              data-current={index === current}
              tabIndex={line?.group ? undefined : index === current ? 0 : -1}
              className={`grid-line ${line?.group ? 'group' : props.columns} ${line?.className ?? ''}`}
              style={{ top: top + at, height: heightOf(extent, index) }}
              onFocus={() => index !== current && !line?.group && props.onCurrent(index)}
              onKeyDown={(e) => onKey(e, index)}
              onBlur={(e) => {
                if (!e.currentTarget.contains(e.relatedTarget)) props.onLeaveRow?.(index);
              }}
            >
              {line?.cells ?? <Cell className="text-muted">…</Cell>}
            </div>
          );
        })}
      </div>
    </div>
  );
}
