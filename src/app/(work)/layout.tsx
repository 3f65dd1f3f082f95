import type { ReactNode } from 'react';
import { frameOf } from '@/app/_server/page';
import { rightsOfActor } from '@/core/people';
import { DatabaseUnavailable } from '@/data/errors';
import { CommandStrip } from '@/ui/command/command-strip.client';
import { SessionDialog } from '@/ui/command/session-dialog.client';
import { FormatProvider } from '@/ui/format-context.client';
import { DatabaseDown } from '@/ui/frame/states';
import { TopBar } from '@/ui/frame/top-bar.client';
import { MayProvider } from '@/ui/may-context.client';

export default async function WorkLayout({ children }: { children: ReactNode }) {
  const read = await frameOf().catch((e) => {
    if (e instanceof DatabaseUnavailable) return null;
    throw e;
  });
  if (!read) return <DatabaseDown />;
  const { actor, frame } = read;
  const { counts, locations } = frame;
  const body = (
    <MayProvider rights={rightsOfActor(actor)}>
      <div className="flex h-screen flex-col max-lg:h-auto max-lg:min-h-screen">
        <TopBar
          frame={{ counts, locations }}
          person={{ name: actor.name, initials: actor.initials, role: actor.role }}
        />
        <main className="flex min-h-0 flex-1 flex-col">{children}</main>
        <CommandStrip />
        <SessionDialog />
      </div>
    </MayProvider>
  );
  return actor.locale ? <FormatProvider locale={actor.locale}>{body}</FormatProvider> : body;
}
