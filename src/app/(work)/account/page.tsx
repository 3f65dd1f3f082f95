import type { Metadata } from 'next';
import { frameOf } from '@/app/_server/page';
import { locales } from '@/services/people/setLocale';
import { AccountPage } from '@/ui/setup/account-page.client';

export const metadata: Metadata = { title: 'Your account' };

export default async function Page() {
  const { actor } = await frameOf();
  return <AccountPage name={actor.name} locale={actor.locale ?? ''} locales={locales} />;
}
