import { addDays, isDate, startOfDay } from '@/core/calendar';
import { type Actor, may } from '@/core/people';
import { ok, type Result } from '@/core/result';
import { type ChangeLine, readChangeLines, readChangers } from '@/data/repositories/changes';
import { readCompany } from '@/data/repositories/company';
import { readSnapshot } from '@/data/transaction';
import { type Deps, stamp } from '../deps';
import type { Failure } from '../failure';

const PAGE = 100;

/** Groups of things that the page of changes can be narrowed to. */
export const changeAreas = {
  catalogue: ['item', 'source', 'supplier', 'import'],
  policies: ['policy'],
  needs: ['need', 'tray_line'],
  orders: ['order', 'receipt'],
  stock: ['stock_document', 'stock_count', 'count_plan', 'transfer', 'allocation'],
  setup: ['company', 'location', 'setup', 'job'],
  people: ['user', 'role'],
} as const;
export type ChangeArea = keyof typeof changeAreas;
export const isChangeArea = (text: string): text is ChangeArea => Object.hasOwn(changeAreas, text);

export type ChangesView = {
  readonly lines: readonly ChangeLine[];
  readonly people: readonly { readonly id: number; readonly name: string }[];
  /** The id to go on before; null when there are no more. */
  readonly next: number | null;
  readonly timeZone: string;
};

export type AskedChanges = {
  readonly area: ChangeArea | null;
  readonly userId: number | null;
  readonly from: string;
  readonly to: string;
  readonly before: number;
};

/** Who did what when, before and after; newest first, a page of a hundred. `from` and `to` are business days, '' = open.
 *  Errors: forbidden. */
export async function readChanges(
  deps: Deps,
  actor: Actor,
  asked: AskedChanges,
): Promise<Result<ChangesView, Failure>> {
  const allowed = may(actor, 'changes.read');
  if (!allowed.ok) return allowed;
  return readSnapshot(deps.pool, async (tx) => {
    const { timeZone } = await readCompany(tx);
    const instant = (day: string) => (isDate(day) ? stamp(startOfDay(day, timeZone)) : '');
    const which = {
      before: asked.before,
      entities: asked.area === null ? [] : changeAreas[asked.area],
      userId: asked.userId,
      from: instant(asked.from),
      to: isDate(asked.to) ? instant(addDays(asked.to, 1)) : '',
    };
    const lines = await readChangeLines(tx, which, PAGE + 1);
    const shown = lines.slice(0, PAGE);
    return ok({
      lines: shown,
      people: await readChangers(tx),
      next: lines.length > PAGE ? (shown.at(-1)?.id ?? null) : null,
      timeZone,
    });
  });
}
