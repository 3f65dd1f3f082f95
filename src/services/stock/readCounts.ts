import { type Actor, may } from '@/core/people';
import { fromDecimal, type Quantity } from '@/core/quantity';
import { err, ok, type Result } from '@/core/result';
import type { CountStep } from '@/core/stock';
import { readItemsByIds, readShelves } from '@/data/repositories/catalogue';
import { readCompany, readLocations } from '@/data/repositories/company';
import {
  type CountHead,
  type CountPlanRow,
  findCount,
  readCountHeads,
  readCountLines,
  readCountPlans,
  readShelvesAt,
} from '@/data/repositories/counts';
import { readReasons } from '@/data/repositories/movements';
import { readSnapshot } from '@/data/transaction';
import { type Deps, todayOf } from '../deps';
import type { Failure } from '../failure';
import { judgeLines } from './openCount';

type Place = { readonly id: number; readonly name: string };
export type CountsView = {
  readonly plans: readonly (CountPlanRow & { readonly location: string })[];
  readonly open: readonly (CountHead & { readonly location: string })[];
  readonly ended: readonly (CountHead & { readonly location: string })[];
  readonly today: string;
  /** The person's places, and shelves that something lies on. */
  readonly places: readonly Place[];
  readonly shelves: readonly { readonly locationId: number; readonly shelf: string }[];
  readonly mayCount: boolean;
};

/** Counts at the person's places: what is due by its rhythm, what is under way, the latest that ended. Errors: forbidden. */
export async function readCounts(
  deps: Deps,
  actor: Actor,
  asked: { readonly locationId: number | null },
): Promise<Result<CountsView, Failure>> {
  const { locationId } = asked;
  const allowed = may(actor, 'stock.read', locationId === null ? {} : { locationIds: [locationId] });
  if (!allowed.ok) return allowed;
  return readSnapshot(deps.pool, async (tx) => {
    const at = locationId === null ? actor.locations : [locationId];
    const all = await readLocations(tx);
    const names = new Map(all.map((l) => [l.id, l.name]));
    const named = <T extends { locationId: number }>(rows: readonly T[]) =>
      rows.map((r) => ({ ...r, location: names.get(r.locationId) ?? '' }));
    const mine = all.filter((l) => l.closed === 0 && (actor.locations === null || actor.locations.includes(l.id)));
    return ok({
      plans: named(await readCountPlans(tx, at)),
      open: named(await readCountHeads(tx, 'open', at)),
      ended: named(await readCountHeads(tx, 'ended', at, 40)),
      today: todayOf(deps, await readCompany(tx)),
      places: mine.map(({ id, name }) => ({ id, name })),
      shelves: await readShelvesAt(tx, actor.locations),
      mayCount: may(actor, 'stock.count').ok,
    });
  });
}

export type CountedLine = {
  readonly lineNo: number;
  readonly itemId: number;
  readonly number: string;
  readonly name: string;
  readonly unit: string;
  readonly shelf: string;
  readonly counted: Quantity | null;
  readonly countedBy: string | null;
  readonly again: Quantity | null;
  readonly againBy: string | null;
  /** Null while a blind count is open, and before anything was counted. */
  readonly expected: Quantity | null;
  readonly difference: Quantity | null;
  readonly worth: number;
  readonly step: CountStep;
  readonly reasonId: number | null;
  readonly note: string;
  /** The difference is use: nobody records what goes out. */
  readonly use: boolean;
};

export type CountView = CountHead & {
  readonly location: string;
  readonly company: string;
  readonly currency: string;
  readonly today: string;
  readonly rows: readonly CountedLine[];
  readonly reasons: readonly { readonly id: number; readonly name: string }[];
  readonly mayCount: boolean;
};

/** One count with its lines. What a blind count expects is not told before it is posted. Errors: forbidden, not_found. */
export async function readCount(deps: Deps, actor: Actor, id: number): Promise<Result<CountView, Failure>> {
  const allowed = may(actor, 'stock.read');
  if (!allowed.ok) return allowed;
  return readSnapshot<Result<CountView, Failure>>(deps.pool, async (tx) => {
    const head = await findCount(tx, id);
    if (!head || (actor.locations !== null && !actor.locations.includes(head.locationId)))
      return err({ kind: 'not_found', what: 'count' });
    const company = await readCompany(tx);
    const lines = await readCountLines(tx, id);
    const ids = lines.map((l) => l.itemId);
    const items = await readItemsByIds(tx, ids);
    const shelves = new Map((await readShelves(tx, ids, head.locationId)).map((s) => [s.itemId, s.shelf]));
    const hidden = head.blind === 1 && head.state === 'open';
    const q = (text: string | null) => (text === null ? null : fromDecimal(text));
    const rows = (await judgeLines(tx, head.locationId, lines)).map(
      ({ line, difference, worth, step }): CountedLine => {
        const item = items.get(line.itemId);
        return {
          ...{ lineNo: line.lineNo, itemId: line.itemId, number: item?.number ?? '', name: item?.name ?? '' },
          ...{ unit: item?.unitName ?? '', shelf: shelves.get(line.itemId) ?? '' },
          ...{ counted: q(line.counted), countedBy: line.countedBy, again: q(line.again), againBy: line.againBy },
          expected: hidden ? null : q(line.againExpected ?? line.countedExpected),
          ...{ difference: hidden ? null : difference, worth: hidden ? 0 : worth, step },
          ...{ reasonId: line.reasonId, note: line.note, use: item?.useRecorded === 0 },
        };
      },
    );
    return ok({
      ...head,
      location: (await readLocations(tx)).find((l) => l.id === head.locationId)?.name ?? '',
      ...{ company: company.name, currency: company.currency, today: todayOf(deps, company), rows },
      reasons: await readReasons(tx),
      mayCount: head.state === 'open' && may(actor, 'stock.count', { locationIds: [head.locationId] }).ok,
    });
  });
}
