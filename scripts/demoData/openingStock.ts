import type { Pool } from 'mysql2/promise';
import { addDays } from '@/core/calendar';
import { MICRO, toDecimal } from '@/core/quantity';
import { ok } from '@/core/result';
import { MOVEMENT_COLUMNS } from '@/data/repositories/levels';
import { write } from '@/data/transaction';
import type { Placed } from './catalogue';

/** Opening stock of many pairs at once: levels with one movement each, between a little below the minimum and the maximum.
 *  For large data sets; the demo posts its stock through the ledger. */
export async function writeOpeningStock(
  pool: Pool,
  placed: readonly Placed[],
  today: string,
  random: () => number,
): Promise<void> {
  const stock = placed.map((p) => {
    const quantity = Math.max(1, Math.round((p.min * 0.8 + (p.max - p.min * 0.8) * random()) / MICRO)) * MICRO;
    return { ...p, quantity: toDecimal(quantity), value: Math.round((quantity / MICRO) * p.cost) };
  });
  const [day, at] = [addDays(today, -60), `${addDays(today, -60)} 08:00:00`];
  await write<void, never>(pool, async (tx) => {
    await tx.insertMany(
      'INSERT INTO level (item_id, location_id, on_hand, value_minor, last_posting, last_cost_quantity, last_cost_minor)',
      stock.map((s) => [s.itemId, s.locationId, s.quantity, s.value, 1, s.quantity, s.value]),
      '',
      2000,
    );
    await tx.insertMany(
      `INSERT INTO movement ${MOVEMENT_COLUMNS}`,
      stock.map((s) => [
        ...[s.itemId, s.locationId, 1, 'opening', day, s.quantity, '0', '0', s.value, 0],
        ...['opening', null, null, null, at],
      ]),
      '',
      2000,
    );
    return ok(undefined);
  });
}
