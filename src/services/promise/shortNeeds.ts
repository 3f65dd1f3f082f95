import type { Quantity } from '@/core/quantity';
import { readDemands } from '@/data/repositories/customerOrders';
import { readOpenNeedsAt } from '@/data/repositories/planning';
import type { Tx } from '@/data/sql';
import type { Deps } from '../deps';
import { groupBy, pairKey } from '../grouping';
import { needViewsOf } from '../planning/needViews';
import type { PromiseLine } from './readPromises';

/** The open need of what nothing covers: it can be decided where the customer's line is looked at. */
export type ShortNeed = {
  readonly needId: number;
  readonly fingerprint: string;
  readonly packs: Quantity;
  readonly packName: string;
  /** Whom it goes to; null where nobody sells it yet. */
  readonly from: string | null;
  readonly sent: boolean;
};

/** The open need of each of these lines that nothing covers: its own where it is bought for one to one, else that of its item and place. */
export async function readShortNeeds(
  deps: Deps,
  tx: Tx,
  lines: readonly PromiseLine[],
): Promise<(line: PromiseLine) => ShortNeed | null> {
  const missing = lines.filter((l) => l.missing > 0);
  const open = await readOpenNeedsAt(tx, missing);
  const demands = groupBy(
    await readDemands(
      tx,
      missing.map((l) => l.lineId),
    ),
    (d) => d.lineId,
  );
  const views = await needViewsOf(
    deps,
    tx,
    open.map((n) => n.id),
  );
  const needs = new Map(
    open.flatMap((n): [string, ShortNeed][] => {
      const view = views.get(n.id);
      if (!view) return [];
      const { fingerprint, packs, packName, sentFrom, supplier } = view;
      const from = sentFrom?.location ?? supplier?.name ?? null;
      const need = { needId: n.id, fingerprint, packs, packName, from, sent: sentFrom !== null };
      return [[n.pegOf === 'pair' ? pairKey(n.itemId, n.locationId) : `demand ${n.peg}`, need]];
    }),
  );
  return (l) => {
    if (l.missing === 0) return null;
    const own = (demands.get(l.lineId) ?? []).flatMap((d) => needs.get(`demand ${d.id}`) ?? []);
    return own[0] ?? needs.get(pairKey(l.itemId, l.locationId)) ?? null;
  };
}
