import { type Actor, type Forbidden, may } from '@/core/people';
import { err, ok, type Result } from '@/core/result';
import { type ImportRow, lockImport } from '@/data/repositories/imports';
import type { Tx } from '@/data/sql';
import type { Failure } from '../failure';
import { sheetKindOf } from './kinds';
import type { SheetKind } from './sheetKind';

export type ImportVersion = { readonly importId: number; readonly version: number };

/** The right that an import needs, before it is known which it is: who may bring no kind of spreadsheet sees none. */
export const mayImport = (actor: Actor) => may(actor, 'catalogue.edit');

/** Whether somebody may bring and take out a kind of spreadsheet. A sheet that says something of places is for those who
 *  are limited to none: it holds all of them. */
export function maySheet(actor: Actor, kind: SheetKind | null): Result<void, Forbidden> {
  const importing = mayImport(actor);
  if (!importing.ok || !kind) return importing;
  const allowed = may(actor, kind.right);
  const ofPlaces =
    kind.name === 'locations' ||
    kind.name === 'policy-defaults' ||
    kind.name === 'budgets' ||
    Object.values(kind.refers).some((r) => r.what === 'location');
  if (allowed.ok && ofPlaces && actor.locations !== null)
    return err({ kind: 'forbidden', right: kind.right, because: 'location' });
  return allowed;
}

/** An import that the person may go on with, locked, in one of some states and as it was seen.
 *  Errors: forbidden, not_found, not_now, changed_meanwhile. */
export async function lockOwn(
  tx: Tx,
  actor: Actor,
  { importId, version }: ImportVersion,
  ...states: readonly ImportRow['state'][]
): Promise<Result<{ row: ImportRow; kind: SheetKind }, Failure>> {
  const row = await lockImport(tx, importId);
  const kind = row && sheetKindOf(row.kind);
  if (!row || !kind) return err({ kind: 'not_found', what: 'import' });
  const allowed = maySheet(actor, kind);
  if (!allowed.ok) return allowed;
  if (!states.includes(row.state)) return err({ kind: 'not_now', state: row.state });
  if (row.version !== version) return err({ kind: 'changed_meanwhile', what: 'import', who: null, now: null });
  return ok({ row, kind });
}
