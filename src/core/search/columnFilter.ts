import { type BusinessDate, parseDate } from '@/core/calendar';
import { err, ok, type Result } from '@/core/result';

/** What a column of a list holds: text, a number (money in its units), a day, or yes and no. */
export type ColumnKind = 'text' | 'number' | 'date' | 'yes_no';
export type Columns = Readonly<Record<string, ColumnKind>>;
export type ColumnValues = Readonly<Record<string, string | number | boolean | null>>;

type Relation = ':' | '<' | '>';
type Term = { readonly column: string | null; readonly relation: Relation; readonly value: string | number | boolean };
export type ColumnFilter = readonly Term[];
export type ColumnFilterFault = {
  readonly kind: 'no_such_column' | 'not_for_column';
  readonly text: string;
  readonly columns: readonly string[];
};

/** One filter over any column: words that some text column has, and terms such as supplier:brind, net>100, expected<fri or
 *  place:"old mill"; all of them have to hold. ":" is contained in a text, is equal to a number or day; "<" and ">" leave the limit
 *  itself out. A day is typed as everywhere; it lands on a working day unless it is written in full.
 *  Errors: no_such_column with those there are, not_for_column (a number, day, yes or no was expected). */
export function parseColumnFilter(
  text: string,
  columns: Columns,
  today: BusinessDate,
): Result<ColumnFilter, ColumnFilterFault> {
  const terms: Term[] = [];
  for (const m of text.matchAll(/(?:([a-z]+)([:<>]))?("[^"]*"?|[^\s"]+)/gi)) {
    const column = m[1]?.toLowerCase() ?? null;
    const relation = (m[2] ?? ':') as Relation;
    const raw = (m[3] as string).replaceAll('"', '').trim();
    if (raw === '') continue;
    if (column === null) {
      terms.push({ column, relation, value: raw.toLowerCase() });
      continue;
    }
    const kind = Object.hasOwn(columns, column) ? columns[column] : undefined;
    const fault = (of: ColumnFilterFault['kind']) => err({ kind: of, text: m[0], columns: Object.keys(columns) });
    if (kind === undefined) return fault('no_such_column');
    const value = valueIn(kind, raw, today);
    if (value === null || (relation !== ':' && (kind === 'text' || kind === 'yes_no'))) return fault('not_for_column');
    terms.push({ column, relation, value });
  }
  return ok(terms);
}

function valueIn(kind: ColumnKind, raw: string, today: BusinessDate): string | number | boolean | null {
  switch (kind) {
    case 'text':
      return raw.toLowerCase();
    case 'number': {
      const n = Number(raw.replace(',', '.'));
      return Number.isFinite(n) ? n : null;
    }
    case 'yes_no':
      return /^(yes|y|no|n)$/i.test(raw) ? /^y/i.test(raw) : null;
    case 'date': {
      if (/^\d{4}-\d{2}-\d{2}$/.test(raw)) return raw;
      const day = parseDate(raw, today);
      return day.ok ? day.value : null;
    }
  }
}

/** Whether a row is what a filter asks for; a value that is not there fits no term. */
export function fitsColumns(filter: ColumnFilter, columns: Columns, values: ColumnValues): boolean {
  return filter.every(({ column, relation, value }) => {
    if (column === null)
      return Object.entries(columns).some(
        ([name, kind]) =>
          kind === 'text' &&
          String(values[name] ?? '')
            .toLowerCase()
            .includes(String(value)),
      );
    const own = values[column] ?? null;
    if (own === null) return false;
    if (columns[column] === 'text') return String(own).toLowerCase().includes(String(value));
    return relation === ':' ? own === value : relation === '<' ? own < value : own > value;
  });
}
