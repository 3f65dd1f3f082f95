'use client';

import Form from 'next/form';
import Link from 'next/link';
import { useRouter } from 'next/navigation';
import { type KeyboardEvent, useState } from 'react';
import { isDrafted, isOrdered } from '@/core/purchase';
import type { OrderListHead, OrderShow, OrderSort, OrderSummary } from '@/services/purchase/readOrders';
import type { ViewLink } from '@/services/views/readViews';
import { useCommand } from '../command/use-command.client';
import { countOf } from '../format';
import { useFormat } from '../format-context.client';
import { ExportLinks } from '../frame/export-links';
import { ListBar, WholeGrid } from '../frame/list';
import { Notice } from '../frame/states';
import { Cell, Grid, type Line, ScanSaid } from '../grid/grid.client';
import { KeysHelp } from '../grid/keys-help.client';
import { sortedBy, twoLines, useGridView } from '../grid/use-grid-view.client';
import { OrderTrack, orderWords } from '../marks/order-track';
import { useMay } from '../may-context.client';
import { SavedViews } from '../views/saved-views.client';
import { MarkedOrders } from './marked-orders.client';

const showWords: Readonly<Record<OrderShow, string>> = {
  open: 'Open',
  approve: 'To approve',
  unconfirmed: 'Not confirmed',
  late: 'Overdue',
  differs: 'Differs',
  ask: 'To ask',
  done: 'Done',
  all: 'All',
};

