import { effectivePolicy, type PolicyLevel } from '@/core/policy';
import type { Quantity } from '@/core/quantity';
import type { Tx } from '../sql';
import type { Pair } from './levels';
import { readItemSettings, readWiderLevels, scopeKey } from './policySettings';

/** What of each item's stock at a place is never promised: the reserve of its policy. */
export async function readReserves(tx: Tx, pairs: readonly Pair[], today: string): Promise<(pair: Pair) => Quantity> {
  const ids = [...new Set(pairs.map((p) => p.itemId))];
  const wider = await readWiderLevels(tx);
  const settings = await readItemSettings(tx, ids);
  const categories = new Map(
    (
      await tx.rowsOf<{ id: number; categoryId: number }>(
        'SELECT id, category_id AS categoryId FROM item WHERE id IN (?)',
        ids.length > 0 ? ids : [0],
      )
    ).map((i) => [i.id, i.categoryId]),
  );
  return ({ itemId, locationId }) => {
    const [own, item] = [settings.get(scopeKey(itemId, locationId)), settings.get(scopeKey(itemId, null))];
    const levels: PolicyLevel[] = [
      ...(own ? [{ origin: 'location' as const, setting: own }] : []),
      ...(item ? [{ origin: 'item' as const, setting: item }] : []),
      ...wider(categories.get(itemId) ?? 0),
    ];
    return effectivePolicy(levels, today).reserve;
  };
}
