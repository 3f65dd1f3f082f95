import type { Column, Value, Values } from './column';
import { serialDate } from './dates';
import type { Conventions, RowFault } from './faults';

/** Which column of a template each column of a file is; null = left out. */
export type Mapping = readonly (string | null)[];

/** A cell as it comes out of a file: text, or a number where the file says that it is one. */
export type Cell = string | number;

/** A number that a file gives as one, as plain text; what is not whole to 15 digits, as a spreadsheet keeps it. */
function plainNumber(n: number): string {
  const text = String(n);
  return /e/i.test(text) ? n.toFixed(10).replace(/\.?0+$/, '') : text;
}

/** What stands in a cell, without the space around it and without the apostrophe that an export puts before a text that a
 *  spreadsheet would take for a formula. A leading = that is not so marked is one. */
function cellText(raw: string): { text: string; formula: boolean } {
  // trim() takes no-break spaces and byte order marks as well.
  const text = raw.trim();
  if (/^'[=+\-@\t]/.test(text)) return { text: text.slice(1), formula: false };
  return { text, formula: text.startsWith('=') };
}

/** A date may come as the number of its day. */
const typed = (column: Column, n: number) => ({
  text: column.kind === 'date' && n > 1 && n < 110_000 ? serialDate(n) : plainNumber(n),
  formula: false,
});

/** Text that a spreadsheet would take for a formula, marked so that it does not; numbers stay numbers.
 *  Source: OWASP, "CSV Injection"; from memory.
 *  @example neutralised('=1+1')  // "'=1+1" */
export const neutralised = (text: string): string =>
  /^[=+@\t\r]/.test(text) || /^-(?![\d.,]+$)/.test(text) ? `'${text}` : text;

/** Reads rows of a file: what is the same for all of them is worked out once.
 *  Columns that are not in the file are not in the values; an empty cell is the column's empty value. Every faulty cell is
 *  named; the values of the others are there all the same. */
export class RowReader {
  private readonly mapped: readonly { readonly at: number; readonly column: Column }[];
  private readonly absent: readonly Column[];
  private readonly typedHow: Conventions;

  constructor(
    columns: readonly Column[],
    mapping: Mapping,
    private readonly how: Conventions,
  ) {
    const byKey = new Map(columns.map((c) => [c.key, c]));
    this.mapped = mapping.flatMap((key, at) => {
      const column = key === null ? undefined : byKey.get(key);
      return column ? [{ at, column }] : [];
    });
    this.absent = columns.filter((c) => c.required && !mapping.includes(c.key));
    // A number that a workbook gives as one is written by no convention.
    this.typedHow = { ...how, decimal: '.' };
  }

  read(cells: readonly Cell[]): { values: Values; faults: RowFault[] } {
    const values: Record<string, Value> = {};
    const faults: RowFault[] = [];
    for (const { at, column } of this.mapped) {
      const cell = cells[at] ?? '';
      const { text, formula } = typeof cell === 'number' ? typed(column, cell) : cellText(cell);
      if (formula) faults.push({ kind: 'formula', column: column.key, text });
      else if (text !== '') {
        const read = column.read(text, typeof cell === 'number' ? this.typedHow : this.how);
        if (read.ok) values[column.key] = read.value;
        else faults.push({ ...read.error, column: column.key, text });
      } else if (column.required) faults.push({ kind: 'missing', column: column.key, text });
      else values[column.key] = column.otherwise;
    }
    for (const c of this.absent) faults.push({ kind: 'missing', column: c.key, text: '' });
    return { values, faults };
  }
}

/** Reads one row. */
export const readRow = (columns: readonly Column[], mapping: Mapping, cells: readonly Cell[], how: Conventions) =>
  new RowReader(columns, mapping, how).read(cells);

/** The cells of a row as they stand in a file. */
export const writeRow = (columns: readonly Column[], values: Values, how: Conventions): string[] =>
  columns.map((c) => {
    const value = values[c.key] ?? null;
    if (value === null || value === '') return '';
    const text = c.write(value, how);
    return c.kind === 'text' ? neutralised(text) : text;
  });
