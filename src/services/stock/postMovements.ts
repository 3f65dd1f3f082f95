import { issue, receive } from '@/core/ledger';
import { checked, fromDecimal, type Quantity, toDecimal } from '@/core/quantity';
import { insertMovements, lockLevels, type Pair, updateLevel } from '@/data/repositories/levels';
import { markDirty } from '@/data/repositories/planning';
import type { SqlValue, Tx } from '@/data/sql';

/** One change of stock. A positive quantity comes in with its value; a negative one goes out at moving average. */
export type StockChange = Pair & {
  readonly kind: 'opening' | 'receipt' | 'sale';
  readonly businessDate: string;
  readonly quantity: Quantity;
  /** Value of what comes in, minor units of the base currency; ignored for what goes out. */
  readonly value: number;
  readonly document: {
    readonly kind: 'receipt' | 'opening' | 'sales_day';
    readonly id: number | null;
    readonly line: number | null;
  };
  /** Last known cost for what goes out below zero: a value for a quantity. */
  readonly lastCost?: { readonly quantity: Quantity; readonly value: number };
};

/** The only writer of on hand, inspection, blocked and value: appends movements and keeps the levels equal to their sum,
 *  in the caller's transaction, levels locked in key order. Marks the pairs for recomputation. */
export async function postMovements(
  tx: Tx,
  userId: number | null,
  now: string,
  changes: readonly StockChange[],
): Promise<void> {
  const pairs = [...new Map(changes.map((c) => [`${c.itemId}/${c.locationId}`, c])).values()];
  const rows: SqlValue[][] = [];
  for (const level of await lockLevels(tx, pairs)) {
    let here = { quantity: fromDecimal(level.onHand), value: level.value };
    let posting = level.lastPosting;
    for (const c of changes.filter((x) => x.itemId === level.itemId && x.locationId === level.locationId)) {
      const posted =
        c.quantity >= 0
          ? receive(here, c.quantity, c.value)
          : issue(here, checked(-c.quantity), c.lastCost ?? { quantity: 0, value: 0 });
      here = posted.level;
      posting += 1;
      rows.push([
        c.itemId,
        c.locationId,
        posting,
        c.kind,
        c.businessDate,
        toDecimal(c.quantity),
        '0',
        '0',
        posted.valueChange,
        posted.variance,
        c.document.kind,
        c.document.id,
        c.document.line,
        userId,
        now,
      ]);
    }
    const { itemId, locationId, inspection, blocked } = level;
    await updateLevel(tx, {
      itemId,
      locationId,
      onHand: toDecimal(here.quantity),
      inspection,
      blocked,
      value: here.value,
      posting,
    });
  }
  await insertMovements(tx, rows);
  await markDirty(tx, pairs);
}
