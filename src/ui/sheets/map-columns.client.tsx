'use client';

import { type ReactNode, useState } from 'react';
import type { DateOrder, DecimalMark } from '@/core/sheets';
import type { ImportDetail } from '@/services/sheets/readImports';
import { ListAndPanel } from '../frame/states';

type Reading = NonNullable<ImportDetail['reading']>;
type Said = { readonly mapping: readonly (string | null)[]; readonly decimal: DecimalMark; readonly dates: DateOrder };

const separators: Readonly<Record<string, string>> = { ',': 'comma', ';': 'semicolon', '\t': 'tab', '|': 'bar' };
const marks: readonly (readonly [DecimalMark, string])[] = [
  ['.', 'point: 1234.5'],
  [',', 'comma: 1234,5'],
];
const orders: readonly (readonly [DateOrder, string])[] = [
  ['ymd', 'year, month, day: 2026-12-03'],
  ['dmy', 'day, month, year: 3.12.2026'],
  ['mdy', 'month, day, year: 12/3/2026'],
];

/** Why a way of writing is proposed, so that nothing is guessed silently. */
function because(
  certainty: 'sure' | 'torn' | 'open' | 'nothing_to_tell',
  example: string | null,
  what: string,
): string {
  if (certainty === 'sure') return example ? `“${example}” tells` : `every ${what} in the file tells`;
  if (certainty === 'torn') return `the file is not of one mind: look at “${example}”`;
  if (certainty === 'open') return `“${example}” could be either: please say`;
  return `no ${what} in the file needs it`;
}

