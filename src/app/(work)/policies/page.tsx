import type { Metadata } from 'next';
import { deps } from '@/app/_server/deps';
import { frameOf, placeOf, requestFormat, type SearchParams, shown, text } from '@/app/_server/page';
import { readPolicies } from '@/services/planning/readPolicies';
import { Refused } from '@/ui/frame/refused';
import { PolicySheet } from '@/ui/policies/policy-sheet.client';

export const metadata: Metadata = { title: 'Policies' };

export default async function PoliciesPage({ searchParams }: { searchParams: SearchParams }) {
  const params = await searchParams;
  const { actor } = await frameOf();
  const search = text(params.q).slice(0, 100);
  const locationId = await placeOf(params);
  const { value, failure } = shown(await readPolicies(deps(), actor, { search, locationId }));
  if (failure) return <Refused failure={failure} format={await requestFormat()} />;
  return <PolicySheet {...value} search={search} at={text(params.at)} />;
}
