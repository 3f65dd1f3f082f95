import { download, fileAnswer, typeOf } from '@/app/_server/download';
import { refuse } from '@/app/_server/respond';
import { templateCsv, templateXlsx } from '@/formats/writeSheet';
import { readTemplate } from '@/services/sheets/readTemplate';

/** An empty template with remarks, as CSV or XLSX. */
export const GET = (request: Request, { params }: { params: Promise<{ kind: string }> }) =>
  download(async (actor) => {
    const template = readTemplate(actor, (await params).kind);
    if (!template.ok) return refuse(template.error);
    const { title, columns } = template.value;
    const type = typeOf(request);
    return fileAnswer(`${title} template`, type, type === 'csv' ? templateCsv(columns) : await templateXlsx(columns));
  });
