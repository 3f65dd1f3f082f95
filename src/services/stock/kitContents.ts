import { fromDecimal, type Quantity } from '@/core/quantity';
import { readKitContents } from '@/data/repositories/kits';
import type { Tx } from '@/data/sql';
import { groupBy } from '../grouping';

/** What kits are made of, those among the items and those within them. */
export async function kitContents(tx: Tx, itemIds: readonly number[]) {
  const found = new Map<number, { itemId: number; quantity: Quantity }[]>();
  for (let step = [...itemIds]; step.length > 0; ) {
    const rows = await readKitContents(tx, step);
    for (const [kitId, own] of groupBy(rows, (r) => r.kitId))
      found.set(
        kitId,
        own.map((r) => ({ itemId: r.itemId, quantity: fromDecimal(r.quantity) })),
      );
    step = [...new Set(rows.map((r) => r.itemId))].filter((id) => !found.has(id));
  }
  return (itemId: number) => found.get(itemId) ?? [];
}
