'use client';

import Link from 'next/link';
import { useRouter } from 'next/navigation';
import type { CSSProperties, KeyboardEvent } from 'react';
import type { StockAt, StockHead, StockLine } from '@/services/stock/readStock';
import { countOf, type Format, lastsWords, plural } from '../format';
import { useFormat } from '../format-context.client';
import { ExportLinks } from '../frame/export-links';
import { ListBar } from '../frame/list';
import { LiveSearch } from '../frame/live-search.client';
import { ListAndPanel, Notice } from '../frame/states';
import { Cell, Grid, type Head, type Line, ScanSaid } from '../grid/grid.client';
import { KeysHelp } from '../grid/keys-help.client';
import { twoLines, useGridView } from '../grid/use-grid-view.client';
import { gaugeWords, LevelStrip } from '../marks/level-strip';
import { StockPanel } from './stock-panel.client';

export type StockQuery = {
  readonly q: string;
  readonly at: string;
  readonly sort: string;
  readonly category: string;
  readonly show: string;
  readonly days: number;
};

/** The address of the list with something else asked for; what is empty or usual is left out. */
export function stockHref(query: StockQuery, change: Partial<StockQuery> = {}): string {
  const { sort, days, ...rest } = { ...query, ...change };
  const given = Object.entries({
    ...rest,
    sort: sort === 'name' ? '' : sort,
    days: rest.show === 'idle' && days !== 90 ? String(days) : '',
  }).filter(([, v]) => v !== '');
  return given.length === 0 ? '/stock' : `/stock?${new URLSearchParams(given)}`;
}

const shows = [
  ['', 'All'],
  ['in_stock', 'In stock'],
  ['below', 'Below minimum'],
  ['above', 'Above maximum'],
  ['negative', 'Below zero'],
  ['idle', 'Not sold for a while'],
] as const;

/** Places that have a column each; with more of them the sums stand in one. */
const MOST_COLUMNS = 6;

/** Stock of every item: one place with all its terms apart, or all places side by side. */
export function StockList(props: {
  head: StockHead;
  first: readonly StockLine[];
  query: StockQuery;
  categories: readonly string[];
  reasons: readonly { readonly id: number; readonly name: string }[];
}) {
  const { head, query } = props;
  const format = useFormat();
  const router = useRouter();
  const view = useGridView('stock', head, props.first, { idOf: (r) => r.itemId });
  const chosen = view.rowAt(view.current);
  const one = head.places.length === 1;
  const columns = !one && head.places.length <= MOST_COLUMNS ? head.places : [];
  const heads: Head[] = one
    ? [
        { text: 'Item', sort: 'name' },
        { text: 'Stock', className: 'max-md:hidden' },
        ...['On hand', 'Allo-cated', 'Held', 'Free', 'On order', 'On the road'].map((text) => ({
          text,
          className: `figure wrap ${text === 'On hand' || text === 'Free' ? '' : 'max-md:hidden'}`,
        })),
        { text: 'Value', className: 'figure max-md:hidden', sort: 'value', descending: true },
      ]
    : [
        { text: 'Item', sort: 'name' },
        ...columns.map((l) => ({ text: l.name, className: 'max-md:hidden' })),
        { text: 'On hand', className: 'figure wrap' },
        { text: 'Value', className: 'figure max-md:hidden', sort: 'value', descending: true },
      ];
  const template = one
    ? 'minmax(0, 26fr) 136px 52px 48px 66px 52px 48px 48px 74px'
    : `minmax(0, 24fr) ${columns.map(() => 'minmax(0, 17fr)').join(' ')} 62px 84px`;
  const onKey = (event: KeyboardEvent, row: StockLine) => {
    if (event.key !== 'Enter' || event.target !== event.currentTarget) return;
    event.preventDefault();
    router.push(`/items/${row.itemId}`);
  };
  const line = (row: StockLine): Line => {
    const sum = (of: (p: StockAt) => number) => row.places.reduce((a, p) => a + of(p), 0);
    const onHand = sum((p) => p.onHand);
    return {
      label: `${row.name}, ${row.number}, ${format.quantity(onHand)} ${plural(row.unit, onHand)} on hand`,
      cells: (
        <>
          <Cell className="min-w-0 leading-[1.12]">
            <Link className="name block" href={`/items/${row.itemId}`} tabIndex={-1} prefetch={false}>
              {row.name}
            </Link>
            <span className="code">{row.number}</span>
          </Cell>
          {one ? (
            <OnePlace at={row.places[0]} id={row.itemId} format={format} />
          ) : (
            columns.map((l) => (
              <PlaceCell
                key={l.id}
                at={row.places.find((p) => p.locationId === l.id)}
                id={`${row.itemId}-${l.id}`}
                format={format}
              />
            ))
          )}
          {!one && (
            <Cell className={`figure font-semibold ${onHand < 0 ? 'text-stop' : ''}`}>{format.quantity(onHand)}</Cell>
          )}
          <Cell className="figure max-md:hidden">
            {format.amount(
              sum((p) => p.value),
              head.currency,
            )}
          </Cell>
        </>
      ),
    };
  };
  return (
    <ListAndPanel
      label="Stock of the item"
      fixed
      panel={chosen ? <StockPanel line={chosen} currency={head.currency} reasons={props.reasons} /> : null}
    >
      <ListBar
        title={countOf(head.count, 'item')}
        about={
          head.excessValue === null
            ? `worth ${format.money(head.value, head.currency)}`
            : `${format.money(head.excessValue, head.currency)} above maximum`
        }
      >
        {query.show === 'below' && (
          <Link className="link" prefetch={false} href={`/needs${query.at ? `?at=${query.at}` : ''}`}>
            Needs
          </Link>
        )}
        <ScanSaid text={view.said} code={view.unknown} />
        <select
          className="entry ml-auto max-w-36 max-sm:ml-0"
          aria-label="Which stock"
          value={query.show}
          onChange={(e) => router.push(stockHref(query, { show: e.target.value }))}
        >
          {shows.map(([key, name]) => (
            <option key={key} value={key}>
              {name}
            </option>
          ))}
        </select>
        {query.show === 'idle' && (
          <label className="flex items-center gap-1.5">
            for
            <input
              className="entry figure w-14"
              defaultValue={query.days}
              inputMode="numeric"
              aria-label="Days without a sale"
              onBlur={(e) => router.push(stockHref(query, { days: Number(e.target.value) || 90 }))}
              onKeyDown={(e) => e.key === 'Enter' && e.currentTarget.blur()}
            />
            days
          </label>
        )}
        <select
          className="entry max-w-32"
          aria-label="Category"
          value={query.category}
          onChange={(e) => router.push(stockHref(query, { category: e.target.value }))}
        >
          <option value="">All categories</option>
          {props.categories.map((c) => (
            <option key={c}>{c}</option>
          ))}
        </select>
        <LiveSearch
          value={query.q}
          placeholder="name, number, barcode"
          label="Search items"
          hrefOf={(q) => stockHref(query, { q })}
        />
        <ExportLinks of="Stock" path={`/api/exports/stock?list=${head.list}`} />
        <KeysHelp
          keys={[
            ['↑ ↓', 'move'],
            ['Page ↑ ↓', 'move by a page'],
            ['Enter', 'open the item'],
            ['a scan', 'to the row of that item'],
          ]}
        />
      </ListBar>
      {head.count === 0 ? (
        <Notice title={query.q ? `No item fits “${query.q}”` : 'No stock is so'}>
          <Link className="link" href="/stock">
            Show all stock
          </Link>
        </Notice>
      ) : (
        <Grid
          {...view.props}
          label="Stock"
          rowHeight={twoLines}
          columns="item-columns"
          style={{ '--template': template } as CSSProperties}
          sorted={{ by: query.sort, href: (sort) => stockHref(query, { sort }) }}
          heads={heads}
          line={line}
          onKey={onKey}
        />
      )}
    </ListAndPanel>
  );
}

