'use client';

import Link from 'next/link';
import { useRouter } from 'next/navigation';
import { type KeyboardEvent, useState } from 'react';
import type { PromiseLine, PromisesHead } from '@/services/promise/readPromises';
import type { ViewLink } from '@/services/views/readViews';
import { countOf, plural } from '../format';
import { useFormat } from '../format-context.client';
import { ExportLinks } from '../frame/export-links';
import { ListBar } from '../frame/list';
import { LiveSearch } from '../frame/live-search.client';
import { ListAndPanel, Notice } from '../frame/states';
import { Cell, Grid, type Line, ScanSaid } from '../grid/grid.client';
import { KeysHelp } from '../grid/keys-help.client';
import { twoLines, useGridView } from '../grid/use-grid-view.client';
import { useMay } from '../may-context.client';
import { SavedViews } from '../views/saved-views.client';
import { PromisePanel } from './promise-panel';
import { ShortWindow } from './short-window.client';
import { coverWords, isBehind, lineWords, promiseWords, slackWords, wayWords } from './words';

export type PromiseQuery = {
  readonly q: string;
  readonly at: string;
  readonly show: string;
  readonly sort: string;
  readonly item: string;
};

/** The address of the list with something else asked for; what is empty or usual is left out. */
export function promisesHref(query: PromiseQuery, change: Partial<PromiseQuery> = {}): string {
  const { show, sort, ...rest } = { ...query, ...change };
  const given = Object.entries({
    ...rest,
    show: show === 'open' ? '' : show,
    sort: sort === 'ship_by' ? '' : sort,
  }).filter(([, v]) => v !== '');
  return given.length === 0 ? '/promises' : `/promises?${new URLSearchParams(given)}`;
}

const shows = [
  ['open', 'All open'],
  ['waiting', 'Waiting'],
  ['late', 'Late or not dated'],
  ['moved', 'Told another date'],
  ['ready', 'Ready now'],
  ['ended', 'Ended'],
] as const;

