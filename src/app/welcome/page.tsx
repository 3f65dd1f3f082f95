import type { Metadata } from 'next';
import { redirect } from 'next/navigation';
import { deps } from '@/app/_server/deps';
import { type SearchParams, text } from '@/app/_server/page';
import { currencies } from '@/core/money';
import { readFounded } from '@/services/people/readFounded';
import { Mark } from '@/ui/marks/mark';
import { WelcomeForm } from '@/ui/welcome/welcome-form.client';

export const metadata: Metadata = { title: 'A new company' };

export default async function WelcomePage({ searchParams }: { searchParams: SearchParams }) {
  if (await readFounded(deps())) redirect('/sign-in');
  const { code } = await searchParams;
  return (
    <main className="mx-auto grid min-h-screen max-w-2xl content-center px-4 py-8">
      <h1 className="mb-1 flex items-center gap-2 text-lg font-semibold">
        <Mark /> Vorrat
      </h1>
      <p className="mb-6 text-muted">
        A new company begins with its name and its owner. Places, suppliers, items and stock come next, from
        spreadsheets.
      </p>
      <WelcomeForm code={text(code)} currencies={currencies} />
    </main>
  );
}
