import type { ReactNode } from 'react';
import { StockNav } from '@/ui/stock/stock-nav.client';

export default function StockLayout({ children }: { children: ReactNode }) {
  return (
    <div className="flex min-h-0 flex-1 flex-col">
      <StockNav />
      {children}
    </div>
  );
}
