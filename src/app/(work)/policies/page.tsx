import type { Metadata } from 'next';
import { deps } from '@/app/_server/deps';
import { choiceOf, frameOf, placeOf, requestFormat, type SearchParams, shown, text } from '@/app/_server/page';
import {
  openPolicies,
  policyClasses,
  policyShows,
  policySorts,
  readPolicyLines,
} from '@/services/planning/readPolicies';
import { readPolicyChoices } from '@/services/planning/readPolicyChoices';
import { readViews } from '@/services/views/readViews';
import { Refused } from '@/ui/frame/refused';
import { PolicySheet } from '@/ui/policies/policy-sheet.client';

export const metadata: Metadata = { title: 'Policies' };

export default async function PoliciesPage({ searchParams }: { searchParams: SearchParams }) {
  const params = await searchParams;
  const { actor } = await frameOf();
  const asked = {
    search: text(params.q).slice(0, 100),
    locationId: await placeOf(params),
    sort: choiceOf(policySorts, params.sort),
    category: text(params.category).slice(0, 250),
    supplier: text(params.supplier).slice(0, 20),
    maker: text(params.maker).slice(0, 120),
    buyerId: Number(text(params.buyer)) || null,
    show: choiceOf(policyShows, params.show),
    abcXyz: choiceOf(policyClasses, params.cls),
  };
  const { value: head, failure } = shown(await openPolicies(deps(), actor, asked));
  if (failure) return <Refused failure={failure} format={await requestFormat()} />;
  const { value: page } = shown(await readPolicyLines(deps(), actor, { list: head.list, from: 0 }));
  const { value: choices } = shown(await readPolicyChoices(deps(), actor));
  const { value: saved } = shown(await readViews(deps(), actor, 'policies'));
  const query = {
    ...{ q: asked.search, at: text(params.at), sort: asked.sort, category: asked.category, supplier: asked.supplier },
    ...{
      maker: asked.maker,
      show: asked.show,
      cls: asked.abcXyz,
      buyer: asked.buyerId === null ? '' : String(asked.buyerId),
    },
  };
  return (
    // Another search or place is another sheet; the same one opened again keeps what is being typed.
    <PolicySheet
      key={JSON.stringify(query)}
      head={head}
      first={page?.rows ?? []}
      query={query}
      categories={choices?.categories ?? []}
      suppliers={choices?.suppliers ?? []}
      makers={choices?.makers ?? []}
      buyers={choices?.buyers ?? []}
      saved={saved ?? []}
    />
  );
}
