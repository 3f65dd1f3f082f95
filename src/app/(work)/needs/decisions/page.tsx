import type { Metadata } from 'next';
import { deps } from '@/app/_server/deps';
import { choiceOf, frameOf, placeOf, requestFormat, type SearchParams, shown, text } from '@/app/_server/page';
import { decisionShows, openDecisions, readDecisionRows } from '@/services/planning/readDecisions';
import { Refused } from '@/ui/frame/refused';
import { DecisionList } from '@/ui/needs/decision-list.client';

export const metadata: Metadata = { title: 'Decisions' };

export default async function DecisionsPage({ searchParams }: { searchParams: SearchParams }) {
  const params = await searchParams;
  const { actor } = await frameOf();
  const item = Number(text(params.item));
  const asked = {
    show: choiceOf(decisionShows, params.show),
    search: text(params.q).slice(0, 100),
    locationId: await placeOf(params),
    itemId: Number.isInteger(item) && item > 0 ? item : null,
  };
  const { value: head, failure } = shown(await openDecisions(deps(), actor, asked));
  if (failure) return <Refused failure={failure} format={await requestFormat()} />;
  const { value: page } = shown(await readDecisionRows(deps(), actor, { list: head.list, from: 0 }));
  return (
    <DecisionList
      head={head}
      first={page?.rows ?? []}
      query={{ q: asked.search, at: text(params.at), show: asked.show, item: asked.itemId ? String(asked.itemId) : '' }}
    />
  );
}
