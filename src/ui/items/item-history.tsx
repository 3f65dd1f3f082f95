import Link from 'next/link';
import { fromDecimal } from '@/core/quantity';
import type { Happening, ItemHistory } from '@/services/catalogue/readItemHistory';
import { type Format, plural } from '../format';
import { OrderLink } from '../orders/order-link.client';
import { ChangeWords } from '../setup/change-words';
import { ItemHead } from './item-head';
import { movementWords } from './words';

/** What happened to an item: changes, decisions, orders and movements on one line of time. */
export function ItemHistoryPage({ history, format }: { history: ItemHistory; format: Format }) {
  const { item, happenings } = history;
  return (
    <section className="min-h-0 flex-1 overflow-y-auto bg-sheet">
      <ItemHead item={item} here="/history" />
      {happenings.length === 0 && <p className="second px-4 py-6">Nothing has happened yet.</p>}
      <ol>
        {happenings.map(({ rank, what: h }) => {
          const day = h.at.slice(0, 10);
          const before = happenings[rank - 1]?.what.at.slice(0, 10);
          return (
            <li
              key={rank}
              className="grid grid-cols-[110px_24px_1fr_auto] items-baseline gap-x-2 px-4 py-1.5 max-sm:grid-cols-[80px_16px_1fr]"
            >
              <span className={day === before ? 'text-transparent' : 'font-semibold'} aria-hidden={day === before}>
                {format.date(day)} {day.slice(0, 4)}
              </span>
              <span className="grid h-full justify-items-center" aria-hidden="true">
                <span
                  className={`mt-1.5 size-[7px] rounded-full ${h.kind === 'moved' ? 'border border-ink bg-sheet' : 'bg-ink'}`}
                />
              </span>
              <span className="min-w-0 break-words">
                <Words of={h} format={format} unit={item.unitName} />
              </span>
              <span className="second max-sm:col-start-3">{h.who}</span>
            </li>
          );
        })}
      </ol>
    </section>
  );
}

function Words({ of: h, format, unit }: { of: Happening; format: Format; unit: string }) {
  switch (h.kind) {
    case 'changed':
      return <ChangeWords change={h.change} />;
    case 'ordered':
      return (
        <>
          ordered{' '}
          <Link className="link" href={`/orders/${h.orderId}`} prefetch={false}>
            {h.number ?? 'as a draft'}
          </Link>
          : {format.quantity(fromDecimal(h.packs))} {plural(h.packName, fromDecimal(h.packs))} from {h.supplier}
        </>
      );
    case 'decided':
      return (
        <>
          {h.took ? 'decided' : 'taken back'}: {format.quantity(fromDecimal(h.packs))} for {h.place}
          {h.supplier && ` from ${h.supplier}`}
        </>
      );
    case 'moved':
      return (
        <>
          {movementWords[h.what] ?? h.what} at {h.place}: {h.quantity > 0 ? '+' : ''}
          {format.quantity(h.quantity)} {plural(unit, h.quantity)}
          {h.document && (
            <>
              {' '}
              {h.orderId ? (
                <OrderLink id={h.orderId}>{h.document}</OrderLink>
              ) : (
                <span className="code">{h.document}</span>
              )}
            </>
          )}
        </>
      );
  }
}
