import Link from 'next/link';
import type { ReactNode } from 'react';
import type { ItemRow } from '@/data/repositories/catalogue';
import { plural } from '../format';
import { availabilityWords } from './columns';

const pages = [
  ['', 'Stock'],
  ['/file', 'On file'],
  ['/history', 'What happened'],
] as const;

/** The head of an item's pages: what it is, and the way from one of them to the next. */
export function ItemHead({
  item,
  here,
  children,
}: {
  item: ItemRow;
  here: (typeof pages)[number][0];
  children?: ReactNode;
}) {
  return (
    <div className="border-b border-rule bg-paper px-4 pt-2.5">
      <div className="flex flex-wrap items-start justify-between gap-3">
        <div className="min-w-0">
          <h1 className="text-[17px] font-semibold">{item.name}</h1>
          <p className="second">
            <span className="code">{item.number}</span> · {item.category} ·{' '}
            {item.stockKept === 1
              ? `kept in ${plural(item.unitName, 2_000_000)}`
              : availabilityWords(item.availability)}
            {item.status !== 'active' && (
              <span className="marker ml-2">{item.status === 'stopped' ? 'stopped' : 'phase-out'}</span>
            )}
            {item.toComplete === 1 && <span className="marker ml-2">to complete</span>}
          </p>
        </div>
        {children}
      </div>
      <nav aria-label="Pages of this item" className="tabs-line">
        {pages.map(([path, name]) => (
          <Link
            key={path}
            href={`/items/${item.id}${path}`}
            aria-current={path === here ? 'page' : undefined}
            prefetch={false}
          >
            {name}
          </Link>
        ))}
      </nav>
    </div>
  );
}
