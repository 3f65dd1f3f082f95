'use client';

import { Columns3 } from 'lucide-react';
import Link from 'next/link';
import { useRouter } from 'next/navigation';
import { type CSSProperties, type KeyboardEvent, useState } from 'react';
import type { ItemListHead, ItemSort, ItemSummary } from '@/services/catalogue/readItems';
import type { RecordsView } from '@/services/sheets/readRecords';
import type { ViewLink } from '@/services/views/readViews';
import { countOf, plural } from '../format';
import { useFormat } from '../format-context.client';
import { ExportLinks } from '../frame/export-links';
import { ListBar, WholeGrid } from '../frame/list';
import { LiveSearch } from '../frame/live-search.client';
import { Notice } from '../frame/states';
import { Cell, Grid, type Head, type Line, ScanSaid } from '../grid/grid.client';
import { KeysHelp } from '../grid/keys-help.client';
import { twoLines, useGridView } from '../grid/use-grid-view.client';
import { gaugeWords, LevelStrip } from '../marks/level-strip';
import { SavedViews } from '../views/saved-views.client';
import { columnsFrom, itemColumns } from './columns';
import { FreeByPlace } from './free-by-place';
import { ManyBar } from './many-bar.client';
import { NewItem } from './new-item.client';

/** Places that have a column each; with more of them, free stock stands in one cell. */
const MOST_COLUMNS = 6;

const views = [
  ['all', 'All'],
  ['mine', 'Mine'],
  ['to_complete', 'To complete'],
  ['no_supplier', 'Without a supplier'],
  ['phase_out', 'Phase-out'],
  ['stopped', 'Stopped'],
] as const;

export type ItemQuery = {
  readonly q: string;
  readonly at: string;
  readonly sort: ItemSort;
  readonly view: string;
  readonly category: string;
  readonly supplier: string;
  readonly cols: string;
};

/** The address of the list with something else asked for; what is empty or usual is left out. */
export function itemsHref(query: ItemQuery, change: Partial<ItemQuery> = {}): string {
  const { sort, view, ...rest } = { ...query, ...change };
  const given = Object.entries({ ...rest, sort: sort === 'name' ? '' : sort, view: view === 'all' ? '' : view }).filter(
    ([, v]) => v !== '',
  );
  return given.length === 0 ? '/items' : `/items?${new URLSearchParams(given)}`;
}

