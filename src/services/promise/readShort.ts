import { type Actor, may } from '@/core/people';
import { checked, type Quantity } from '@/core/quantity';
import { err, ok, type Result } from '@/core/result';
import { readList } from '@/data/repositories/lists';
import { readSnapshot } from '@/data/transaction';
import type { Deps } from '../deps';
import type { Failure } from '../failure';
import { promiseLinesOf } from './readPromises';
import { readShortNeeds, type ShortNeed } from './shortNeeds';

/** What nothing covers of an item at a place, with the customers who wait for it and the need that can be decided. */
export type ShortView = ShortNeed & {
  readonly itemId: number;
  readonly item: string;
  readonly number: string;
  readonly location: string;
  readonly unit: string;
  readonly missing: Quantity;
  readonly waits: readonly {
    readonly orderId: number;
    readonly order: string;
    readonly customer: string;
    readonly missing: Quantity;
    readonly wanted: string;
  }[];
};

export type ShortOfList = {
  readonly needs: readonly ShortView[];
  /** Lines that nothing covers and that have no open need: not due yet, put off, or nothing refills them. */
  readonly without: number;
  /** Lines beyond those that were looked at. */
  readonly left: number;
};

/** Lines that are looked at. */
const MOST = 500;

/** What nothing covers of the lines of an open list of promises, of many orders together: one entry per need, in the order of the list,
 *  with the quantity that its need suggests. Errors: forbidden, list_gone. */
export async function readShort(
  deps: Deps,
  actor: Actor,
  { list }: { readonly list: string },
): Promise<Result<ShortOfList, Failure>> {
  const allowed = may(actor, 'needs.decide');
  if (!allowed.ok) return allowed;
  return readSnapshot<Result<ShortOfList, Failure>>(deps.pool, async (tx) => {
    const kept = await readList(tx, { name: list, userId: actor.userId, kind: 'promises' });
    if (!kept) return err({ kind: 'list_gone' });
    const ids = [...kept.entries];
    const lines = (await promiseLinesOf(deps, tx, ids.slice(0, MOST))).filter((l) => l.missing > 0);
    const needOf = await readShortNeeds(deps, tx, lines);
    const found = new Map<number, ShortView>();
    let without = 0;
    for (const l of lines) {
      const need = needOf(l);
      if (!need) {
        without += 1;
        continue;
      }
      const { itemId, name: item, number, location, unit, missing } = l;
      const had = found.get(need.needId) ?? { ...need, itemId, item, number, location, unit, missing: 0, waits: [] };
      const waits = { orderId: l.orderId, order: l.order, customer: l.customer, missing, wanted: l.wanted };
      found.set(need.needId, {
        ...{ ...had, missing: checked(had.missing + missing) },
        waits: [...had.waits, waits],
      });
    }
    return ok({ needs: [...found.values()], without, left: Math.max(0, ids.length - MOST) });
  });
}
