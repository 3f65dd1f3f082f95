'use client';

import Link from 'next/link';
import type { MadeOrder } from '@/services/purchase/makeOrders';
import type { TrayView } from '@/services/purchase/readTrays';
import type { Spending } from '@/services/purchase/spending';
import { countOf } from '../format';
import { useFormat } from '../format-context.client';
import { Modal } from '../frame/modal.client';
import { becomesWords, nextWords } from './words';

/** What is about to be made of trays, and once it is made, what came of it. */
export function MakeWindow(props: {
  trays: readonly TrayView[];
  made: readonly MadeOrder[] | null;
  currency: string;
  spending: readonly Spending[];
  busy: boolean;
  sentence: string;
  onMake: () => void;
  onLeave: () => void;
}) {
  const { trays, made, currency } = props;
  const format = useFormat();
  const going = trays.filter((t) => !t.held);
  const orders = going.flatMap((t) => t.orders.map((o) => ({ tray: t, order: o })));
  const total = going.reduce((a, t) => a + (t.netInBase ?? 0), 0);
  const held = trays.filter((t) => t.held);
  const over = props.spending.filter((s) => s.left < 0);
  const name = (n: number) => (n === 1 ? 'Make the order' : `Make ${n} orders`);
  const head = 'second text-left font-normal';
  return (
    <Modal title={made ? 'Orders made' : 'Make orders'} width="w-[760px]" onLeave={props.onLeave}>
      <div className="grid gap-3 p-5">
        <h2 className="text-[15px] font-semibold">{made ? 'Made' : 'What will be made'}</h2>
        {made ? (
          <table className="w-full" aria-label="Orders made">
            <tbody>
              {made.map((m) => (
                <tr key={m.orderId} className="border-rule border-t">
                  <td className="py-1.5">
                    <Link className="link" href={`/orders/${m.orderId}`}>
                      {m.supplier}
                    </Link>
                  </td>
                  <td>{m.joined ? 'added to the draft' : 'a new draft'}</td>
                  <td>{countOf(m.lines, 'line')}</td>
                  <td className="second">{nextWords(m)}</td>
                  <td className="figure font-semibold">{format.money(m.net, m.currency)}</td>
                </tr>
              ))}
            </tbody>
          </table>
        ) : (
          <table className="w-full" aria-label="Orders to be made">
            <thead>
              <tr>
                <th className={head}>Supplier</th>
                <th className={head}>Becomes</th>
                <th className={head}>For</th>
                <th className={head}>Here on</th>
                <th className="second figure font-normal">Net</th>
              </tr>
            </thead>
            <tbody>
              {orders.map(({ tray: t, order: o }) => (
                <tr key={`${t.supplierId}/${o.places.join()}`} className="border-rule border-t align-baseline">
                  <td className="py-1.5">
                    {t.supplier}
                    {t.orderMinimum > t.net && (
                      <span className="block text-[11.5px] text-attention">
                        {format.amount(t.orderMinimum - t.net, t.currency)} below its minimum
                      </span>
                    )}
                    {t.blocked && <span className="fault block">blocked</span>}
                  </td>
                  <td>{becomesWords(o, format)}</td>
                  <td>
                    {o.places.join(', ')} <span className="second">{countOf(o.lines, 'line')}</span>
                  </td>
                  <td>{format.date(o.arrives)}</td>
                  <td className="figure font-semibold">{format.money(o.net, t.currency)}</td>
                </tr>
              ))}
              <tr className="border-ink border-t">
                <td className="py-1.5 font-semibold" colSpan={4}>
                  Together
                </td>
                <td className="figure font-semibold">{format.money(total, currency)}</td>
              </tr>
            </tbody>
          </table>
        )}
        {!made && held.length > 0 && (
          <p className="second">Held back, and stays: {held.map((t) => t.supplier).join(', ')}.</p>
        )}
        {!made &&
          over.map((s) => (
            <p key={s.category ?? ''} className="text-attention">
              {s.category ?? 'All goods'}: {format.money(-s.left, currency)} over the budget of this month.
            </p>
          ))}
        {props.sentence && (
          <p className="fault" role="alert">
            {props.sentence}
          </p>
        )}
        <div className="flex items-center gap-3">
          {made ? (
            <>
              <Link className="btn btn-primary" href="/orders">
                To the orders
              </Link>
              <button type="button" className="btn" onClick={props.onLeave}>
                Close
              </button>
            </>
          ) : (
            <>
              <button
                type="button"
                className="btn btn-primary"
                disabled={props.busy || orders.length === 0}
                onClick={props.onMake}
              >
                {name(orders.length)}
              </button>
              <button type="button" className="btn" onClick={props.onLeave}>
                Leave them here
              </button>
              <span className="second">Drafts: nothing is sent, and it can be undone until then.</span>
            </>
          )}
        </div>
      </div>
    </Modal>
  );
}