/** Purchase orders: those still to be worked on, what has to be done about them, those that are done. */
export function OrderList(props: {
  head: OrderListHead;
  first: readonly OrderSummary[];
  show: OrderShow;
  sort: OrderSort;
  search: string;
  views: readonly ViewLink[];
}) {
  const { head, show, sort, search } = props;
  const format = useFormat();
  const router = useRouter();
  const mayEdit = useMay('orders.edit');
  const [said, setSaid] = useState('');
  const [marked, setMarked] = useState<ReadonlyMap<number, OrderSummary>>(new Map());
  const view = useGridView('orders', head, props.first, { idOf: (o) => o.id });
  const { run, sentence } = useCommand();
  const href = (which: OrderShow) => sortedBy('/orders', { show: which === 'open' ? '' : which, q: search });
  const onKey = (event: KeyboardEvent, o: OrderSummary) => {
    if (event.target !== event.currentTarget) return;
    if (event.key === 'Enter') {
      event.preventDefault();
      router.push(`/orders/${o.id}`);
    } else if (event.key === ' ' && mayEdit) {
      event.preventDefault();
      const next = new Map(marked);
      if (!next.delete(o.id)) next.set(o.id, o);
      setMarked(next);
    } else if (event.key === 'm' && mayEdit && isOrdered(o.state)) {
      event.preventDefault();
      remind(o);
    }
  };
  const remind = async (o: OrderSummary) => {
    const outcome = await run<{ to: string; next: string }>('remind-supplier', { orderId: o.id });
    if (outcome.ok)
      setSaid(`${o.supplier} is asked about ${o.number} by mail, and again on ${format.date(outcome.value.next)}.`);
  };
  const part = (o: OrderSummary, minor: number) => (minor === 0 ? '–' : format.amount(minor, o.currency));
  const line = (o: OrderSummary): Line => {
    const due = o.nextDate && format.due(o.nextDate, head.today);
    const live = isOrdered(o.state);
    const next =
      !due || !(live || isDrafted(o.state))
        ? o.lastCame
          ? `came ${format.date(o.lastCame)}`
          : '–'
        : live
          ? due.text
          : format.date(o.nextDate as string);
    const stands = orderWords(o.state, o.came);
    return {
      className: marked.has(o.id) ? 'marked' : '',
      label: `${marked.has(o.id) ? 'marked, ' : ''}${o.number ?? 'draft'}, ${o.supplier}, ${stands}, next expected ${next}, ${format.amount(o.net, o.currency)}`,
      cells: (
        <>
          <Cell className="min-w-0">
            <Link className="name" href={`/orders/${o.id}`} tabIndex={-1} prefetch={false}>
              {o.number ?? 'draft'}
            </Link>
            <span className="second block sm:hidden">{o.supplier}</span>
          </Cell>
          <Cell className="min-w-0 leading-tight max-sm:hidden">{o.supplier}</Cell>
          <Cell className="leading-tight">
            <OrderTrack state={o.state} before={o.before} came={o.came} differs={o.differs} />
            <span className="second mt-1 block">{stands}</span>
          </Cell>
          <Cell className="max-md:hidden">{format.date(o.orderDate)}</Cell>
          <Cell
            className={`leading-tight max-sm:hidden ${due && due.late > 0 && live ? 'font-semibold text-stop' : ''}`}
          >
            {next}
          </Cell>
          <Cell className="min-w-0 leading-tight max-md:hidden">{o.places}</Cell>
          <Cell className="figure max-lg:hidden">{part(o, o.confirmed)}</Cell>
          <Cell className="figure max-lg:hidden">{part(o, o.received)}</Cell>
          <Cell className="figure max-lg:hidden">{isOrdered(o.state) ? part(o, o.open) : '–'}</Cell>
          <Cell className="figure leading-tight">
            <span className="font-semibold">{format.amount(o.net, o.currency)}</span>
            {o.currency !== head.currency && <span className="second block">{o.currency}</span>}
          </Cell>
        </>
      ),
    };
  };
  return (
    <WholeGrid>
      <ListBar title={countOf(head.count, 'order')} about={`${format.money(head.net, head.currency)} net`}>
        <nav aria-label="Which orders" className="ml-auto flex flex-wrap items-center gap-2">
          <ScanSaid text={view.said} code={view.unknown} />
          {Object.entries(showWords).map(([which, words]) => (
            <Link key={which} className="chip" href={href(which as OrderShow)(sort)} aria-current={which === show}>
              {words}
            </Link>
          ))}
        </nav>
        <Form action="/orders" className="flex gap-2" role="search">
          {show !== 'open' && <input type="hidden" name="show" value={show} />}
          <input
            name="q"
            className="entry w-40"
            maxLength={200}
            defaultValue={search}
            placeholder="words, net>100"
            title={`words, or ${head.columns.join(', ')} with : < or >`}
            aria-label="Search orders"
          />
        </Form>
        {mayEdit && (
          <Link className="btn btn-primary" href="/orders/new">
            New order
          </Link>
        )}
        <SavedViews page="orders" path="/orders" query={href(show)(sort).split('?')[1] ?? ''} views={props.views} />
        <ExportLinks of="Orders" path={`/api/exports/orders?list=${head.list}`} />
        <KeysHelp
          keys={[
            ['↑ ↓', 'move'],
            ['Home, End', 'first, last'],
            ['Enter', 'open the order'],
            ...(mayEdit ? [['Space', 'mark, for approving or sending many'] as const] : []),
            ['words, column:value', `in the search: ${head.columns.join(', ')}`],
            ...(mayEdit ? [['m', 'ask the supplier by mail'] as const] : []),
            ['a scan', 'to the order of that number'],
          ]}
        />
      </ListBar>
      {head.fault && (
        <p className="fault px-4 py-1.5" role="alert">
          {head.fault.kind === 'no_such_column'
            ? `“${head.fault.text}” names no column. There are ${head.fault.columns.join(', ')}.`
            : `“${head.fault.text}” does not fit its column: text takes :, numbers and days take :, < and >.`}
        </p>
      )}
      <MarkedOrders orders={[...marked.values()]} onDone={() => setMarked(new Map())} />
      {(said || sentence) && (
        <p className={`px-4 py-1.5 ${sentence ? 'fault' : ''}`} role={sentence ? 'alert' : 'status'}>
          {sentence || said}
        </p>
      )}
      {head.count === 0 ? (
        <Notice title={show === 'open' && search === '' ? 'No order is open' : 'No order is like this'}>
          Drafts are made in{' '}
          <Link className="link" href="/trays">
            Trays
          </Link>
          .{' '}
          <Link className="link" href="/orders?show=all">
            All orders
          </Link>{' '}
          shows those that are done.
        </Notice>
      ) : (
        <Grid
          {...view.props}
          label="Orders"
          rowHeight={twoLines}
          columns="order-columns"
          sorted={{ by: sort, href: href(show) }}
          heads={[
            { text: 'Order', sort: 'number' },
            { text: 'Supplier', className: 'max-sm:hidden', sort: 'supplier' },
            { text: 'Stands at' },
            { text: 'Ordered', className: 'max-md:hidden', sort: 'newest', descending: true },
            { text: 'Next expected', className: 'max-sm:hidden' },
            { text: 'Goes to', className: 'max-md:hidden' },
            { text: 'Confirmed', className: 'figure max-lg:hidden' },
            { text: 'Received', className: 'figure max-lg:hidden' },
            { text: 'Open', className: 'figure max-lg:hidden' },
            { text: 'Net', className: 'figure' },
          ]}
          line={line}
          onKey={onKey}
        />
      )}
    </WholeGrid>
  );
}
