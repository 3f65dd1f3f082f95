import { checkLineQuantity } from '@/core/purchase';
import { parseQuantity, type Quantity } from '@/core/quantity';
import { err, ok, type Result } from '@/core/result';
import { readItemsByIds } from '@/data/repositories/catalogue';
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

/** Errors: not_found when a place or an item is not ours. */
export async function checkPlacesAndItems(
  tx: Tx,
  locationIds: readonly number[],
  itemIds: readonly number[],
): Promise<Result<void, Failure>> {
  const places = await readLocations(tx);
  if (locationIds.some((id) => !places.some((l) => l.id === id))) return err({ kind: 'not_found', what: 'location' });
  const items = await readItemsByIds(tx, [...new Set(itemIds)]);
  return itemIds.every((id) => items.has(id)) ? ok(undefined) : err({ kind: 'not_found', what: 'item' });
}
