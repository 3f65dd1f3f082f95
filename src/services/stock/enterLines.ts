import { checkLineQuantity } from '@/core/purchase';
import { MICRO, parseQuantity, type Quantity } from '@/core/quantity';
import { err, ok, type Result } from '@/core/result';
import { type ItemRow, readItemsByIds } from '@/data/repositories/catalogue';
import { readLocations } from '@/data/repositories/company';
import type { Tx } from '@/data/sql';
import { type Failure, invalidField } from '../failure';

/** Quantities of the lines of a stock document as typed, in base units; `zero` allows 0 (a count).
 *  Errors: nothing_counted without a line; invalid_field with field = lines.<index>. */
export function quantitiesOf(
  lines: readonly { readonly quantity: string }[],
  zero: 'zero' | 'positive',
): Result<Quantity[], Failure> {
  if (lines.length === 0) return err({ kind: 'nothing_counted' });
  const read: Quantity[] = [];
  for (const [i, l] of lines.entries()) {
    const q = zero === 'zero' ? parseQuantity(l.quantity) : checkLineQuantity(l.quantity);
    if (!q.ok) return err(invalidField(`lines.${i}`, q.error));
    read.push(q.value);
  }
  return ok(read);
}

type Items = ReadonlyMap<number, ItemRow>;

/** The items of the lines. Errors: not_found when a place or an item is not ours. */
export async function itemsOfLines(
  tx: Tx,
  locationIds: readonly number[],
  itemIds: readonly number[],
): Promise<Result<Items, Failure>> {
  const places = await readLocations(tx);
  if (locationIds.some((id) => !places.some((l) => l.id === id))) return err({ kind: 'not_found', what: 'location' });
  const items = await readItemsByIds(tx, [...new Set(itemIds)]);
  return itemIds.every((id) => items.has(id)) ? ok(items) : err({ kind: 'not_found', what: 'item' });
}

/** The same for what only makes sense where stock is kept: counts, promises, transfers.
 *  Errors: not_found; invalid_field lines.<index>, stock_not_kept. */
export async function itemsInStock(
  tx: Tx,
  locationIds: readonly number[],
  itemIds: readonly number[],
): Promise<Result<Items, Failure>> {
  const items = await itemsOfLines(tx, locationIds, itemIds);
  if (!items.ok) return items;
  const index = itemIds.findIndex((id) => items.value.get(id)?.stockKept === 0);
  if (index === -1) return items;
  const { name } = items.value.get(itemIds[index] as number) as ItemRow;
  return err(invalidField(`lines.${index}`, { kind: 'stock_not_kept', item: name }));
}

/** Refuses a quantity that is finer than its item is sold. Errors: invalid_field lines.<index>, sold_to_decimals. */
export function checkSaleDecimals(
  items: Items,
  lines: readonly { readonly itemId: number }[],
  quantities: readonly Quantity[],
): Result<void, Failure> {
  for (const [i, { itemId }] of lines.entries()) {
    const { name, saleDecimals } = items.get(itemId) as ItemRow;
    if ((quantities[i] as number) % (MICRO / 10 ** saleDecimals) !== 0)
      return err(invalidField(`lines.${i}`, { kind: 'sold_to_decimals', item: name, decimals: saleDecimals }));
  }
  return ok(undefined);
}
