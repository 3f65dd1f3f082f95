import type { Metadata } from 'next';
import { deps } from '@/app/_server/deps';
import { choiceOf, frameOf, placeOf, requestFormat, type SearchParams, shown, text } from '@/app/_server/page';
import { openPromises, promiseShows, promiseSorts, readPromiseRows } from '@/services/promise/readPromises';
import { readViews } from '@/services/views/readViews';
import { Refused } from '@/ui/frame/refused';
import { PromiseList } from '@/ui/promises/promise-list.client';

export const metadata: Metadata = { title: 'Promises' };

export default async function PromisesPage({ searchParams }: { searchParams: SearchParams }) {
  const params = await searchParams;
  const { actor } = await frameOf();
  const item = Number(text(params.item));
  const asked = {
    show: choiceOf(promiseShows, params.show),
    sort: choiceOf(promiseSorts, params.sort),
    search: text(params.q).slice(0, 100),
    locationId: await placeOf(params),
    itemId: Number.isInteger(item) && item > 0 ? item : null,
  };
  const { value: head, failure } = shown(await openPromises(deps(), actor, asked));
  if (failure) return <Refused failure={failure} format={await requestFormat()} />;
  const { value: page } = shown(await readPromiseRows(deps(), actor, { list: head.list, from: 0 }));
  const { value: views } = shown(await readViews(deps(), actor, 'promises'));
  return (
    <PromiseList
      head={head}
      first={page?.rows ?? []}
      query={{ q: asked.search, at: text(params.at), show: asked.show, sort: asked.sort, item: text(params.item) }}
      views={views ?? []}
    />
  );
}
