import { type Actor, may } from '@/core/people';
import { err, ok, type Result } from '@/core/result';
import type { CountTableRow } from '@/core/stock';
import { readCompany, readLocations } from '@/data/repositories/company';
import { claimTillDay } from '@/data/repositories/tills';
import { command, type Request } from '../command';
import { type Deps, todayOf } from '../deps';
import type { Failure } from '../failure';
import { businessDayOf } from './businessDay';
import { quantitiesByItem } from './codeRows';
import { postSale } from './postSale';

/** What the till of a place sold on a day: item numbers or barcodes with quantities. */
export type TillDay = {
  readonly place: string;
  readonly day: string;
  readonly rows: readonly CountTableRow[];
};
export type TakenTillDay = {
  /** Number of the sale; null when the day had been taken before, or nothing was sold. */
  readonly sale: string | null;
  readonly crossed: number;
};

/** Takes what a till sold on a day as one sale; a day of a place is taken once, and again does nothing. Kits take their
 *  components. Errors: forbidden, not_found (location), wrong_count_rows, invalid_field businessDate, books_closed. */
export async function takeTillDay(
  deps: Deps,
  actor: Actor,
  request: Request<TillDay>,
): Promise<Result<TakenTillDay, Failure>> {
  const allowed = may(actor, 'stock.sell');
  if (!allowed.ok) return allowed;
  const { place, rows } = request.input;
  return command<TillDay, TakenTillDay>(deps, actor, 'take-till-day', request, async (tx, now) => {
    const location = (await readLocations(tx)).find((l) => l.code === place);
    if (!location) return err({ kind: 'not_found', what: 'location' });
    const here = may(actor, 'stock.sell', { locationIds: [location.id] });
    if (!here.ok) return here;
    const today = todayOf(deps, await readCompany(tx));
    const day = businessDayOf(request.input.day, today);
    if (!day.ok) return day;
    if (!(await claimTillDay(tx, location.id, day.value, now))) return ok({ sale: null, crossed: 0 });
    const sold = await quantitiesByItem(tx, rows);
    if (!sold.ok) return sold;
    const lines = [...sold.value].flatMap(([itemId, quantity]) =>
      quantity > 0 ? [{ itemId, quantity, allocationId: null }] : [],
    );
    if (lines.length === 0) return ok({ sale: null, crossed: 0 });
    const sale = { locationId: location.id, day: day.value, note: 'till', mixLots: true, lines };
    const posted = await postSale(tx, { userId: actor.userId, now, today }, sale);
    return posted.ok ? ok({ sale: posted.value.sale, crossed: posted.value.crossed.length }) : posted;
  });
}
