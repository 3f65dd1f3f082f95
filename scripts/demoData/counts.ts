import type { Pool } from 'mysql2/promise';
import { addDays } from '@/core/calendar';
import type { Actor } from '@/core/people';
import { MICRO } from '@/core/quantity';
import { unwrap } from '@/core/result';
import { type Deps, todayOf } from '@/services/deps';
import { beginCount } from '@/services/stock/beginCount';
import { enterCount, setReasonOfCount } from '@/services/stock/enterCount';
import { planCount } from '@/services/stock/planCount';
import { postCount } from '@/services/stock/postCount';
import { readCount } from '@/services/stock/readCounts';

/** Stock of an item whose use nobody records: what there was 13 weeks ago and what is left. */
export type Unrecorded = {
  readonly itemId: number;
  readonly locationId: number;
  readonly opening: number;
  readonly closing: number;
};
/** Bags and tissue: nobody rings them up. */
export const isUnrecorded = (number: string) => number.startsWith('90');
/** Counted every four weeks, and what share of the use of 13 weeks was gone by then. */
const COUNTED: readonly (readonly [daysAgo: number, gone: number])[] = [
  [84, 0.07],
  [56, 0.36],
  [28, 0.72],
  [1, 1],
];

/** Counts of what nobody records, up to four weeks ago or since. */
export async function countUnrecorded(
  depsAt: (daysAgo: number) => Deps,
  buyer: Actor,
  all: readonly Unrecorded[],
  which: 'before' | 'since',
): Promise<void> {
  for (const [daysAgo, gone] of COUNTED.filter(([d]) => (which === 'since') === d < 28))
    for (const locationId of new Set(all.map((u) => u.locationId))) {
      const own = all.filter((u) => u.locationId === locationId);
      const figures = own.map((u) => ({
        ...{ itemId: u.itemId, round: 'first' as const },
        quantity: String(Math.round((u.opening + (u.closing - u.opening) * gone) / MICRO)),
      }));
      const counting = counter(depsAt(daysAgo), buyer, `bags-${locationId}-${daysAgo}`);
      const itemIds = own.map((l) => l.itemId);
      await counting.post(
        await counting.begin({ what: 'marked', itemIds, name: 'Bags and tissue', locationId }),
        figures,
      );
    }
}

/** Needles counted yesterday with a few differences, machines in a weekly rhythm, a shelf that is being counted. */
export async function countShelves(pool: Pool, depsAt: (daysAgo: number) => Deps, buyer: Actor): Promise<void> {
  const yesterday = counter(depsAt(1), buyer, 'needles');
  const needles = await yesterday.begin({ what: 'category', category: 'Needles', name: 'Needles', locationId: 2 });
  const lines = unwrap(await readCount(depsAt(1), buyer, needles)).rows;
  const [onHand] = await pool.query('SELECT item_id AS id, on_hand AS q FROM level WHERE location_id = 2');
  const there = new Map((onHand as { id: number; q: string }[]).map((l) => [l.id, Number(l.q)]));
  const by = [0, -1, 0, 0, 2, 0, 0, -1, 0, 0, 0, 1];
  const figures = lines.map((l, i) => ({
    ...{ itemId: l.itemId, round: 'first' as const },
    quantity: String(Math.max(0, (there.get(l.itemId) ?? 0) + (by[i] ?? 0))),
  }));
  await yesterday.post(needles, figures, [null, 2, null, null, 3, null, null, 1]);

  const now = depsAt(0);
  const rhythm = { category: '', shelf: '', itemIds: [], blind: true };
  const today = todayOf(now, { timeZone: 'Europe/Berlin' });
  const plan = async (key: string, input: Omit<Parameters<typeof planCount>[2]['input'], 'category' | 'blind'>) =>
    unwrap(await planCount(now, buyer, { key: `seed-count-plan-${key}`, input: { ...rhythm, ...input } }));
  const [machines] = await pool.query(
    "SELECT i.id FROM item i JOIN level l ON l.item_id = i.id AND l.location_id = 1 WHERE i.number LIKE '701%' ORDER BY i.number",
  );
  const itemIds = (machines as { id: number }[]).map((m) => m.id);
  const weekly = { what: 'marked' as const, shelf: '', itemIds, name: 'Machines on show', locationId: 1, everyDays: 7 };
  await plan('machines', { ...weekly, firstOn: addDays(today, -2) });
  const shelf = { what: 'shelf' as const, shelf: 'A-', itemIds: [], name: 'Bay A', locationId: 1, everyDays: 28 };
  await plan('shelf', { ...shelf, firstOn: addDays(today, 12) });

  const counting = counter(now, buyer, 'shelf-a');
  const open = await counting.begin({
    what: 'shelf',
    shelf: 'A-0',
    name: 'Shelves A-01 to A-09',
    locationId: 1,
    blind: true,
  });
  const some = unwrap(await readCount(now, buyer, open)).rows.slice(0, 5);
  const [shop] = await pool.query('SELECT item_id AS id, on_hand AS q FROM level WHERE location_id = 1');
  const shelved = new Map((shop as { id: number; q: string }[]).map((l) => [l.id, Number(l.q)]));
  const found = some.map((l, i) => {
    const expected = Math.max(0, shelved.get(l.itemId) ?? 0);
    return {
      itemId: l.itemId,
      round: 'first' as const,
      quantity: String(i === 2 ? Math.floor(expected / 2) : expected),
    };
  });
  if (found.length > 0) await counting.enter(open, found);
}

type Begun = {
  readonly what: 'category' | 'shelf' | 'marked';
  readonly name: string;
  readonly locationId: number;
  readonly category?: string;
  readonly shelf?: string;
  readonly itemIds?: readonly number[];
  readonly blind?: boolean;
};
type Figure = { readonly itemId: number; readonly round: 'first'; readonly quantity: string };

/** Counting through the application's own use cases. */
function counter(deps: Deps, buyer: Actor, key: string) {
  const request = <I>(step: string, input: I) => ({ key: `seed-count-${key}-${step}`, input });
  const enter = async (countId: number, lines: readonly Figure[]) =>
    unwrap(await enterCount(deps, buyer, request('enter', { countId, countedAt: '', lines })));
  return {
    enter,
    begin: async (b: Begun) =>
      unwrap(
        await beginCount(deps, buyer, request('begin', { category: '', shelf: '', itemIds: [], blind: false, ...b })),
      ).countId,
    post: async (countId: number, lines: readonly Figure[], reasons: readonly (number | null)[] = []) => {
      await enter(countId, lines);
      for (const [i, reasonId] of reasons.entries())
        if (reasonId !== null) {
          const { itemId } = lines[i] as Figure;
          unwrap(await setReasonOfCount(deps, buyer, request(`why-${i}`, { countId, itemId, reasonId, note: '' })));
        }
      unwrap(await postCount(deps, buyer, request('post', { countId, asCounted: true })));
    },
  };
}
