import type { Quantity } from '@/core/quantity';
import { err, ok, type Result } from '@/core/result';
import { lockAllocations } from '@/data/repositories/allocations';
import { readTransit } from '@/data/repositories/company';
import { lockLevels } from '@/data/repositories/levels';
import { markDirty } from '@/data/repositories/marks';
import type { Tx } from '@/data/sql';
import type { Failure } from '../failure';
import { type CrossedLevel, crossingsOf } from './crossings';
import { freeOf } from './gauge';
import { postMovements, type StockChange } from './postMovements';
import { endAllocation } from './reserve';

export type Outgoing = {
  readonly lineNo: number;
  readonly itemId: number;
  readonly quantity: Quantity;
  /** What was promised for it: taken as far as it goes, and what is left of it released. */
  readonly allocationId: number | null;
};

/** Takes goods of a transfer off the level they leave and puts them, with their value, in transit. What is not promised has to
 *  be free. Returns the value of each line, and the levels that stock came to. Errors: not_free, books_closed. */
export async function moveOut(
  tx: Tx,
  who: { readonly userId: number; readonly now: string; readonly today: string },
  transfer: { readonly id: number; readonly fromLocationId: number; readonly toLocationId: number },
  lines: readonly Outgoing[],
): Promise<Result<{ values: number[]; crossed: readonly CrossedLevel[] }, Failure>> {
  const transit = await readTransit(tx);
  const { fromLocationId, toLocationId } = transfer;
  const itemIds = [...new Set(lines.map((l) => l.itemId))];
  const at = (locationId: number) => itemIds.map((itemId) => ({ itemId, locationId }));
  await lockLevels(tx, [...at(fromLocationId), ...at(transit)]);
  const promises = await lockAllocations(
    tx,
    lines.flatMap((l) => (l.allocationId === null ? [] : [l.allocationId])),
  );
  for (const a of promises) {
    const line = lines.find((l) => l.allocationId === a.id) as Outgoing;
    await endAllocation(tx, a, line.quantity, 'released');
  }
  // Under the same locks, so nobody can have promised it meanwhile.
  const levels = await lockLevels(tx, at(fromLocationId));
  const wanted = new Map<number, Quantity>();
  for (const l of lines) wanted.set(l.itemId, (wanted.get(l.itemId) ?? 0) + l.quantity);
  for (const [itemId, quantity] of wanted) {
    const level = levels.find((l) => l.itemId === itemId);
    const free = Math.max(0, level ? freeOf(level) : 0);
    if (free < quantity) return err({ kind: 'not_free', itemId, free });
  }
  const change = (l: Outgoing, locationId: number, quantity: number, value: number | null): StockChange => ({
    itemId: l.itemId,
    locationId,
    kind: 'transfer',
    businessDate: who.today,
    quantity,
    value,
    document: { kind: 'transfer', id: transfer.id, line: l.lineNo },
  });
  const from = lines.map((l) => change(l, fromLocationId, -l.quantity, null));
  const out = await postMovements(tx, who.userId, who.now, who.today, from);
  if (!out.ok) return out;
  const values = out.value.map((p) => -p.valueChange);
  const into = lines.map((l, i) => change(l, transit, l.quantity, values[i] as number));
  const moved = await postMovements(tx, who.userId, who.now, who.today, into);
  if (!moved.ok) return moved;
  // On the way to where they go.
  markDirty(tx, at(toLocationId));
  return ok({ values, crossed: await crossingsOf(tx, levels, from) });
}
