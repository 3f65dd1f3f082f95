import { type Actor, may } from '@/core/people';
import { fromDecimal } from '@/core/quantity';
import { err, ok, type Result } from '@/core/result';
import { findItem, type ItemRow } from '@/data/repositories/catalogue';
import { type ChangeLine, readChangesOf } from '@/data/repositories/changes';
import { readCompany, readLocations } from '@/data/repositories/company';
import { readItemDecisions, readItemOrders } from '@/data/repositories/itemFile';
import { readMovements } from '@/data/repositories/levels';
import { readSnapshot } from '@/data/transaction';
import type { Deps } from '../deps';
import type { Failure } from '../failure';

/** Something that happened to an item. `at` is an instant (changes, decisions, orders) or a business day (movements). */
export type Happening = {
  readonly at: string;
  readonly who: string;
} & (
  | { readonly kind: 'changed'; readonly change: ChangeLine }
  | {
      readonly kind: 'decided';
      readonly packs: string;
      readonly place: string;
      readonly supplier: string | null;
      readonly took: boolean;
    }
  | {
      readonly kind: 'ordered';
      readonly orderId: number;
      readonly number: string | null;
      readonly supplier: string;
      readonly packs: string;
      readonly packName: string;
    }
  | {
      readonly kind: 'moved';
      readonly what: string;
      readonly place: string;
      readonly quantity: number;
      readonly orderId: number | null;
      readonly document: string | null;
    }
);

export type ItemHistory = {
  readonly item: ItemRow;
  /** Newest first, each with its place in the list. */
  readonly happenings: readonly { readonly rank: number; readonly what: Happening }[];
  readonly timeZone: string;
};

const MOST = 200;

/** What happened to an item, newest first: changes to what is on file and to its policy, decisions, orders, movements of
 *  stock. Errors: forbidden, not_found. */
export async function readItemHistory(deps: Deps, actor: Actor, itemId: number): Promise<Result<ItemHistory, Failure>> {
  const allowed = may(actor, 'stock.read');
  if (!allowed.ok) return allowed;
  return readSnapshot<Result<ItemHistory, Failure>>(deps.pool, async (tx) => {
    const item = await findItem(tx, itemId);
    if (!item) return err({ kind: 'not_found', what: 'item' });
    const places = new Map((await readLocations(tx)).map((l) => [l.id, l.name]));
    const changes = may(actor, 'changes.read').ok ? await readChangesOf(tx, ['item', 'policy'], itemId, MOST) : [];
    const seesOrders = may(actor, 'orders.read').ok;
    const orders = seesOrders ? await readItemOrders(tx, itemId, MOST) : [];
    const decisions = may(actor, 'needs.read').ok ? await readItemDecisions(tx, itemId, MOST) : [];
    const movements = await readMovements(tx, itemId, actor.locations, MOST);
    const happenings: Happening[] = [
      ...changes.map((change): Happening => ({ kind: 'changed', at: change.at, who: change.who, change })),
      ...orders.map(({ at, who, ...o }): Happening => ({ kind: 'ordered', at, who, ...o })),
      ...decisions.map(
        (d): Happening => ({
          ...{ kind: 'decided', at: d.at, who: d.who, packs: d.packs, place: places.get(d.locationId) ?? '' },
          ...{ supplier: d.supplier, took: d.kind === 'accept' },
        }),
      ),
      ...movements.map(
        (m): Happening => ({
          ...{
            kind: 'moved',
            at: m.businessDate,
            who: m.who ?? '',
            what: m.kind,
            place: places.get(m.locationId) ?? '',
          },
          ...{
            quantity: fromDecimal(m.onHandChange),
            orderId: seesOrders ? m.orderId : null,
            document: m.documentNumber,
          },
        }),
      ),
    ];
    happenings.sort((a, b) => (a.at < b.at ? 1 : a.at > b.at ? -1 : 0));
    return ok({
      item,
      happenings: happenings.slice(0, MOST).map((what, rank) => ({ rank, what })),
      timeZone: (await readCompany(tx)).timeZone,
    });
  });
}
