import type { Metadata } from 'next';
import Link from 'next/link';
import { deps } from '@/app/_server/deps';
import { frameOf, requestFormat, type SearchParams, shown, text } from '@/app/_server/page';
import { readOrders } from '@/services/purchase/readOrders';
import { countOf } from '@/ui/format';
import { ListBar, WholeList } from '@/ui/frame/list';
import { Refused } from '@/ui/frame/refused';
import { Notice } from '@/ui/frame/states';
import { OrderTrack, orderWords } from '@/ui/marks/order-track';

export const metadata: Metadata = { title: 'Orders' };

export default async function OrdersPage({ searchParams }: { searchParams: SearchParams }) {
  const { actor } = await frameOf();
  const format = await requestFormat();
  const all = text((await searchParams).show) === 'all';
  const { value, failure } = shown(await readOrders(deps(), actor, { all }));
  if (failure) return <Refused failure={failure} format={format} />;
  const { orders, today, currency } = value;
  const net = orders.reduce((sum, o) => sum + o.net, 0);
  return (
    <WholeList>
      <ListBar title={countOf(orders.length, 'order')} about={`${format.money(net, currency)} net`}>
        <nav aria-label="Which orders" className="ml-auto flex gap-2">
          <Link className="chip" href="/orders" aria-current={!all}>
            Open
          </Link>
          <Link className="chip" href="/orders?show=all" aria-current={all}>
            All
          </Link>
        </nav>
      </ListBar>
      {orders.length === 0 ? (
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
        <table className="sheet">
          <thead>
            <tr>
              <th>Order</th>
              <th>Supplier</th>
              <th>Stands at</th>
              <th>Ordered</th>
              <th>Next expected</th>
              <th>Goes to</th>
              <th className="figure">Lines</th>
              <th className="figure">Net</th>
            </tr>
          </thead>
          <tbody>
            {orders.map((o) => {
              const due = o.nextDate && format.due(o.nextDate, today);
              const live = o.state === 'approved' || o.state === 'sent';
              return (
                <tr key={o.id} className="two">
                  <td>
                    <Link className="name" href={`/orders/${o.id}`}>
                      {o.number ?? 'draft'}
                    </Link>
                  </td>
                  <td>{o.supplier}</td>
                  <td>
                    <OrderTrack state={o.state} came={o.came} />
                    <span className="second mt-1 block">{orderWords(o.state, o.came)}</span>
                  </td>
                  <td>{format.date(o.orderDate)}</td>
                  <td className={due && due.late > 0 && live ? 'font-semibold text-stop' : ''}>
                    {!due || !(live || o.state === 'draft') ? '–' : live ? due.text : format.date(o.nextDate as string)}
                  </td>
                  <td>{o.places}</td>
                  <td className="figure">{o.lines}</td>
                  <td className="figure font-semibold">{format.amount(o.net, o.currency)}</td>
                </tr>
              );
            })}
          </tbody>
        </table>
      )}
    </WholeList>
  );
}
