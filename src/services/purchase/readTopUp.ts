import { type Actor, may } from '@/core/people';
import { ok, type Result } from '@/core/result';
import { readItemsByIds } from '@/data/repositories/catalogue';
import { readCompany, readLocations } from '@/data/repositories/company';
import { readSnapshot } from '@/data/transaction';
import { readBuying } from '../catalogue/buying';
import { type Deps, todayOf } from '../deps';
import type { Failure } from '../failure';
import { type BroughtForward, type TopUpTarget, type TrayTopUp, topUpOf } from './topUps';

export type TopUpView = Omit<TrayTopUp, 'buys'> & {
  readonly buys: readonly (BroughtForward & {
    readonly itemName: string;
    readonly itemNumber: string;
    readonly location: string;
    readonly packName: string;
  })[];
};

/** What to bring forward so that a tray comes to its minimum or to free freight; null when nothing does.
 *  Errors: forbidden. */
export async function readTopUp(
  deps: Deps,
  actor: Actor,
  { supplierId, target }: { readonly supplierId: number; readonly target: TopUpTarget },
): Promise<Result<TopUpView | null, Failure>> {
  const allowed = may(actor, 'orders.read');
  if (!allowed.ok) return allowed;
  return readSnapshot(deps.pool, async (tx) => {
    const found = await topUpOf(tx, todayOf(deps, await readCompany(tx)), supplierId, target);
    if (!found) return ok(null);
    const itemIds = [...new Set(found.buys.map((b) => b.itemId))];
    const items = await readItemsByIds(tx, itemIds);
    const book = await readBuying(tx, itemIds);
    const places = new Map((await readLocations(tx)).map((l) => [l.id, l.name]));
    return ok({
      ...found,
      buys: found.buys.map((b) => {
        const item = items.get(b.itemId);
        return {
          ...{
            ...b,
            itemName: item?.name ?? '',
            itemNumber: item?.number ?? '',
            location: places.get(b.locationId) ?? '',
          },
          packName: book.bySource.get(b.sourceId)?.packName ?? item?.unitName ?? '',
        };
      }),
    });
  });
}
