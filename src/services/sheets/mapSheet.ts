import type { Actor } from '@/core/people';
import { err, ok, type Result } from '@/core/result';
import type { DateOrder, DecimalMark, Mapping } from '@/core/sheets';
import { recordChanges } from '@/data/repositories/bookkeeping';
import { keepMapping, updateImport } from '@/data/repositories/imports';
import { insertJob } from '@/data/repositories/jobs';
import { command, type Request } from '../command';
import type { Deps } from '../deps';
import type { Failure } from '../failure';
import type { Reading } from './checkRows';
import { type ImportVersion, lockOwn, mayImport } from './lockOwn';
import type { KeptReading } from './steps';

export type MapSheet = ImportVersion & {
  /** For each column of the file the template's, or null for one that is left out. */
  readonly mapping: Mapping;
  readonly decimal: DecimalMark;
  readonly dates: DateOrder;
};

/** Says how a file is to be read; the worker then checks its rows. Kept for the next file with the same headings.
 *  Errors: forbidden, not_found, not_now, changed_meanwhile, columns_missing, column_twice. */
export async function mapSheet(deps: Deps, actor: Actor, request: Request<MapSheet>): Promise<Result<null, Failure>> {
  const allowed = mayImport(actor);
  if (!allowed.ok) return allowed;
  return command(deps, actor, 'map-sheet', request, async (tx, now) => {
    const { mapping, decimal, dates, ...version } = request.input;
    const own = await lockOwn(tx, actor, version, 'to_map', 'checked', 'refused');
    if (!own.ok) return own;
    const { row, kind } = own.value;
    if (!row.reading) return err({ kind: 'not_now', state: row.state });
    const { found, print } = JSON.parse(row.reading) as KeptReading;
    const named = mapping.slice(0, found.headings.length).filter((k): k is string => k !== null);
    const twice = named.find((k, i) => named.indexOf(k) !== i);
    if (twice) return err({ kind: 'column_twice', column: twice });
    // Only what identifies a row can't be done without: what else is required, only new rows need.
    const missing = kind.columns.filter((c) => c.required && isPartOfKey(kind.keyOf, c.key) && !named.includes(c.key));
    if (missing.length > 0) return err({ kind: 'columns_missing', columns: missing.map((c) => c.title) });
    const reading: Reading = { mapping: found.headings.map((_, i) => mapping[i] ?? null), how: { decimal, dates } };
    await keepMapping(tx, { kind: kind.name, headings: print, mapping: JSON.stringify(reading.mapping), at: now });
    const input = JSON.stringify({ importId: row.id });
    const jobId = await insertJob(tx, { kind: 'check-sheet', input, notBefore: now, userId: actor.userId, at: now });
    await updateImport(tx, row.id, { state: 'checking', mapping: JSON.stringify(reading), jobId, refusal: null });
    await recordChanges(tx, actor.userId, now, [{ entity: 'import', entityId: row.id, action: 'to be checked' }]);
    return ok(null);
  });
}

const isPartOfKey = (keyOf: (v: Record<string, string>) => string, column: string) =>
  keyOf({ [column]: '0123456789' }).includes('0123456789');
