import type { Metadata } from 'next';
import { deps } from '@/app/_server/deps';
import { frameOf, requestFormat, shown } from '@/app/_server/page';
import { readLimitSettings } from '@/services/setup/setLimits';
import { Refused } from '@/ui/frame/refused';
import { LimitsPage } from '@/ui/setup/limits-page.client';

export const metadata: Metadata = { title: 'Limits' };

export default async function Page() {
  const { actor } = await frameOf();
  const { value, failure } = shown(await readLimitSettings(deps(), actor));
  if (failure) return <Refused failure={failure} format={await requestFormat()} />;
  return <LimitsPage view={value} key={JSON.stringify(value.typed)} />;
}
