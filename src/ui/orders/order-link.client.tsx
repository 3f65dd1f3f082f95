'use client';

import Link from 'next/link';
import type { ReactNode } from 'react';
import { useMay } from '../may-context.client';

/** The number of an order as the way to its page, for whoever may read orders; else just the number. */
export function OrderLink({ id, children }: { id: number; children: ReactNode }) {
  const mayRead = useMay('orders.read');
  if (!mayRead) return <span className="code">{children}</span>;
  return (
    <Link className="link" href={`/orders/${id}`} prefetch={false}>
      {children}
    </Link>
  );
}
