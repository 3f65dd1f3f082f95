import type { Metadata } from 'next';
import Link from 'next/link';
import { deps } from '@/app/_server/deps';
import { readInvitation } from '@/services/people/acceptInvitation';
import { Mark } from '@/ui/marks/mark';
import { InvitationForm } from '@/ui/welcome/invitation-form.client';

export const metadata: Metadata = { title: 'Set a password' };

export default async function Page({ params }: { params: Promise<{ token: string }> }) {
  const { token } = await params;
  const person = await readInvitation(deps(), token.slice(0, 80));
  return (
    <main className="grid min-h-screen place-items-center px-4">
      <div className="w-full max-w-xs">
        <h1 className="mb-4 flex items-center gap-2 text-lg font-semibold">
          <Mark /> Vorrat
        </h1>
        {person ? (
          <InvitationForm token={token} name={person.name} login={person.login} />
        ) : (
          <p>
            This link is not good any more: it was used, replaced by a newer one, or is too old. Ask the owner for
            another, or{' '}
            <Link className="link" href="/sign-in">
              sign in
            </Link>
            .
          </p>
        )}
      </div>
    </main>
  );
}
