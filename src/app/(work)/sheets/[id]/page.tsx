import type { Metadata } from 'next';
import { deps } from '@/app/_server/deps';
import { frameOf, idOf, requestFormat, shown } from '@/app/_server/page';
import { readImport } from '@/services/sheets/readImports';
import { Refused } from '@/ui/frame/refused';
import { ImportPage } from '@/ui/sheets/import-page.client';

export const metadata: Metadata = { title: 'Bring a spreadsheet' };

export default async function Import({ params }: { params: Promise<{ id: string }> }) {
  const { actor } = await frameOf();
  const importId = idOf((await params).id);
  const { value, failure } = shown(await readImport(deps(), actor, { importId, state: null, after: 0 }));
  if (failure) return <Refused failure={failure} format={await requestFormat()} />;
  return <ImportPage key={importId} first={value} />;
}
