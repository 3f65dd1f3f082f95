import type { Metadata } from 'next';
import { deps } from '@/app/_server/deps';
import { frameOf, requestFormat, shown } from '@/app/_server/page';
import { readBooks } from '@/services/cost/readBooks';
import { Refused } from '@/ui/frame/refused';
import { BooksPage } from '@/ui/setup/books-page.client';

export const metadata: Metadata = { title: 'Books' };

export default async function SetupPage() {
  const { actor } = await frameOf();
  const { value, failure } = shown(await readBooks(deps(), actor));
  if (failure) return <Refused failure={failure} format={await requestFormat()} />;
  return <BooksPage books={value} key={value.closedTo} />;
}
