import Link from 'next/link';
import type { ReactNode } from 'react';
import type { SupplierTerms } from '@/data/repositories/suppliers';

const pages = [
  ['', 'Prices and orders'],
  ['/file', 'On file'],
] as const;

/** The head of a supplier's pages. */
export function SupplierHead(props: { terms: SupplierTerms; here: (typeof pages)[number][0]; children?: ReactNode }) {
  const { terms } = props;
  return (
    <div className="border-b border-rule bg-paper px-4 pt-2.5">
      <div className="flex flex-wrap items-start justify-between gap-3">
        <div className="min-w-0">
          <h1 className="text-[17px] font-semibold">{terms.name}</h1>
          <p className="second">
            <span className="code">{terms.code}</span> · {terms.currency}
            {terms.status === 'blocked' && <span className="marker ml-2">blocked</span>}
          </p>
        </div>
        {props.children}
      </div>
      <nav aria-label="Pages of this supplier" className="tabs-line">
        {pages.map(([path, name]) => (
          <Link
            key={path}
            href={`/suppliers/${terms.id}${path}`}
            aria-current={path === props.here ? 'page' : undefined}
            prefetch={false}
          >
            {name}
          </Link>
        ))}
      </nav>
    </div>
  );
}