/** Customers who wait, line by line: what lies ready, what is short, what covers it and when. */
export function PromiseList(props: {
  head: PromisesHead;
  first: readonly PromiseLine[];
  query: PromiseQuery;
  views: readonly ViewLink[];
}) {
  const { head, query } = props;
  const format = useFormat();
  const router = useRouter();
  const mayEdit = useMay('promises.edit');
  const mayDecide = useMay('needs.decide');
  const [deciding, setDeciding] = useState(false);
  const view = useGridView('promises', head, props.first, { idOf: (r) => r.lineId });
  const chosen = view.rowAt(view.current);
  const onKey = (event: KeyboardEvent, row: PromiseLine) => {
    if (event.key !== 'Enter' || event.target !== event.currentTarget) return;
    event.preventDefault();
    router.push(`/promises/${row.orderId}`);
  };
  const line = (l: PromiseLine): Line => {
    const due = format.due(l.wanted, head.today);
    const behind = isBehind(l);
    return {
      label: `${l.customer}, ${l.order}, ${l.name}, ${format.quantity(l.open)} open, ${lineWords[l.state]}, wanted ${due.text}, ${promiseWords(l, format)}`,
      cells: (
        <>
          <Cell className="min-w-0 leading-[1.12]">
            <Link className="name block" href={`/promises/${l.orderId}`} tabIndex={-1} prefetch={false}>
              {l.customer}
            </Link>
            <span className="second">
              <span className="code">{l.order}</span>
              {l.reference && ` · ${l.reference}`}
            </span>
          </Cell>
          <Cell className="min-w-0 leading-[1.12]">
            <span className="block">{l.name}</span>
            <span className="second">
              <span className="code">{l.number}</span> · {l.location}
            </span>
          </Cell>
          <Cell className="leading-tight max-sm:hidden">
            <span className={due.late > 0 && l.open > 0 ? 'text-stop' : ''}>{format.date(l.wanted)}</span>
            <span className="second block">{wayWords[l.way]}</span>
          </Cell>
          <Cell className="figure">
            {format.quantity(l.open)} <span className="second">{plural(l.unit, l.open)}</span>
          </Cell>
          <Cell className="figure max-md:hidden">{l.ready > 0 ? format.quantity(l.ready) : '–'}</Cell>
          <Cell className={`figure ${l.short > 0 ? 'font-semibold' : ''}`}>
            {l.short > 0 ? format.quantity(l.short) : '–'}
          </Cell>
          <Cell className="min-w-0 leading-tight max-md:hidden">
            <span className="block">
              {l.backordered === 0 ? '–' : l.covers.map(coverWords).join(', ') || 'nothing yet'}
            </span>
            {l.moved && l.told && (
              <span className="second text-attention">told {l.told.date ? format.date(l.told.date) : 'no date'}</span>
            )}
          </Cell>
          <Cell className="leading-tight">
            <span className={behind ? 'font-semibold text-stop' : ''}>{promiseWords(l, format)}</span>
            <span className={`second block ${behind ? 'text-stop' : ''}`}>{slackWords(l, format)}</span>
          </Cell>
        </>
      ),
    };
  };
  return (
    <ListAndPanel
      label="What covers the line"
      fixed
      panel={chosen ? <PromisePanel line={chosen} /> : <p className="second">No line is chosen.</p>}
    >
      <ListBar title={countOf(head.count, 'line')} about={`of ${countOf(head.orders, 'order')}`}>
        <ScanSaid text={view.said} code={view.unknown} />
        {query.item !== '' && (
          <Link className="chip" href={promisesHref(query, { item: '' })}>
            one item only ×
          </Link>
        )}
        <span className="ml-auto max-sm:ml-0" />
        <SavedViews
          page="promises"
          path="/promises"
          query={promisesHref(query).split('?')[1] ?? ''}
          views={props.views}
        />
        <ExportLinks of="Promises" path={`/api/exports/promises?list=${head.list}`} />
        {mayEdit && (
          <Link className="btn btn-primary" href={`/promises/new${query.at ? `?at=${query.at}` : ''}`}>
            Take an order
          </Link>
        )}
        <KeysHelp
          keys={[
            ['↑ ↓', 'move'],
            ['Page ↑ ↓', 'move by a page'],
            ['Enter', 'open the order'],
            ['a scan', 'to the line of that item or order'],
          ]}
        />
      </ListBar>
      <div className="bar gap-2">
        <select
          className="entry max-w-44"
          aria-label="Which lines"
          value={query.show}
          onChange={(e) => router.push(promisesHref(query, { show: e.target.value }))}
        >
          {shows.map(([key, name]) => (
            <option key={key} value={key}>
              {name}
            </option>
          ))}
        </select>
        <LiveSearch
          value={query.q}
          placeholder="order, customer, item"
          label="Search customers’ orders"
          hrefOf={(q) => promisesHref(query, { q })}
        />
        {mayDecide && head.count > 0 && (
          <button type="button" className="chip ml-auto" onClick={() => setDeciding(true)}>
            Decide what is short
          </button>
        )}
      </div>
      {head.count === 0 ? (
        <Notice title={query.q ? `No line fits “${query.q}”` : 'Nobody waits here'}>
          Customers’ orders are taken here, come from the web shop or from a spreadsheet.{' '}
          <Link className="link" href="/promises">
            Show all that are open
          </Link>
        </Notice>
      ) : (
        <Grid
          {...view.props}
          label="Promises"
          rowHeight={twoLines}
          columns="promise-columns"
          sorted={{ by: query.sort, href: (sort) => promisesHref(query, { sort }) }}
          heads={[
            { text: 'Customer', sort: 'customer' },
            { text: 'Item', sort: 'item' },
            { text: 'Wanted', className: 'max-sm:hidden', sort: 'ship_by' },
            { text: 'Open', className: 'figure' },
            { text: 'Ready', className: 'figure max-md:hidden' },
            { text: 'Short', className: 'figure' },
            { text: 'Covered by', className: 'max-md:hidden' },
            { text: 'Promised' },
          ]}
          line={line}
          onKey={onKey}
        />
      )}
      {deciding && <ShortWindow list={head.list} onLeave={() => setDeciding(false)} />}
    </ListAndPanel>
  );
}
