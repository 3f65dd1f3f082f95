import { err, ok, type Result } from '@/core/result';
import type { Cell } from '@/core/sheets';
import { type CsvShape, csvRows, csvShape } from './csv';
import { type FileFault, limits } from './fault';
import { readXlsx } from './xlsx';

/** A file as it was recognised, with its rows to go through as often as needed. */
export type OpenSheet = {
  readonly format: 'csv' | 'xlsx';
  readonly csv: CsvShape | null;
  /** Cells of a workbook that hold formulas; their saved values are taken. */
  readonly formulas: number;
  /** Rows that are not empty, each with its number in the file, the first being 1; some at a time. */
  readonly rows: () => AsyncGenerator<NumberedRow[]>;
};
export type NumberedRow = { readonly rowNo: number; readonly cells: readonly Cell[] };

const filled = (cells: readonly Cell[]) => cells.some((c) => typeof c === 'number' || c.trim() !== '');

/** Recognises a spreadsheet by what is in it, not by its name; a CSV file that was recognised before is not looked through
 *  again.
 *  Errors: FileFault. */
export async function openSheet(
  chunks: () => AsyncIterable<Uint8Array>,
  known: CsvShape | null = null,
): Promise<Result<OpenSheet, FileFault>> {
  let head = Buffer.alloc(0);
  for await (const chunk of chunks()) {
    head = Buffer.concat([head, chunk.subarray(0, 8)]);
    if (head.length >= 8) break;
  }
  if (head.length === 0) return err({ kind: 'empty' });
  const packed = head.subarray(0, 4).equals(Buffer.from('PK\u0003\u0004', 'latin1'));
  const container = head.subarray(0, 4).equals(Buffer.from([0xd0, 0xcf, 0x11, 0xe0]));
  if (!known && (packed || container)) {
    const all: Uint8Array[] = [];
    for await (const chunk of chunks()) all.push(chunk);
    const workbook = await readXlsx(Buffer.concat(all));
    if (!workbook.ok) return workbook;
    const { rows, formulas } = workbook.value;
    return ok({
      format: 'xlsx',
      csv: null,
      formulas,
      rows: async function* () {
        yield rows.map((cells, i) => ({ rowNo: i + 1, cells })).filter((r) => filled(r.cells));
      },
    });
  }
  const shape = known ? ok(known) : await csvShape(chunks);
  if (!shape.ok) return shape;
  return ok({
    format: 'csv',
    csv: shape.value,
    formulas: 0,
    rows: async function* () {
      let before = 0;
      for await (const some of csvRows(chunks, shape.value)) {
        const from = before;
        before += some.length;
        yield some.map((cells, i) => ({ rowNo: from + i + 1, cells })).filter((r) => filled(r.cells));
      }
    },
  });
}

/** A row of remarks under the heading, as templates have them: its first cell begins with a # and a space. */
const isRemark = (cells: readonly Cell[], behind: number) => behind <= 3 && String(cells[0] ?? '').startsWith('# ');

/** The rows under the heading, without the remarks of a template. */
export async function* dataRows(sheet: OpenSheet): AsyncGenerator<NumberedRow[]> {
  let heading: number | null = null;
  for await (const some of sheet.rows()) {
    const under = heading === null ? some.slice(1) : some;
    heading ??= some[0]?.rowNo ?? null;
    const at = heading;
    if (at !== null) yield under.filter((r) => !isRemark(r.cells, r.rowNo - at));
  }
}

/** The first row and some after it, how many there are in all. Empty columns at the end count for nothing.
 *  Errors: no_rows (only a heading or less), too_many_columns, too_many_rows. */
export async function surveySheet(
  sheet: OpenSheet,
  sampleRows: number,
): Promise<Result<{ headings: string[]; headingRow: number; sample: Cell[][]; rows: number }, FileFault>> {
  let headings: string[] | null = null;
  let headingRow = 0;
  const sample: Cell[][] = [];
  let rows = 0;
  for await (const { rowNo, cells } of each(sheet)) {
    const width = lastFilled(cells) + 1;
    if (width > limits.columns) return err({ kind: 'too_many_columns', columns: width, most: limits.columns });
    if (!headings) {
      headings = cells.slice(0, width).map((c) => String(c).trim());
      headingRow = rowNo;
      continue;
    }
    if (isRemark(cells, rowNo - headingRow)) continue;
    rows += 1;
    if (rows > limits.rows) return err({ kind: 'too_many_rows', most: limits.rows });
    if (sample.length < sampleRows) sample.push(cells.slice(0, width));
  }
  return headings && rows > 0 ? ok({ headings, headingRow, sample, rows }) : err({ kind: 'no_rows' });
}

async function* each(sheet: OpenSheet): AsyncGenerator<NumberedRow> {
  for await (const some of sheet.rows()) yield* some;
}

function lastFilled(cells: readonly Cell[]): number {
  let last = cells.length - 1;
  while (last >= 0 && typeof cells[last] === 'string' && (cells[last] as string).trim() === '') last -= 1;
  return last;
}
