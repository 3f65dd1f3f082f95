import { checked, fromDecimal } from '@/core/quantity';
import { ok, type Result } from '@/core/result';
import { readItemsByIds } from '@/data/repositories/catalogue';
import type { LevelRow } from '@/data/repositories/levels';
import { insertStockDocument } from '@/data/repositories/stockDocuments';
import type { Tx } from '@/data/sql';
import { type AtPlace, postAtPlace } from './postAtPlace';
import type { BooksClosed } from './postMovements';
import type { StockChange } from './stockChange';
import { valueOfFound } from './valueOfFound';

/** What was found of an item and what the books said at that moment, in decimals. */
export type CountedItem = {
  readonly itemId: number;
  readonly found: string;
  readonly expected: string;
  readonly reasonId: number | null;
};
export type CountDocument = AtPlace & { readonly documentId: number; readonly changes: readonly StockChange[] };

/** Posts what was counted at a place as one document: stock moves by each difference. What is missing leaves at moving average,
 *  what was found comes in at it; of items whose use nobody records the difference is use. `before` are the levels as they
 *  were locked for it. Errors: books_closed. */
export async function postCounted(
  tx: Tx,
  who: { readonly userId: number; readonly now: string; readonly today: string },
  count: { readonly number: string; readonly locationId: number; readonly note: string },
  before: readonly LevelRow[],
  lines: readonly CountedItem[],
): Promise<Result<CountDocument, BooksClosed>> {
  const { number, locationId, note } = count;
  const levels = new Map(before.map((l) => [l.itemId, l]));
  const items = await readItemsByIds(
    tx,
    lines.map((l) => l.itemId),
  );
  const documentId = await insertStockDocument(
    tx,
    {
      ...{ number, kind: 'count', locationId, businessDate: who.today, note, reasonId: null },
      ...{ userId: who.userId, at: who.now },
    },
    lines.map((l) => ({
      ...{ itemId: l.itemId, quantity: l.found, expected: l.expected },
      ...{ allocationId: null, movesStock: true, reasonId: l.reasonId },
    })),
  );
  const changes = lines.flatMap((l, i): StockChange[] => {
    const quantity = checked(fromDecimal(l.found) - fromDecimal(l.expected));
    if (quantity === 0) return [];
    return [
      {
        ...{ itemId: l.itemId, locationId, businessDate: who.today, quantity },
        kind: items.get(l.itemId)?.useRecorded === 0 ? 'use' : 'count',
        value: quantity > 0 ? valueOfFound(levels.get(l.itemId) as LevelRow, quantity) : null,
        document: { kind: 'count', id: documentId, line: i + 1 },
      },
    ];
  });
  const posted = await postAtPlace(tx, who, before, changes);
  return posted.ok ? ok({ documentId, changes, ...posted.value }) : posted;
}
