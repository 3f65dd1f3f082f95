import type { Metadata } from 'next';
import { deps } from '@/app/_server/deps';
import { frameOf, requestFormat, shown } from '@/app/_server/page';
import { readAlerts } from '@/services/alerts/readAlerts';
import { AlertsPage } from '@/ui/alerts/alerts-page.client';
import { Refused } from '@/ui/frame/refused';

export const metadata: Metadata = { title: 'Alerts' };

export default async function Page() {
  const { actor } = await frameOf();
  const { value, failure } = shown(await readAlerts(deps(), actor));
  if (failure) return <Refused failure={failure} format={await requestFormat()} />;
  return <AlertsPage alerts={value} />;
}
