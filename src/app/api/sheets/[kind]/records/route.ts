import { deps } from '@/app/_server/deps';
import { download, fileAnswer, typeOf } from '@/app/_server/download';
import { refuse } from '@/app/_server/respond';
import { recordsCsv, recordsXlsx } from '@/formats/writeSheet';
import { readExport } from '@/services/sheets/readTemplate';

/** Everything on file of one kind, as CSV or XLSX: what imports again unchanged. */
export const GET = (request: Request, { params }: { params: Promise<{ kind: string }> }) =>
  download(async (actor) => {
    const found = await readExport(deps(), actor, (await params).kind);
    if (!found.ok) return refuse(found.error);
    const { title, columns, rows, today } = found.value;
    const type = typeOf(request);
    const content = type === 'csv' ? recordsCsv(columns, rows) : await recordsXlsx(columns, rows);
    return fileAnswer(`${title} ${today}`, type, content);
  });