function PlaceCell({ at, id, format }: { at: StockAt | undefined; id: string; format: Format }) {
  if (!at) return <Cell className="max-md:hidden">–</Cell>;
  const words = [at.excess > 0 ? `${format.quantity(at.excess)} over` : '', at.belowMin ? 'below min' : ''].filter(
    Boolean,
  );
  return (
    <Cell className="min-w-0 leading-tight max-md:hidden">
      <span className="block overflow-hidden">
        <LevelStrip gauge={at.gauge} format={format} id={id} />
      </span>
      <span className="second">
        {gaugeWords(at.gauge, format)}
        {words.length > 0 && <span className="text-attention"> · {words.join(', ')}</span>}
      </span>
    </Cell>
  );
}

function OnePlace({ at, id, format }: { at: StockAt | undefined; id: number; format: Format }) {
  if (!at) return null;
  const cell = (q: number) => (q === 0 ? '–' : format.quantity(q));
  const lasts = lastsWords(at.coverDays);
  return (
    <>
      <Cell className="leading-tight max-md:hidden">
        <LevelStrip gauge={at.gauge} format={format} id={`o${id}`} />
        <span className="second">
          {[
            at.belowMin ? 'below min' : '',
            at.excess > 0 ? `${format.quantity(at.excess)} over` : '',
            at.gauge.inTrays > 0 ? `${format.quantity(at.gauge.inTrays)} in trays` : '',
            lasts && `lasts ${lasts}`,
          ]
            .filter(Boolean)
            .join(' · ')}
        </span>
      </Cell>
      <Cell className={`figure font-semibold ${at.onHand < 0 ? 'text-stop' : ''}`}>{format.quantity(at.onHand)}</Cell>
      <Cell className="figure max-md:hidden">{cell(at.allocated)}</Cell>
      <Cell className="figure leading-tight max-md:hidden">
        {at.inspection === 0 && at.blocked === 0 && '–'}
        {at.inspection > 0 && <span className="block">{format.quantity(at.inspection)} to inspect</span>}
        {at.blocked > 0 && <span className="block">{format.quantity(at.blocked)} blocked</span>}
      </Cell>
      <Cell className="figure">{format.quantity(at.free)}</Cell>
      <Cell className="figure max-md:hidden">{cell(at.onOrder)}</Cell>
      <Cell className="figure max-md:hidden">{cell(at.inTransit + at.toBeSent)}</Cell>
    </>
  );
}
