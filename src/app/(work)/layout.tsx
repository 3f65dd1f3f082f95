import type { ReactNode } from 'react';
import { frameOf } from '@/app/_server/page';
import { DatabaseUnavailable } from '@/data/errors';
import { CommandStrip } from '@/ui/command/command-strip.client';
import { SessionDialog } from '@/ui/command/session-dialog.client';
import { DatabaseDown } from '@/ui/frame/states';
import { TopBar } from '@/ui/frame/top-bar.client';

export default async function WorkLayout({ children }: { children: ReactNode }) {
  const read = await frameOf().catch((e) => {
    if (e instanceof DatabaseUnavailable) return null;
    throw e;
  });
  if (!read) return <DatabaseDown />;
  const { actor, frame } = read;
  const { counts, stops, locations } = frame;
  return (
    <div className="flex h-screen flex-col max-lg:h-auto max-lg:min-h-screen">
      <TopBar
        frame={{ counts, stops, locations }}
        person={{ name: actor.name, initials: actor.initials, role: actor.role }}
      />
      <main className="flex min-h-0 flex-1 flex-col">{children}</main>
      <CommandStrip />
      <SessionDialog />
    </div>
  );
}
