import type { LevelValue } from '@/core/ledger';
import type { Quantity } from '@/core/quantity';
import type { MovementDocument, MovementKind, Pair } from '@/data/repositories/levels';

/** Movements of which a plan knows nothing: what is on the way, in trays and promised elsewhere stays as it was. */
export const onlyMoves: ReadonlySet<MovementKind> = new Set(['sale', 'correction', 'count', 'use']);

/** One change of stock. What comes in has a value; what goes out has one when a document says it (a reversal, transit),
 *  else it goes at moving average. */
export type StockChange = Pair & {
  readonly kind: MovementKind;
  readonly businessDate: string;
  readonly quantity: Quantity;
  /** Minor units: positive with what comes in, negative with what goes out at a known value; null = at moving average. */
  readonly value: number | null;
  readonly document: MovementDocument;
  /** What a piece beyond the stock costs when nothing ever came in: a value for a quantity. */
  readonly lastCost?: LevelValue;
  /** The lots it is of, as far as they are known (null = none); of what goes out, that were named. */
  readonly lots?: readonly { readonly lotId: number | null; readonly quantity: Quantity }[];
};
