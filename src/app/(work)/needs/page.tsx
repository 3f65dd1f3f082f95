import type { Metadata } from 'next';
import { deps } from '@/app/_server/deps';
import { choiceOf, frameOf, placeOf, requestFormat, type SearchParams, shown, text } from '@/app/_server/page';
import { needCauses } from '@/core/netting';
import { needOrders, needShows } from '@/services/planning/needList';
import { openNeeds, readNeedRows } from '@/services/planning/readNeeds';
import { readViews } from '@/services/views/readViews';
import { Refused } from '@/ui/frame/refused';
import { NeedsList } from '@/ui/needs/needs-list.client';
import type { NeedQuery } from '@/ui/needs/query';

export const metadata: Metadata = { title: 'Needs' };

export default async function NeedsPage({ searchParams }: { searchParams: SearchParams }) {
  const params = await searchParams;
  const { actor, frame } = await frameOf();
  const locationId = await placeOf(params);
  const query: NeedQuery = {
    at: text(params.at),
    q: text(params.q).slice(0, 100),
    show: choiceOf(needShows, params.show),
    cause: needCauses.find((c) => c === params.cause) ?? '',
    by: choiceOf(needOrders, params.by),
    mine: params.mine === '1',
  };
  const asked = { locationId, show: query.show, cause: query.cause || null, mine: query.mine, search: query.q };
  const { value: head, failure } = shown(await openNeeds(deps(), actor, { ...asked, order: query.by }));
  if (failure) return <Refused failure={failure} format={await requestFormat()} />;
  const { value: page } = shown(await readNeedRows(deps(), actor, { list: head.list, from: 0 }));
  const { value: views } = shown(await readViews(deps(), actor, 'needs'));
  return (
    <NeedsList
      key={locationId ?? 0}
      head={head}
      first={page?.rows ?? []}
      query={query}
      views={views ?? []}
      places={frame.locations.filter((l) => locationId === null || l.id === locationId)}
      aside={head.aside}
    />
  );
}
