'use client';

import Link from 'next/link';
import { useRouter } from 'next/navigation';
import { type KeyboardEvent, useEffect, useRef, useState } from 'react';
import type { OrderListHead, OrderSort, OrderSummary } from '@/services/purchase/readOrders';
import { countOf } from '../format';
import { useFormat } from '../format-context.client';
import { ListBar, WholeGrid } from '../frame/list';
import { Notice } from '../frame/states';
import { Cell, Grid, type GridHandle, type Line } from '../grid/grid.client';
import { KeysHelp } from '../grid/keys-help.client';
import { usePages } from '../grid/use-pages.client';
import { useScanToRow } from '../grid/use-scan-to-row.client';
import { OrderTrack, orderWords } from '../marks/order-track';

const rowHeight = (width: number) => (width < 640 ? 62 : 44);

/** Purchase orders, those still to be worked on or all. */
export function OrderList(props: {
  head: OrderListHead;
  first: readonly OrderSummary[];
  all: boolean;
  sort: OrderSort;
}) {
  const { head, all, sort } = props;
  const format = useFormat();
  const router = useRouter();
  const { rowAt, show, gone } = usePages<OrderSummary>('orders', head, props.first);
  const [current, setCurrent] = useState(0);
  const grid = useRef<GridHandle>(null);
  const scan = useScanToRow('orders', head.list, (at) => grid.current?.focus(at));
  useEffect(() => {
    if (gone) router.refresh();
  }, [gone, router]);

  const href = (by: string, which = all) => `/orders?sort=${by}${which ? '&show=all' : ''}`;
  const onKey = (event: KeyboardEvent, o: OrderSummary) => {
    if (event.key !== 'Enter' || event.target !== event.currentTarget) return;
    event.preventDefault();
    router.push(`/orders/${o.id}`);
  };
  const line = (o: OrderSummary): Line => {
    const due = o.nextDate && format.due(o.nextDate, head.today);
    const live = o.state === 'approved' || o.state === 'sent';
    const next = !due || !(live || o.state === 'draft') ? '–' : live ? due.text : format.date(o.nextDate as string);
    const stands = orderWords(o.state, o.came);
    return {
      label: `${o.number ?? 'draft'}, ${o.supplier}, ${stands}, next expected ${next}, ${format.amount(o.net, o.currency)}`,
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
            <OrderTrack state={o.state} came={o.came} />
            <span className="second mt-1 block">{stands}</span>
          </Cell>
          <Cell className="max-md:hidden">{format.date(o.orderDate)}</Cell>
          <Cell
            className={`leading-tight max-sm:hidden ${due && due.late > 0 && live ? 'font-semibold text-stop' : ''}`}
          >
            {next}
          </Cell>
          <Cell className="min-w-0 leading-tight max-md:hidden">{o.places}</Cell>
          <Cell className="figure max-md:hidden">{o.lines}</Cell>
          <Cell className="figure font-semibold">{format.amount(o.net, o.currency)}</Cell>
        </>
      ),
    };
  };
  return (
    <WholeGrid>
      <ListBar title={countOf(head.count, 'order')} about={`${format.money(head.net, head.currency)} net`}>
        <nav aria-label="Which orders" className="ml-auto flex items-center gap-2">
          {scan.said && (
            <span className="fault" role="alert">
              {scan.said}
            </span>
          )}
          <Link className="chip" href={href(sort, false)} aria-current={!all}>
            Open
          </Link>
          <Link className="chip" href={href(sort, true)} aria-current={all}>
            All
          </Link>
        </nav>
        <KeysHelp
          keys={[
            ['↑ ↓', 'move'],
            ['Home, End', 'first, last'],
            ['Enter', 'open the order'],
            ['a scan', 'to the order of that number'],
          ]}
        />
      </ListBar>
      {head.count === 0 ? (
        <Notice title="No order is open">
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
          ref={grid}
          label="Orders"
          count={head.count}
          rowHeight={rowHeight}
          columns="order-columns"
          sorted={{ by: sort, href }}
          heads={[
            { text: 'Order', sort: 'number' },
            { text: 'Supplier', className: 'max-sm:hidden', sort: 'supplier' },
            { text: 'Stands at' },
            { text: 'Ordered', className: 'max-md:hidden', sort: 'newest' },
            { text: 'Next expected', className: 'max-sm:hidden' },
            { text: 'Goes to', className: 'max-md:hidden' },
            { text: 'Lines', className: 'figure max-md:hidden' },
            { text: 'Net', className: 'figure' },
          ]}
          rowAt={rowAt}
          onShow={show}
          line={line}
          current={current}
          onCurrent={setCurrent}
          onKey={onKey}
          onScan={scan.take}
        />
      )}
    </WholeGrid>
  );
}
