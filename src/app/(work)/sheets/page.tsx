import type { Metadata } from 'next';
import { deps } from '@/app/_server/deps';
import { frameOf, requestFormat, shown } from '@/app/_server/page';
import { readImports } from '@/services/sheets/readImports';
import { Refused } from '@/ui/frame/refused';
import { SheetsPage } from '@/ui/sheets/sheets-page.client';

export const metadata: Metadata = { title: 'Spreadsheets' };

export default async function Sheets() {
  const { actor } = await frameOf();
  const { value, failure } = shown(await readImports(deps(), actor));
  if (failure) return <Refused failure={failure} format={await requestFormat()} />;
  return <SheetsPage {...value} />;
}
