import type { Actor } from '@/core/people';
import { err, ok, type Result } from '@/core/result';
import type { Column, Values } from '@/core/sheets';
import { readCompany } from '@/data/repositories/company';
import type { SheetRecord } from '@/data/repositories/sheets/record';
import { readSnapshot } from '@/data/transaction';
import { type Deps, todayOf } from '../deps';
import type { Failure } from '../failure';
import { sheetKindOf } from './kinds';
import { maySheet } from './lockOwn';
import type { Setting, SheetKind } from './sheetKind';
import { settingOf } from './steps';

const RECORDS = 2000;

export type Template = {
  readonly name: string;
  readonly title: string;
  readonly columns: readonly Column[];
};

/** A template: its columns with a line of explanation and an example each.
 *  Errors: forbidden, not_found. */
export function readTemplate(actor: Actor, name: string): Result<Template, Failure> {
  const kind = sheetKindOf(name);
  const allowed = maySheet(actor, kind);
  if (!allowed.ok) return allowed;
  if (!kind) return err({ kind: 'not_found', what: 'template' });
  return ok({ name: kind.name, title: kind.title, columns: kind.columns });
}

/** Everything on file of one kind, in the columns of its template: what imports again unchanged. Rows come in steps.
 *  Errors: forbidden, not_found. */
export async function readExport(
  deps: Deps,
  actor: Actor,
  name: string,
): Promise<Result<Template & { today: string; rows: AsyncGenerator<Values[]> }, Failure>> {
  const kind = sheetKindOf(name);
  const allowed = maySheet(actor, kind);
  if (!allowed.ok) return allowed;
  if (!kind) return err({ kind: 'not_found', what: 'template' });
  const today = todayOf(deps, await readSnapshot(deps.pool, readCompany));
  const setting = await settingOf(deps, actor.userId);
  return ok({ ...kind, today, rows: recordsOf(deps, kind, setting) });
}

async function* recordsOf(deps: Deps, kind: SheetKind, setting: Setting): AsyncGenerator<Values[]> {
  for (let after = 0; ; ) {
    const page: SheetRecord[] = await readSnapshot(deps.pool, (tx) => kind.page(tx, after, RECORDS));
    if (page.length === 0) return;
    yield page.map((r) => kind.against?.(r, {}, setting) ?? r.values);
    after = page.at(-1)?.id as number;
  }
}
