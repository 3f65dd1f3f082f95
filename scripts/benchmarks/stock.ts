import { randomBytes } from 'node:crypto';
import { ok } from '@/core/result';
import { findItem } from '@/data/repositories/catalogue';
import { readCompany, readLocations } from '@/data/repositories/company';
import { readLevels } from '@/data/repositories/levels';
import { markDirty } from '@/data/repositories/marks';
import { readDatedSupply } from '@/data/repositories/openSupply';
import { readStates } from '@/data/repositories/planning';
import { readSnapshot, write } from '@/data/transaction';
import type { Deps } from '@/services/deps';
import { readPairPlans } from '@/services/planning/pairPlans';
import { AHEAD, readOutlook } from '@/services/planning/readOutlook';
import { fullNeedRun, recomputeDirty } from '@/services/planning/recompute';
import { sellGoods } from '@/services/stock/sellGoods';
import { type Figure, median } from './figure';
import { largeBooks, now, today } from './largeBooks';

const TIMES = 60;
const PLACE = 1;
const buyer = {
  ...{ userId: 1, name: 'Mira Rook', initials: 'MR', role: 'buyer', locations: null, approvalLimit: null, locale: '' },
};

async function times(body: (n: number) => Promise<unknown>): Promise<number> {
  const all: number[] = [];
  for (let n = 0; n < TIMES; n += 1) {
    const started = performance.now();
    await body(n);
    all.push(performance.now() - started);
  }
  return median(all);
}

/** Items that are spread over the whole catalogue. */
const itemOf = (n: number, items: number) => 1 + ((n * 7919) % items);

/** In the books of 50,000 items × 15 locations: one pair from its mark to its need, and a whole sale with its document,
 *  movement and need; baseline of both: an UPDATE of one level, committed. And the projection of one item at one place;
 *  baseline: reading its inputs. Medians of sixty. */
export async function stockBench(): Promise<Figure[]> {
  const { pool } = await largeBooks();
  const deps: Deps = { pool, clock: () => now };
  await fullNeedRun(deps);
  const [rows] = await pool.query('SELECT COUNT(*) AS n FROM item');
  const items = (rows as { n: number }[])[0]?.n ?? 1;
  const update = (n: number) =>
    write<void, never>(pool, async (tx) => {
      await tx.run('UPDATE level SET on_hand = on_hand - 1 WHERE item_id = :itemId AND location_id = :place', {
        itemId: itemOf(n + 1000, items),
        place: PLACE,
      });
      return ok(undefined);
    });
  const need = async (n: number) => {
    const pair = { itemId: itemOf(n + 2000, items), locationId: PLACE };
    await recomputeDirty(deps, [pair]);
  };
  const mark = (n: number) =>
    write<void, never>(pool, async (tx) => {
      await tx.run('UPDATE level SET on_hand = on_hand - 7 WHERE item_id = :itemId AND location_id = :locationId', {
        itemId: itemOf(n + 2000, items),
        locationId: PLACE,
      });
      markDirty(tx, [{ itemId: itemOf(n + 2000, items), locationId: PLACE }], 'stock');
      return ok(undefined);
    });
  const sale = async (n: number) => {
    const line = { itemId: itemOf(n + 3000, items), quantity: '1', allocationId: null };
    const input = { locationId: PLACE, businessDate: '', lines: [line] };
    const sold = await sellGoods(deps, buyer, { key: randomBytes(15).toString('base64url'), input });
    if (!sold.ok) throw new Error(JSON.stringify(sold.error));
  };
  const outlook = async (n: number) => {
    const read = await readOutlook(deps, buyer, { itemId: itemOf(n, items), locationId: PLACE });
    if (!read.ok) throw new Error(JSON.stringify(read.error));
  };
  const inputs = (n: number) =>
    readSnapshot(pool, async (tx) => {
      const itemId = itemOf(n, items);
      await findItem(tx, itemId);
      await readCompany(tx);
      await readLocations(tx);
      await readLevels(tx, [itemId], [PLACE]);
      await readStates(tx, [itemId]);
      await readPairPlans(tx, [itemId], today);
      await readDatedSupply(tx, itemId, PLACE);
    });
  await times(update);
  const row = await times(update);
  for (let n = 0; n < TIMES; n += 1) await mark(n);
  const one = await times(need);
  await times(sale);
  const whole = await times(sale);
  await times(outlook);
  const [projected, read] = [await times(outlook), await times(inputs)];
  const figure = (name: string, value: number, baseline: number, goal: number): Figure => ({
    name,
    value: Number(value.toFixed(2)),
    unit: 'ms',
    baseline: Number(baseline.toFixed(2)),
    ratio: Number((value / baseline).toFixed(2)),
    goal,
  });
  return [
    figure('stock: one pair from its mark to its need; baseline: one UPDATE of a level, committed', one, row, 10),
    figure('stock: a whole sale of one line with its need; baseline: one UPDATE of a level, committed', whole, row, 10),
    figure(`stock: projection of one item over ${AHEAD} days; baseline: reading its inputs`, projected, read, 3),
  ];
}
