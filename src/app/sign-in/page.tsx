import type { Metadata } from 'next';
import { redirect } from 'next/navigation';
import { deps } from '@/app/_server/deps';
import { ownPath } from '@/app/_server/ownPath';
import { type SearchParams, text } from '@/app/_server/page';
import { readFounded } from '@/services/people/readFounded';
import { SignInForm } from '@/ui/command/sign-in-form.client';
import { Mark } from '@/ui/marks/mark';

export const metadata: Metadata = { title: 'Sign in' };

export default async function SignInPage({ searchParams }: { searchParams: SearchParams }) {
  if (!(await readFounded(deps()))) redirect('/welcome');
  const next = text((await searchParams).next);
  return (
    <main className="grid min-h-screen place-items-center px-4">
      <div className="w-full max-w-xs">
        <h1 className="mb-6 flex items-center gap-2 text-lg font-semibold">
          <Mark /> Vorrat
        </h1>
        <SignInForm next={ownPath(next)} />
      </div>
    </main>
  );
}
