import type { BusinessDate } from '@/core/calendar';
import { emptyNeedRunInput, type NeedRunInput } from '@/core/netting';
import { MICRO } from '@/core/quantity';
import type { Asking } from '../../asking';
import type { PlaceDays } from '../placeDays';

/** Slots and what everything else is written into: slot = index of item × number of locations + index of location. */
export type Ground = {
  readonly today: BusinessDate;
  readonly only: readonly number[] | null;
  readonly itemIds: readonly number[];
  readonly locationIds: readonly number[];
  readonly width: number;
  readonly itemIndex: ReadonlyMap<number, number>;
  readonly locationIndex: ReadonlyMap<number, number>;
  /** Per item: 1 where anything is refilled (active, stock kept), its category, the finest step it is sold in, usual pack
   *  for sending (0 = none). */
  readonly refilled: Uint8Array;
  readonly categoryIds: Uint32Array;
  readonly unitMicro: Float64Array;
  readonly sendPacks: Uint32Array;
  /** Per place: closed, and which place it is usually supplied by (0 = none). */
  readonly closed: readonly boolean[];
  readonly suppliedBy: readonly number[];
  readonly arrays: NeedRunInput;
  readonly sdPerDay: Float64Array;
  readonly slot: (itemId: number, locationId: number) => number;
};

export const micro = (column: string) => `CAST((${column}) * 1000000 AS SIGNED)`;

type ItemCells = [id: number, refilled: number, categoryId: number, saleDecimals: number, sendPackId: number | null];
type LevelCells = [itemId: number, locationId: number, onHand: number, blocked: number, allocated: number];
type RateCells = [itemId: number, locationId: number, perDay: number, sd: number];

/** A condition that a column is one of these items; none for all of them. */
export const among =
  (only: readonly number[] | null) =>
  (column: string, and = 'WHERE'): string =>
    only === null ? '' : `${and} ${column} IN (${only.map(Number).join(',')})`;

/** Items, places, levels and use per day. */
export function askGround(
  ask: Asking,
  only: readonly number[] | null,
  today: BusinessDate,
  places: () => Promise<PlaceDays[]>,
): () => Promise<Ground> {
  const where = among(only);
  const items = ask.arrays<ItemCells>(
    `SELECT id, status = 'active' AND stock_kept = 1, category_id, sale_decimals, usual_send_pack_id
       FROM item ${where('id')} ORDER BY id`,
  );
  const levels = ask.arrays<LevelCells>(
    `SELECT item_id, location_id, ${micro('on_hand')}, ${micro('blocked')}, ${micro('allocated')} FROM level ${where('item_id')}`,
  );
  const rates = ask.arrays<RateCells>(
    `SELECT item_id, location_id, ${micro('per_day')}, CAST(sd_per_day AS DOUBLE) FROM demand_rate ${where('item_id')}`,
  );
  return () => groundOf({ places, items, levels, rates }, only, today);
}

async function groundOf(
  asked: {
    readonly places: () => Promise<PlaceDays[]>;
    readonly items: () => Promise<ItemCells[]>;
    readonly levels: () => Promise<LevelCells[]>;
    readonly rates: () => Promise<RateCells[]>;
  },
  only: readonly number[] | null,
  today: BusinessDate,
): Promise<Ground> {
  const places = await asked.places();
  const locationIds = places.map((r) => r.id);
  const items = await asked.items();
  const itemIds = items.map((r) => r[0]);
  const itemIndex = new Map(itemIds.map((id, i) => [id, i]));
  const locationIndex = new Map(locationIds.map((id, i) => [id, i]));
  const width = locationIds.length;
  const arrays = emptyNeedRunInput(itemIds.length * width, Math.max(1, width));
  const sdPerDay = new Float64Array(arrays.count);
  const slot = (itemId: number, locationId: number): number => {
    const i = itemIndex.get(itemId);
    const l = locationIndex.get(locationId);
    if (i === undefined || l === undefined) throw new Error(`item ${itemId} or location ${locationId} is not known`);
    return i * width + l;
  };

  for (const [item, location, onHand, blocked, allocated] of await asked.levels()) {
    if (!locationIndex.has(location)) continue;
    const at = slot(item, location);
    arrays.onHand[at] = onHand;
    arrays.blocked[at] = blocked;
    arrays.owed[at] = allocated;
  }

  for (const [item, location, perDay, sd] of await asked.rates()) {
    if (!locationIndex.has(location)) continue;
    const at = slot(item, location);
    arrays.perDay[at] = perDay;
    sdPerDay[at] = sd;
  }
  return {
    ...{ today, only, itemIds, locationIds, width, itemIndex, locationIndex, arrays, sdPerDay, slot },
    refilled: Uint8Array.from(items, (r) => r[1]),
    categoryIds: Uint32Array.from(items, (r) => r[2]),
    unitMicro: Float64Array.from(items, (r) => MICRO / 10 ** r[3]),
    sendPacks: Uint32Array.from(items, (r) => r[4] ?? 0),
    closed: places.map((r) => r.closed === 1),
    suppliedBy: places.map((r) => r.suppliedBy ?? 0),
  };
}
