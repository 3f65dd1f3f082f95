import { deps } from '@/app/_server/deps';
import { download, fileAnswer } from '@/app/_server/download';
import { refuse } from '@/app/_server/respond';
import { writeCsv } from '@/formats/csv';
import { readFaultyRows } from '@/services/sheets/readImports';

/** The faulty rows of an import alone, under the headings of its file: to be mended and brought again. */
export const GET = (_request: Request, { params }: { params: Promise<{ id: string }> }) =>
  download(async (actor) => {
    const id = Number((await params).id);
    const found = await readFaultyRows(deps(), actor, Number.isSafeInteger(id) ? id : 0);
    if (!found.ok) return refuse(found.error);
    const { headings, rows, fileName } = found.value;
    async function* text() {
      yield writeCsv([headings]);
      for await (const page of rows) yield writeCsv(page, false);
    }
    return fileAnswer(`${fileName.replace(/\.\w+$/, '')} faulty rows`, 'csv', text());
  });
