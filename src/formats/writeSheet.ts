import writeXlsxFile from 'write-excel-file/node';
import { type Column, type Conventions, type Values, writeRow } from '@/core/sheets';
import { writeCsv } from './csv';

/** How our own files are written: decimal point, ISO dates. */
const ours: Conventions = { decimal: '.', dates: 'ymd' };

type XlsxCell = {
  value: string | number | Date;
  type: unknown;
  format?: string;
  fontWeight?: 'bold';
  wrap?: boolean;
} | null;

const exact = (text: string) => text.replace(/[-.]/g, '').replace(/^0+/, '').length <= 15;

/** A cell of a workbook: numbers and dates as such, so that a spreadsheet can reckon with them; figures of more than 15
 *  digits as text, because a spreadsheet would cut them. */
function xlsxCell(column: Column, text: string): XlsxCell {
  if (text === '') return null;
  if (column.kind === 'number' && /^-?\d+(\.\d+)?$/.test(text) && exact(text))
    return { value: Number(text), type: Number };
  if (column.kind === 'date') return { value: new Date(`${text}T00:00:00Z`), type: Date, format: 'yyyy-mm-dd' };
  return { value: text, type: String, format: '@' };
}

const headings = (columns: readonly Column[]): XlsxCell[] =>
  columns.map((c) => ({ value: c.title, type: String, fontWeight: 'bold' as const }));

const workbook = (columns: readonly Column[], rows: readonly XlsxCell[][]): Promise<Buffer> =>
  writeXlsxFile(
    rows as never,
    {
      columns: columns.map((c) => ({ width: Math.max(10, Math.min(40, c.title.length + 4)) })),
      stickyRowsCount: 1,
    } as never,
  ).toBuffer();

/** Remarks under the headings of a template: what each column is, and an example. They are skipped when it is read. */
const remarks = (columns: readonly Column[]): string[][] => [
  columns.map((c, i) => `${i === 0 ? '# ' : ''}${c.required ? 'needed. ' : ''}${c.explain}`),
  columns.map((c, i) => `${i === 0 ? '# for example: ' : ''}${c.example}`),
];

export const templateCsv = (columns: readonly Column[]): string =>
  writeCsv([columns.map((c) => c.title), ...remarks(columns)]);

export const templateXlsx = (columns: readonly Column[]): Promise<Buffer> =>
  workbook(columns, [
    headings(columns),
    ...remarks(columns).map((row) => row.map((value) => ({ value, type: String, wrap: true }))),
  ]);

/** Records as a CSV file, in pieces as they come. */
export async function* recordsCsv(columns: readonly Column[], pages: AsyncIterable<Values[]>): AsyncGenerator<string> {
  yield writeCsv([columns.map((c) => c.title)]);
  for await (const page of pages)
    yield writeCsv(
      page.map((v) => writeRow(columns, v, ours)),
      false,
    );
}

export async function recordsXlsx(columns: readonly Column[], pages: AsyncIterable<Values[]>): Promise<Buffer> {
  const rows: XlsxCell[][] = [headings(columns)];
  for await (const page of pages)
    for (const v of page) rows.push(writeRow(columns, v, ours).map((t, i) => xlsxCell(columns[i] as Column, t)));
  return workbook(columns, rows);
}
