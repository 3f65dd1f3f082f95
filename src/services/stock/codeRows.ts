import { parseGtin } from '@/core/codes';
import { checked, parseQuantity, type Quantity } from '@/core/quantity';
import { err, ok, type Result } from '@/core/result';
import type { CountTableRow } from '@/core/stock';
import { findByCodes } from '@/data/repositories/find';
import type { Tx } from '@/data/sql';
import type { CountRowFault, Failure } from '../failure';

/** Faults that are told of a list. */
const MOST_TOLD = 20;

/** Quantities by item of rows that name items by number or barcode; what stands in several rows is added up.
 *  Errors: wrong_count_rows, for the whole. */
export async function quantitiesByItem(
  tx: Tx,
  rows: readonly CountTableRow[],
): Promise<Result<Map<number, Quantity>, Failure>> {
  const faults: CountRowFault[] = [];
  const codes = [...new Set(rows.map((r) => r.code))].map((text) => {
    const gtin = parseGtin(text);
    return { text, gtin: gtin.ok ? gtin.value : '' };
  });
  const known = await findByCodes(tx, codes);
  const sums = new Map<number, Quantity>();
  for (const { row, code, quantity } of rows) {
    const ids = known.get(code) ?? [];
    const q = parseQuantity(quantity);
    const [itemId] = ids;
    if (itemId === undefined || ids.length > 1)
      faults.push({ row, text: code, why: itemId === undefined ? 'unknown' : 'several' });
    else if (!q.ok) faults.push({ row, text: quantity, why: 'not_a_quantity' });
    else sums.set(itemId, checked((sums.get(itemId) ?? 0) + q.value));
  }
  if (faults.length > 0)
    return err({ kind: 'wrong_count_rows', faults: faults.slice(0, MOST_TOLD), of: faults.length });
  return ok(sums);
}
