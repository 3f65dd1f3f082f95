'use client';

import Link from 'next/link';
import { usePathname } from 'next/navigation';

const pages = [
  ['/stock', 'What is there'],
  ['/stock/movements', 'Movements'],
  ['/stock/transfers', 'Transfers'],
  ['/stock/counts', 'Counts'],
  ['/stock/lots', 'Lots'],
  ['/stock/movers', 'Fast and slow'],
  ['/stock/value', 'Value on a day'],
] as const;

/** The pages of Stock, as a line over them. */
export function StockNav() {
  const path = usePathname();
  return (
    <nav aria-label="Stock" className="flex flex-wrap gap-x-5 border-b border-rule-strong bg-paper px-4">
      {pages.map(([href, name]) => {
        const here = href === '/stock' ? path === href : path.startsWith(href);
        return (
          <Link
            key={href}
            href={href}
            aria-current={here ? 'page' : undefined}
            className={`py-2 ${here ? 'font-semibold shadow-[inset_0_-2px_0_var(--color-primary)]' : 'text-muted hover:text-ink'}`}
          >
            {name}
          </Link>
        );
      })}
    </nav>
  );
}
