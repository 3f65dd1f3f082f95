import type { Actor } from '@/core/people';
import { err, ok, type Result } from '@/core/result';
import type { Conventions } from '@/core/sheets';
import { recordChanges } from '@/data/repositories/bookkeeping';
import { readItemNumbers } from '@/data/repositories/catalogue';
import { insertImport, insertPiece, updateImport } from '@/data/repositories/imports';
import { insertJob } from '@/data/repositories/jobs';
import { readList } from '@/data/repositories/lists';
import { readPatternRecords } from '@/data/repositories/sheets/terms';
import type { Tx } from '@/data/sql';
import { command, type Request } from '../command';
import type { Deps } from '../deps';
import type { Failure } from '../failure';
import { sheetKinds } from './kinds';
import { maySheet } from './lockOwn';
import { type SheetKind, text } from './sheetKind';
import type { KeptReading } from './steps';

/** What many items get: a value in one column, or the packs of a pattern. `ids` null means the whole open list. */
export type ChangeMany = {
  readonly list: string;
  readonly ids: readonly number[] | null;
  readonly decimal: Conventions['decimal'];
  readonly change:
    | { readonly kind: 'field'; readonly column: string; readonly text: string }
    | { readonly kind: 'pattern'; readonly pattern: string };
};

const PIECE = 256 * 1024;
const NUMBERS_AT_ONCE = 2000;

/** Prepares a change of many items as if it came in a spreadsheet: rows are checked and shown, old and new, before anything
 *  is written. Errors: forbidden, not_found (column, pattern), list_gone, not_now when no item is meant. */
export async function changeMany(
  deps: Deps,
  actor: Actor,
  request: Request<ChangeMany>,
): Promise<Result<{ readonly importId: number }, Failure>> {
  const { change, list, decimal } = request.input;
  const kind = change.kind === 'field' ? sheetKinds.items : sheetKinds.packs;
  const allowed = maySheet(actor, kind);
  if (!allowed.ok) return allowed;
  if (change.kind === 'field' && !kind.columns.some((c) => c.key === change.column && c.key !== 'number'))
    return err({ kind: 'not_found', what: 'template' });
  return command(deps, actor, 'change-many', request, async (tx, now) => {
    const kept = await readList(tx, { name: list, userId: actor.userId, kind: 'items' });
    if (!kept) return err({ kind: 'list_gone' });
    const inList = new Set(kept.entries);
    const ids = request.input.ids === null ? [...kept.entries] : request.input.ids.filter((id) => inList.has(id));
    if (ids.length === 0) return err({ kind: 'not_now', state: 'unchanged' });
    const numbers: string[] = [];
    for (let i = 0; i < ids.length; i += NUMBERS_AT_ONCE)
      numbers.push(...(await readItemNumbers(tx, ids.slice(i, i + NUMBERS_AT_ONCE))));
    const made =
      change.kind === 'field' ? fieldRows(kind, change, numbers) : await patternRows(tx, change.pattern, numbers);
    if (!made) return err({ kind: 'not_found', what: 'template' });
    // What was typed has the person's decimal mark, what a pattern holds has a point.
    const mark = change.kind === 'field' ? decimal : '.';
    const importId = await keepRows(tx, kind, made, mark, actor.userId, now);
    await recordChanges(tx, actor.userId, now, [
      { entity: 'import', entityId: importId, action: 'many at once', after: { ...change, items: numbers.length } },
    ]);
    return ok({ importId });
  });
}

type Rows = {
  readonly name: string;
  readonly columns: readonly string[];
  readonly cells: readonly (readonly string[])[];
};

const fieldRows = (kind: SheetKind, change: { column: string; text: string }, numbers: readonly string[]): Rows => ({
  name: `${kind.columns.find((c) => c.key === change.column)?.title} of ${numbers.length} items`,
  columns: ['number', change.column],
  cells: numbers.map((n) => [n, change.text]),
});

/** The packs of a pattern for each item: its own copy from then on. */
async function patternRows(tx: Tx, pattern: string, numbers: readonly string[]): Promise<Rows | null> {
  const packs = await readPatternRecords(
    tx,
    sheetKinds['pack-patterns'].columns,
    { of: 'pattern', is: pattern },
    false,
  );
  if (packs.length === 0) return null;
  const columns = ['pack', 'content', 'of_pack', 'unit', 'buying', 'selling', 'sending'];
  const cells = packs.map((p) =>
    columns.map((c) => (typeof p.values[c] === 'boolean' ? (p.values[c] ? 'yes' : 'no') : text(p.values, c))),
  );
  return {
    name: `Pattern ${pattern} for ${numbers.length} items`,
    columns: ['item', ...columns],
    cells: numbers.flatMap((n) => cells.map((c) => [n, ...c])),
  };
}

const quoted = (cell: string) => `"${cell.replaceAll('"', '""')}"`;

/** Keeps rows as the file of an import whose reading is known, and leaves them to the worker to be checked. */
async function keepRows(
  tx: Tx,
  kind: SheetKind,
  { name, columns, cells }: Rows,
  decimal: Conventions['decimal'],
  userId: number,
  at: string,
): Promise<number> {
  const headings = columns.map((key) => kind.columns.find((c) => c.key === key)?.title ?? key);
  const content = Buffer.from([headings, ...cells].map((row) => row.map(quoted).join(',')).join('\r\n'));
  const importId = await insertImport(tx, { kind: kind.name, fileName: name.slice(0, 200), userId, at });
  for (let from = 0, pieceNo = 0; from < content.length; from += PIECE, pieceNo += 1)
    await insertPiece(tx, { importId, pieceNo, content: content.subarray(from, from + PIECE) });
  const csv = { encoding: 'utf-8', bom: false, separator: ',' };
  const sample = cells.slice(0, 20).map((row) => [...row]);
  const reading: KeptReading = {
    found: { format: 'csv', csv, formulas: 0, headings, headingRow: 1, sample, rows: cells.length },
    proposed: {
      mapping: [...columns],
      decimal: { mark: decimal, certainty: 'sure', example: null },
      dates: { order: 'ymd', certainty: 'sure', example: null },
    },
    print: '',
    known: true,
  };
  const input = JSON.stringify({ importId });
  const jobId = await insertJob(tx, { kind: 'check-sheet', input, notBefore: at, userId, at });
  await updateImport(tx, importId, {
    ...{ state: 'checking', bytes: content.length, jobId },
    reading: JSON.stringify(reading),
    mapping: JSON.stringify({ mapping: columns, how: { decimal, dates: 'ymd' } }),
  });
  return importId;
}
