import { createHash } from 'node:crypto';
import {
  type Cell,
  type Column,
  dateEvidence,
  decimalEvidence,
  type Mapping,
  type MarkEvidence,
  matchHeadings,
  type OrderEvidence,
  plainHeading,
} from '@/core/sheets';

/** What was found in a file before anything is read from it. */
export type FoundInFile = {
  readonly format: 'csv' | 'xlsx';
  readonly csv: { readonly encoding: string; readonly bom: boolean; readonly separator: string } | null;
  readonly formulas: number;
  readonly headings: readonly string[];
  readonly headingRow: number;
  readonly sample: readonly (readonly Cell[])[];
  readonly rows: number;
};

/** How a file is proposed to be read, and how sure that is. */
export type ProposedReading = {
  readonly mapping: Mapping;
  readonly decimal: MarkEvidence;
  readonly dates: OrderEvidence;
};

const texts = (found: FoundInFile, at: readonly number[]): string[] =>
  found.sample.flatMap((row) => at.flatMap((i) => (typeof row[i] === 'string' ? [row[i] as string] : [])));

/** The columns of a template in a file: as a file with these headings was mapped before, else by their headings; and what
 *  the cells of its number and date columns tell about how they are written. */
export function proposeReading(columns: readonly Column[], found: FoundInFile, known: Mapping | null): ProposedReading {
  const mapping = known ?? matchHeadings(columns, found.headings);
  const of = (kind: Column['kind']) =>
    mapping.flatMap((key, i) => (columns.some((c) => c.key === key && c.kind === kind) ? [i] : []));
  return {
    mapping,
    decimal: decimalEvidence(texts(found, of('number'))),
    dates: dateEvidence(texts(found, of('date'))),
  };
}

/** A name for the headings of a file, so that the next one with the same is mapped alike. */
export const headingsPrint = (headings: readonly string[]): string =>
  createHash('sha256').update(headings.map(plainHeading).join('\n')).digest('hex');
