import type { NeedCause, Reckoning } from '@/core/netting';
import { type Actor, may } from '@/core/people';
import { fromDecimal, type Quantity } from '@/core/quantity';
import { ok, type Result } from '@/core/result';
import { plainWords } from '@/core/search';
import { readItemsByIds } from '@/data/repositories/catalogue';
import { readCompany, readLocations } from '@/data/repositories/company';
import {
  countAside,
  type DecisionKind,
  findDecisions,
  readDecisions as readRowsOf,
} from '@/data/repositories/decisions';
import type { Tx } from '@/data/sql';
import { readSnapshot } from '@/data/transaction';
import { searchItems } from '../catalogue/itemIndex';
import { type Deps, todayOf } from '../deps';
import type { Failure } from '../failure';
import { type AskedRows, keepList, type Page, readRows } from '../lists/keptList';

/** Put off now, left out now, or every decision. */
export const decisionShows = ['put_off', 'left_out', 'all'] as const;
export type DecisionShow = (typeof decisionShows)[number];

/** What was decided on a need, with the reckoning as it was then. */
export type DecisionView = {
  readonly id: number;
  readonly needId: number;
  readonly kind: DecisionKind;
  /** Still put off or left out by it. */
  readonly stands: boolean;
  readonly at: string;
  readonly who: string;
  readonly itemId: number;
  readonly itemNumber: string;
  readonly itemName: string;
  readonly unit: string;
  readonly location: string;
  readonly shortage: Quantity;
  readonly packs: Quantity;
  readonly packName: string;
  readonly base: Quantity;
  /** Supplier or place. */
  readonly from: string | null;
  readonly order: { readonly id: number; readonly number: string | null } | null;
  readonly transfer: { readonly id: number; readonly number: string } | null;
  readonly until: string | null;
  readonly reason: string;
  readonly reckoning: Reckoning | null;
  readonly shortNow: Quantity;
  readonly suggestedNow: Quantity;
  readonly causes: readonly NeedCause[];
};

export type DecisionsAsked = {
  readonly show: DecisionShow;
  readonly search: string;
  readonly locationId: number | null;
  readonly itemId: number | null;
};
export type DecisionsHead = {
  readonly list: string;
  readonly count: number;
  readonly putOff: number;
  readonly leftOut: number;
  readonly today: string;
  readonly timeZone: string;
};

/** Decisions that are shown at most, the newest. */
const MOST = 5_000;

/** Opens the list of decisions at the person's places, newest first. Errors: forbidden. */
export async function openDecisions(
  deps: Deps,
  actor: Actor,
  { show, search, locationId, itemId }: DecisionsAsked,
): Promise<Result<DecisionsHead, Failure>> {
  const allowed = may(actor, 'needs.read', locationId === null ? {} : { locationIds: [locationId] });
  if (!allowed.ok) return allowed;
  const found = await readSnapshot(deps.pool, async (tx) => {
    const company = await readCompany(tx);
    const locationIds = locationId === null ? actor.locations : [locationId];
    const itemIds = itemId !== null ? [itemId] : plainWords(search).length === 0 ? null : await searchItems(tx, search);
    const ids = await findDecisions(tx, { show, locationIds, itemIds }, MOST);
    return { ids, today: todayOf(deps, company), timeZone: company.timeZone, ...(await countAside(tx, locationIds)) };
  });
  const { ids, ...head } = found;
  const list = await keepList(deps, actor, 'decisions', { ids, about: null });
  return ok({ list, count: ids.length, ...head });
}

/** Up to 200 decisions of an open list. Errors: forbidden, list_gone. */
export async function readDecisionRows(
  deps: Deps,
  actor: Actor,
  asked: AskedRows,
): Promise<Result<Page<DecisionView>, Failure>> {
  const allowed = may(actor, 'needs.read');
  if (!allowed.ok) return allowed;
  return readRows(deps, actor, 'decisions', asked, (tx, { entries }) => viewsOf(tx, [...entries]));
}

async function viewsOf(tx: Tx, ids: readonly number[]): Promise<DecisionView[]> {
  const rows = new Map((await readRowsOf(tx, ids)).map((r) => [r.id, r]));
  const items = await readItemsByIds(tx, [...new Set([...rows.values()].map((r) => r.itemId))]);
  const places = new Map((await readLocations(tx)).map((l) => [l.id, l.name]));
  return ids.flatMap((id): DecisionView[] => {
    const r = rows.get(id);
    const item = r && items.get(r.itemId);
    if (!r || !item) return [];
    return [
      {
        ...{ id, needId: r.needId, kind: r.kind, stands: r.stands === 1, at: r.at, who: r.who, itemId: r.itemId },
        ...{ itemNumber: item.number, itemName: item.name, unit: item.unitName },
        location: places.get(r.locationId) ?? '',
        ...{ shortage: fromDecimal(r.shortage), packs: fromDecimal(r.packQuantity), base: fromDecimal(r.baseQuantity) },
        packName: r.packName ?? item.unitName,
        from: r.sender ?? r.supplier,
        order: r.orderId === null ? null : { id: r.orderId, number: r.order },
        transfer: r.transferId === null ? null : { id: r.transferId, number: r.transfer ?? '' },
        ...{ until: r.until, reason: r.reason, reckoning: JSON.parse(r.reckoning) as Reckoning | null },
        ...{ shortNow: fromDecimal(r.shortNow), suggestedNow: fromDecimal(r.suggestedNow) },
        causes: r.cause.split(',').filter((c): c is NeedCause => c !== ''),
      },
    ];
  });
}