/** Items with what is free at each place, on hand, coming, worth and open. */
export function ItemList(props: {
  head: ItemListHead;
  first: readonly ItemSummary[];
  places: readonly { readonly id: number; readonly name: string }[];
  one: boolean;
  query: ItemQuery;
  saved: readonly ViewLink[];
  /** Fields of an item and what can be chosen in them; null for whoever may not change any. */
  fields: RecordsView | null;
  patterns: readonly string[];
  categories: readonly string[];
}) {
  const { head, query, one, fields } = props;
  const format = useFormat();
  const router = useRouter();
  const view = useGridView('items', head, props.first, { idOf: (r) => r.item.id });
  const [marked, setMarked] = useState<ReadonlySet<number>>(new Set());
  const chosen = columnsFrom(query.cols);
  const atPlaces = !one && props.places.length <= MOST_COLUMNS && !chosen.includes('free') ? props.places : [];
  const rowHeight = (width: number) => (width < 768 && !one ? 92 : twoLines(width));
  const mark = (id: number) => {
    const next = new Set(marked);
    if (!next.delete(id)) next.add(id);
    setMarked(next);
  };
  const onKey = (event: KeyboardEvent, row: ItemSummary) => {
    if (event.target !== event.currentTarget) return;
    if (event.key === 'Enter') {
      event.preventDefault();
      router.push(`/items/${row.item.id}`);
    } else if (event.key === ' ' && fields) {
      event.preventDefault();
      mark(row.item.id);
    }
  };

  const shown = itemColumns.filter((c) => chosen.includes(c.key) && !(one && c.key === 'free'));
  const narrow = (key: string) => (key === 'on_hand' ? '' : 'max-md:hidden');
  const heads: Head[] = [
    { text: 'Item', sort: 'name' },
    ...(one ? [{ text: 'Stock', className: 'max-md:hidden' }] : []),
    ...atPlaces.map((l) => ({
      text: (
        <>
          Free at
          <br />
          {l.name}
        </>
      ),
      className: 'figure wrap max-md:hidden',
    })),
    ...shown.map((c) => ({
      text: c.title,
      className: `${c.figure ? 'figure' : ''} wrap ${narrow(c.key)}`,
      ...(c.sort ? { sort: c.sort, descending: true } : {}),
    })),
  ];
  const template = [
    'minmax(0, 34fr)',
    ...(one ? ['minmax(0, 22fr)'] : []),
    ...atPlaces.map(() => 'minmax(0, 10fr)'),
    ...shown.map((c) => c.width),
  ].join(' ');
  const line = (row: ItemSummary): Line => {
    const { item, gauge, byPlace } = row;
    return {
      label: `${marked.has(item.id) ? 'marked, ' : ''}${item.name}, ${item.number}, ${format.quantity(gauge.onHand)} ${plural(item.unitName, gauge.onHand)} on hand`,
      className: marked.has(item.id) ? 'marked' : '',
      cells: (
        <>
          <Cell className="min-w-0 leading-[1.12]">
            <Link className="name block" href={`/items/${item.id}`} tabIndex={-1} prefetch={false}>
              {item.name}
            </Link>
            <span className="code">{item.number}</span>
            {item.toComplete === 1 && <span className="marker ml-2">to complete</span>}
            {item.status !== 'active' && (
              <span className="marker ml-2">{item.status === 'stopped' ? 'stopped' : 'phase-out'}</span>
            )}
            {!one && (
              <span className="block pt-0.5 md:hidden">
                <FreeByPlace places={byPlace} format={format} />
              </span>
            )}
          </Cell>
          {one && (
            <Cell className="min-w-0 leading-tight max-md:hidden">
              <LevelStrip gauge={gauge} format={format} id={`i${item.id}`} />
              <span className="second">{gaugeWords(gauge, format)}</span>
            </Cell>
          )}
          {atPlaces.map((l) => {
            const free = byPlace.find((p) => p.name === l.name)?.free;
            return (
              <Cell key={l.id} className={`figure max-md:hidden ${free && free < 0 ? 'font-semibold text-stop' : ''}`}>
                {free === undefined ? '–' : format.quantity(free)}
              </Cell>
            );
          })}
          {shown.map((c) => (
            <Cell key={c.key} className={`min-w-0 leading-tight ${c.figure ? 'figure' : ''} ${narrow(c.key)}`}>
              {c.cell(row, { format, head })}
            </Cell>
          ))}
        </>
      ),
    };
  };
  const narrowed = query.q !== '' || query.view !== 'all' || query.category !== '' || query.supplier !== '';
  return (
    <WholeGrid>
      <ListBar title={countOf(head.count, 'item')} about={`stock worth ${format.money(head.value, head.currency)}`}>
        <ScanSaid text={view.said} code={view.unknown} />
        <label className="sr-only" htmlFor="items-view">
          Which items
        </label>
        <select
          id="items-view"
          className="entry ml-auto max-sm:ml-0"
          value={query.view}
          onChange={(e) => router.push(itemsHref(query, { view: e.target.value }))}
        >
          {views.map(([key, name]) => (
            <option key={key} value={key}>
              {key === 'to_complete' && head.toComplete > 0 ? `${name} (${head.toComplete})` : name}
            </option>
          ))}
        </select>
        {props.categories.length > 0 && (
          <>
            <label className="sr-only" htmlFor="items-category">
              Category
            </label>
            <select
              id="items-category"
              className="entry max-w-40"
              value={query.category}
              onChange={(e) => router.push(itemsHref(query, { category: e.target.value }))}
            >
              <option value="">All categories</option>
              {props.categories.map((c) => (
                <option key={c} value={c}>
                  {c}
                </option>
              ))}
            </select>
          </>
        )}
        <LiveSearch
          value={query.q}
          placeholder="name, number, barcode"
          label="Search items"
          hrefOf={(q) => itemsHref(query, { q })}
        />
        <ColumnChooser
          chosen={chosen}
          onChoose={(cols) => router.replace(itemsHref(query, { cols: cols.join(',') }))}
          one={one}
        />
        <SavedViews page="items" views={props.saved} query={itemsHref(query).split('?')[1] ?? ''} path="/items" />
        <ExportLinks of="Items" path={`/api/exports/items?list=${head.list}&cols=${chosen.join(',')}`} />
        {fields && <NewItem patterns={props.patterns} categories={props.categories} />}
        <KeysHelp
          keys={[
            ['↑ ↓', 'move'],
            ['Page ↑ ↓', 'move by a page'],
            ['Home, End', 'first, last'],
            ['Enter', 'open the item'],
            ...(fields ? ([['Space', 'mark, for changing many at once']] as const) : []),
            ['a scan', 'to the row of that item'],
          ]}
        />
      </ListBar>
      {fields && (
        <ManyBar
          marked={marked}
          list={head.list}
          count={head.count}
          narrowed={narrowed}
          view={fields}
          patterns={props.patterns}
          onClear={() => setMarked(new Set())}
        />
      )}
      {head.count === 0 ? (
        <Notice title={query.q ? `No item fits “${query.q}”` : narrowed ? 'No such item' : 'There is no item yet'}>
          {narrowed ? (
            <Link className="link" href="/items">
              Show all items
            </Link>
          ) : (
            <Link className="link" href="/sheets">
              Bring them as a spreadsheet
            </Link>
          )}
        </Notice>
      ) : (
        <Grid
          {...view.props}
          label="Items"
          rowHeight={rowHeight}
          columns="item-columns"
          style={{ '--template': template } as CSSProperties}
          sorted={{ by: query.sort, href: (sort) => itemsHref(query, { sort: sort as ItemSort }) }}
          heads={heads}
          line={line}
          onKey={onKey}
        />
      )}
    </WholeGrid>
  );
}

/** Which columns are shown. */
function ColumnChooser(props: { chosen: readonly string[]; one: boolean; onChoose: (keys: string[]) => void }) {
  const { chosen } = props;
  return (
    <details className="relative max-md:hidden">
      <summary className="chip flex cursor-pointer list-none items-center gap-1">
        <Columns3 className="size-3.5" aria-hidden="true" /> Columns
      </summary>
      <fieldset className="absolute right-0 z-20 mt-1 grid w-48 gap-1 rounded-sm border border-rule-strong bg-sheet p-3">
        <legend className="sr-only">Columns</legend>
        {itemColumns
          .filter((c) => !(props.one && c.key === 'free') && !(c.key === 'shelf' && !props.one))
          .map((c) => (
            <label key={c.key} className="flex items-center gap-2">
              <input
                type="checkbox"
                className="accent-action"
                checked={chosen.includes(c.key)}
                onChange={(e) =>
                  props.onChoose(e.target.checked ? [...chosen, c.key] : chosen.filter((k) => k !== c.key))
                }
              />
              {c.title}
            </label>
          ))}
      </fieldset>
    </details>
  );
}
