import type { ReactNode } from 'react';
import { frameOf } from '@/app/_server/page';
import { may } from '@/core/people';
import { SetupNav } from '@/ui/setup/setup-nav.client';

export default async function SetupLayout({ children }: { children: ReactNode }) {
  const { actor } = await frameOf();
  const can = (right: Parameters<typeof may>[1]) => may(actor, right).ok;
  return (
    <div className="flex min-h-0 flex-1 max-lg:flex-col">
      <SetupNav people={can('people.edit')} changes={can('changes.read')} />
      <div className="flex min-h-0 min-w-0 flex-1 flex-col">{children}</div>
    </div>
  );
}
