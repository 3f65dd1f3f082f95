import type { Metadata } from 'next';
import { deps } from '@/app/_server/deps';
import { frameOf, requestFormat, shown } from '@/app/_server/page';
import { readCompanyTerms } from '@/services/setup/readSetup';
import { Refused } from '@/ui/frame/refused';
import { CompanyPage } from '@/ui/setup/company-page.client';

export const metadata: Metadata = { title: 'Company' };

export default async function SetupPage() {
  const { actor } = await frameOf();
  const { value, failure } = shown(await readCompanyTerms(deps(), actor));
  if (failure) return <Refused failure={failure} format={await requestFormat()} />;
  return <CompanyPage terms={value.terms} may={value.may} key={JSON.stringify(value.terms)} />;
}
