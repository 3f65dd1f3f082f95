import type { Metadata } from 'next';
import { deps } from '@/app/_server/deps';
import { frameOf, shown } from '@/app/_server/page';
import { readAlertSettings } from '@/services/alerts/readAlerts';
import { locales } from '@/services/people/setLocale';
import { AccountPage } from '@/ui/setup/account-page.client';

export const metadata: Metadata = { title: 'Your account' };

export default async function Page() {
  const { actor } = await frameOf();
  const { value: alerts } = shown(await readAlertSettings(deps(), actor));
  return <AccountPage alerts={alerts} name={actor.name} locale={actor.locale ?? ''} locales={locales} />;
}
