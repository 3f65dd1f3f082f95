import { list, type Tx } from '../sql';
import type { DayOfMovements } from './demand';

export type KitRow = { readonly kitId: number; readonly itemId: number; readonly quantity: string };

/** What these kits are made of. */
export const readKitContents = (tx: Tx, kitIds: readonly number[]) =>
  tx.rowsOf<KitRow>(
    'SELECT kit_id AS kitId, component_id AS itemId, quantity FROM kit_component WHERE kit_id IN (?) ORDER BY kit_id, component_id',
    kitIds,
  );

/** What kits, of which history was brought, took of these items on each day after one. */
export async function readKitDays(tx: Tx, itemIds: readonly number[], after: string): Promise<DayOfMovements[]> {
  const ids = list('id', itemIds);
  if (!ids) return [];
  return tx.rows<DayOfMovements>(
    `SELECT k.component_id AS itemId, d.location_id AS locationId, d.day AS date, '0' AS \`change\`,
            CAST(d.quantity * k.quantity AS DECIMAL(18,6)) AS sold
       FROM kit_component k JOIN daily_demand d ON d.item_id = k.kit_id
      WHERE k.component_id IN (${ids.sql}) AND d.day > :after ORDER BY d.day`,
    { ...ids.values, after },
  );
}
