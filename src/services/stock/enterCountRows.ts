import { type Actor, may } from '@/core/people';
import { err, type Result } from '@/core/result';
import type { CountTableRow } from '@/core/stock';
import { command, type Request } from '../command';
import type { Deps } from '../deps';
import type { Failure } from '../failure';
import { quantitiesByItem } from './codeRows';
import { type EnteredLine, enterFigures } from './countFigures';

export type EnterCountRows = {
  readonly countId: number;
  readonly countedAt: string;
  readonly rows: readonly CountTableRow[];
};

/** What was found, from a file or a scanner: item numbers or barcodes with quantities; what stands in several rows (it lies
 *  in several places) is added up. It is taken whole or not at all.
 *  Errors: forbidden, not_found, count_ended, nothing_counted, wrong_count_rows, invalid_field countedAt. */
export async function enterCountRows(
  deps: Deps,
  actor: Actor,
  request: Request<EnterCountRows>,
): Promise<Result<{ lines: readonly EnteredLine[] }, Failure>> {
  const allowed = may(actor, 'stock.count');
  if (!allowed.ok) return allowed;
  const { countId, countedAt, rows } = request.input;
  if (rows.length === 0) return err({ kind: 'nothing_counted' });
  return command(deps, actor, 'enter-count-rows', request, async (tx, now) => {
    const found = await quantitiesByItem(tx, rows);
    if (!found.ok) return found;
    return enterFigures(deps, tx, actor, now, {
      ...{ countId, countedAt },
      figures: [...found.value].map(([itemId, quantity]) => ({ itemId, round: 'first', found: quantity })),
    });
  });
}
