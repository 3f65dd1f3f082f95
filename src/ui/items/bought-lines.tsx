import Link from 'next/link';
import type { Bought } from '@/services/purchase/bought';
import { type Format, plural } from '../format';

/** Earlier purchases of an item, newest first. */
export function BoughtLines({ bought, format }: { bought: readonly Bought[]; format: Format }) {
  if (bought.length === 0) return <p className="second">Not bought before.</p>;
  return bought.map((b) => (
    <div key={b.orderId} className="grid grid-cols-[76px_1fr_auto] items-baseline py-[3px]">
      <Link prefetch={false} className="link" href={`/orders/${b.orderId}`}>
        {format.date(b.orderDate).split(' ').slice(1).join(' ')}
      </Link>
      <span>
        {b.supplier}, {format.quantity(b.packs)} {plural(b.packName, b.packs)}
      </span>
      <span className="figure font-semibold">{b.each ? `${b.each} ${b.currency}` : '–'}</span>
    </div>
  ));
}
