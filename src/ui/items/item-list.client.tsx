'use client';

import Link from 'next/link';
import { useRouter } from 'next/navigation';
import type { CSSProperties, KeyboardEvent } from 'react';
import type { ItemListHead, ItemSort, ItemSummary } from '@/services/catalogue/readItems';
import { countOf, plural } from '../format';
import { useFormat } from '../format-context.client';
import { ListBar, WholeGrid } from '../frame/list';
import { SearchForm } from '../frame/search-form';
import { Notice } from '../frame/states';
import { Cell, Grid, type Head, type Line, ScanSaid } from '../grid/grid.client';
import { KeysHelp } from '../grid/keys-help.client';
import { sortedBy, twoLines, useGridView } from '../grid/use-grid-view.client';
import { gaugeWords, LevelStrip } from '../marks/level-strip';
import { FreeByPlace } from './free-by-place';

/** Places that have a column each; with more of them, free stock stands in one cell. */
const MOST_COLUMNS = 6;

/** Items with what is free at each place, on hand, coming, worth and open. */
export function ItemList(props: {
  head: ItemListHead;
  first: readonly ItemSummary[];
  places: readonly { readonly id: number; readonly name: string }[];
  one: boolean;
  search: string;
  at: string;
  sort: ItemSort;
}) {
  const { head, search, sort, one } = props;
  const format = useFormat();
  const router = useRouter();
  const view = useGridView('items', head, props.first, { idOf: (r) => r.item.id });
  const columns = !one && props.places.length <= MOST_COLUMNS ? props.places : [];
  const rowHeight = (width: number) => (width < 768 && !one ? 92 : twoLines(width));
  const onKey = (event: KeyboardEvent, row: ItemSummary) => {
    if (event.key !== 'Enter' || event.target !== event.currentTarget) return;
    event.preventDefault();
    router.push(`/items/${row.item.id}`);
  };

  const heads: Head[] = [
    { text: 'Item', sort: 'name' },
    ...(columns.length === 0 ? [{ text: one ? 'Stock' : 'Free at each place', className: 'max-md:hidden' }] : []),
    ...columns.map((l) => ({
      text: (
        <>
          Free at
          <br />
          {l.name}
        </>
      ),
      className: 'figure wrap max-md:hidden',
    })),
    { text: 'On hand', className: 'figure' },
    { text: 'Coming', className: 'figure max-sm:hidden' },
    { text: 'Value', className: 'figure max-sm:hidden', sort: 'value', descending: true },
    { text: 'Bought from', className: 'max-md:hidden' },
    { text: 'List price each', className: 'figure wrap max-md:hidden' },
    { text: 'Needs', className: 'figure max-sm:hidden' },
  ];
  const line = ({ item, gauge, byPlace, value, supplier, each, openNeeds }: ItemSummary): Line => {
    const coming = gauge.coming + gauge.inTrays;
    const byPlaces = <FreeByPlace places={byPlace} format={format} />;
    return {
      label: `${item.name}, ${item.number}, ${format.quantity(gauge.onHand)} ${plural(item.unitName, gauge.onHand)} on hand`,
      cells: (
        <>
          <Cell className="min-w-0 leading-[1.12]">
            <Link className="name block" href={`/items/${item.id}`} tabIndex={-1} prefetch={false}>
              {item.name}
            </Link>
            <span className="code">{item.number}</span>
            {!one && <span className="block pt-0.5 md:hidden">{byPlaces}</span>}
          </Cell>
          {columns.length === 0 && (
            <Cell className="min-w-0 leading-tight max-md:hidden">
              {one ? (
                <>
                  <LevelStrip gauge={gauge} format={format} id={`i${item.id}`} />
                  <span className="second">{gaugeWords(gauge, format)}</span>
                </>
              ) : (
                byPlaces
              )}
            </Cell>
          )}
          {columns.map((l) => {
            const free = byPlace.find((p) => p.name === l.name)?.free;
            return (
              <Cell key={l.id} className={`figure max-md:hidden ${free && free < 0 ? 'font-semibold text-stop' : ''}`}>
                {free === undefined ? '–' : format.quantity(free)}
              </Cell>
            );
          })}
          <Cell className={`figure leading-tight font-semibold ${gauge.onHand < 0 ? 'text-stop' : ''}`}>
            {format.quantity(gauge.onHand)}
            <span className="second block font-normal">{plural(item.unitName, gauge.onHand)}</span>
          </Cell>
          <Cell className="figure max-sm:hidden">{coming === 0 ? '–' : format.quantity(coming)}</Cell>
          <Cell className="figure max-sm:hidden">{format.amount(value, head.currency)}</Cell>
          <Cell className="min-w-0 leading-tight max-md:hidden">
            {supplier ?? <span className="marker">no supplier</span>}
          </Cell>
          <Cell className="figure max-md:hidden">{each ?? '–'}</Cell>
          <Cell className="figure max-sm:hidden">{openNeeds === 0 ? '–' : openNeeds}</Cell>
        </>
      ),
    };
  };
  return (
    <WholeGrid>
      <ListBar title={countOf(head.count, 'item')} about={`stock worth ${format.money(head.value, head.currency)}`}>
        <ScanSaid text={view.said} />
        <SearchForm action="/items" search={search} at={props.at} />
        <KeysHelp
          keys={[
            ['↑ ↓', 'move'],
            ['Page ↑ ↓', 'move by a page'],
            ['Home, End', 'first, last'],
            ['Enter', 'open the item'],
            ['a scan', 'to the row of that item'],
          ]}
        />
      </ListBar>
      {head.count === 0 ? (
        <Notice title={search ? `No item has “${search}” in its name or number` : 'There is no item yet'}>
          <Link className="link" href="/items">
            Show all items
          </Link>
        </Notice>
      ) : (
        <Grid
          {...view.props}
          label="Items"
          rowHeight={rowHeight}
          columns={columns.length > 0 ? 'item-columns' : 'item-columns-one'}
          style={{ '--places': columns.length } as CSSProperties}
          sorted={{ by: sort, href: sortedBy('/items', { q: search, at: props.at }) }}
          heads={heads}
          line={line}
          onKey={onKey}
        />
      )}
    </WholeGrid>
  );
}
