import type { Metadata } from 'next';
import { askedMovements } from '@/app/_server/askedMovements';
import { deps } from '@/app/_server/deps';
import { frameOf, placeOf, requestFormat, type SearchParams, shown, text } from '@/app/_server/page';
import { readMovements } from '@/services/stock/readMovements';
import { Refused } from '@/ui/frame/refused';
import { MovementsPage } from '@/ui/stock/movements-page';
import { TakeSales } from '@/ui/stock/take-sales.client';

export const metadata: Metadata = { title: 'Movements' };

export default async function Page({ searchParams }: { searchParams: SearchParams }) {
  const params = await searchParams;
  const { actor } = await frameOf();
  const format = await requestFormat();
  const asked = askedMovements((name) => text(params[name]), await placeOf(params));
  const { value, failure } = shown(await readMovements(deps(), actor, asked));
  if (failure) return <Refused failure={failure} format={format} />;
  return (
    <MovementsPage
      view={value}
      asked={asked}
      at={text(params.at)}
      format={format}
      takeSales={<TakeSales there={value.till} today={value.today} />}
    />
  );
}