/** Which column of a file is which, and how its numbers and dates are written; asked once per kind of file. */
export function MapColumns({
  detail,
  reading,
  head,
  fault,
  busy,
  onCheck,
  onCancel,
}: {
  detail: ImportDetail;
  reading: Reading;
  head: ReactNode;
  fault: string;
  busy: boolean;
  onCheck: (said: Said) => void;
  onCancel: () => void;
}) {
  const { found, proposed, known } = reading;
  const chosen = detail.chosen;
  const [mapping, setMapping] = useState<readonly (string | null)[]>(
    found.headings.map((_, i) => (chosen?.mapping ?? proposed.mapping)[i] ?? null),
  );
  // What could be either is not chosen for the person.
  const [decimal, setDecimal] = useState<DecimalMark | null>(
    chosen?.how.decimal ?? (proposed.decimal.certainty === 'open' ? null : proposed.decimal.mark),
  );
  const [dates, setDates] = useState<DateOrder | null>(
    chosen?.how.dates ?? (proposed.dates.certainty === 'open' ? null : proposed.dates.order),
  );
  const { columns } = detail;
  const missing = columns.filter((c) => c.required && !mapping.includes(c.key));
  const left = mapping.filter((k) => k === null).length;
  const has = (kind: string) => columns.some((c) => c.kind === kind && mapping.includes(c.key));
  const about =
    found.format === 'csv' && found.csv
      ? `CSV, ${found.csv.encoding}${found.csv.bom ? ' with byte order mark' : ''}, separated by ${separators[found.csv.separator] ?? found.csv.separator}`
      : `XLSX workbook${found.formulas > 0 ? `, ${found.formulas} formulas: the values it was saved with are taken` : ''}`;
  return (
    <ListAndPanel
      label="How the file is read"
      panel={
        <form
          className="grid gap-4"
          onSubmit={(e) => {
            e.preventDefault();
            onCheck({ mapping, decimal: decimal ?? '.', dates: dates ?? 'ymd' });
          }}
        >
          <section>
            <h2 className="head">The file</h2>
            <p>{about}.</p>
            <p>
              {found.rows} {found.rows === 1 ? 'row' : 'rows'} under the heading in row {found.headingRow}.
            </p>
            {known && <p>Its columns are mapped as the last time.</p>}
          </section>
          {has('number') && (
            <Choice
              label="Decimal mark"
              name="decimal"
              options={marks}
              value={decimal}
              onChange={setDecimal}
              why={because(proposed.decimal.certainty, proposed.decimal.example, 'number')}
              warn={proposed.decimal.certainty === 'open' || proposed.decimal.certainty === 'torn'}
            />
          )}
          {has('date') && (
            <Choice
              label="Dates"
              name="dates"
              options={orders}
              value={dates}
              onChange={setDates}
              why={because(proposed.dates.certainty, proposed.dates.example, 'date')}
              warn={proposed.dates.certainty === 'open' || proposed.dates.certainty === 'torn'}
            />
          )}
          <section>
            <h2 className="head">Still missing</h2>
            {missing.length === 0 ? (
              <p className="second">Nothing that a new row needs.</p>
            ) : (
              <ul className="grid gap-1">
                {missing.map((c) => (
                  <li key={c.key}>
                    <span className="font-semibold">{c.title}</span> <span className="second">{c.explain}</span>
                  </li>
                ))}
              </ul>
            )}
            {left > 0 && (
              <p className="second mt-2">
                {left} {left === 1 ? 'column of the file is' : 'columns of the file are'} left out.
              </p>
            )}
          </section>
          {fault && (
            <p className="fault" role="alert">
              {fault}
            </p>
          )}
          <div className="flex gap-3">
            <button type="submit" className="btn btn-primary" disabled={busy}>
              Check the rows
            </button>
            <button type="button" className="btn btn-outline" disabled={busy} onClick={onCancel}>
              Let it go
            </button>
          </div>
          <p className="second">Checking changes nothing: you see first what would.</p>
        </form>
      }
    >
      {head}
      <table className="sheet">
        <thead>
          <tr>
            <th className="w-1/4">Column of the file</th>
            <th className="max-sm:hidden">What stands there</th>
            <th className="w-56">Our column</th>
          </tr>
        </thead>
        <tbody>
          {found.headings.map((h, i) => (
            // biome-ignore lint/suspicious/noArrayIndexKey: columns of a file are known by their place.
            <tr key={i} className="one">
              <td>
                <span className={mapping[i] === null ? 'second' : 'name'}>{h || `column ${i + 1}`}</span>
              </td>
              <td className="second max-sm:hidden">
                {found.sample
                  .slice(0, 3)
                  .map((row) => String(row[i] ?? ''))
                  .filter((t) => t !== '')
                  .join(' · ')
                  .slice(0, 120) || '–'}
              </td>
              <td>
                <select
                  className="entry w-full"
                  aria-label={`${h || `column ${i + 1}`} is our`}
                  value={mapping[i] ?? ''}
                  onChange={(e) =>
                    setMapping(
                      mapping.map((k, n) => (n === i ? e.target.value || null : k === e.target.value ? null : k)),
                    )
                  }
                >
                  <option value="">left out</option>
                  {columns.map((c) => (
                    <option key={c.key} value={c.key}>
                      {c.title}
                      {c.required ? ' (needed)' : ''}
                    </option>
                  ))}
                </select>
              </td>
            </tr>
          ))}
        </tbody>
      </table>
    </ListAndPanel>
  );
}

function Choice<T extends string>(props: {
  label: string;
  name: string;
  options: readonly (readonly [T, string])[];
  value: T | null;
  onChange: (value: T) => void;
  why: string;
  warn: boolean;
}) {
  return (
    <fieldset>
      <legend className="head">{props.label}</legend>
      {props.options.map(([value, words]) => (
        <label key={value} className="flex min-h-7 items-center gap-2">
          <input
            type="radio"
            required
            name={props.name}
            checked={props.value === value}
            onChange={() => props.onChange(value)}
          />
          {words}
        </label>
      ))}
      <p className={props.warn ? 'font-semibold text-late' : 'second'}>{props.why}</p>
    </fieldset>
  );
}
