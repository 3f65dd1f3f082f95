import type { Metadata } from 'next';
import { deps } from '@/app/_server/deps';
import { choiceOf, frameOf, placeOf, requestFormat, type SearchParams, shown, text } from '@/app/_server/page';
import { openPolicies, policySorts, readPolicyLines } from '@/services/planning/readPolicies';
import { Refused } from '@/ui/frame/refused';
import { PolicySheet } from '@/ui/policies/policy-sheet.client';

export const metadata: Metadata = { title: 'Policies' };

export default async function PoliciesPage({ searchParams }: { searchParams: SearchParams }) {
  const params = await searchParams;
  const { actor } = await frameOf();
  const search = text(params.q).slice(0, 100);
  const locationId = await placeOf(params);
  const sort = choiceOf(policySorts, params.sort);
  const { value: head, failure } = shown(await openPolicies(deps(), actor, { search, locationId, sort }));
  if (failure) return <Refused failure={failure} format={await requestFormat()} />;
  const { value: page } = shown(await readPolicyLines(deps(), actor, { list: head.list, from: 0 }));
  // A new search or place is a new sheet; the same one opened again keeps what is being typed.
  const sheet = `${search}/${locationId}/${sort}`;
  return (
    <PolicySheet key={sheet} head={head} first={page?.rows ?? []} search={search} at={text(params.at)} sort={sort} />
  );
}
