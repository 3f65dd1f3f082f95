import { type Actor, may } from '@/core/people';
import type { Result } from '@/core/result';
import { readCompany } from '@/data/repositories/company';
import { command, type Request } from '../command';
import { type Deps, todayOf } from '../deps';
import type { Failure } from '../failure';
import { businessDayOf } from './businessDay';
import { quantitiesOf } from './enterLines';
import { postSale, type Sold } from './postSale';

/** Quantities in base units as typed; a line may take goods that were promised. An empty day is today. */
export type SellGoods = {
  readonly locationId: number;
  readonly businessDate: string;
  readonly lines: readonly {
    readonly itemId: number;
    readonly quantity: string;
    readonly allocationId: number | null;
    /** Lot or serial numbers that are handed over, as typed. */
    readonly lots?: string;
  }[];
  /** A line may be served from several dye lots. */
  readonly mixLots?: boolean;
};

/** Goods leave over the counter: a sale with its movements, in one transaction. Stock may go below zero; promises that the
 *  rest can't keep are released, newest first, and named. What no stock is kept of is sold without a movement; a kit takes its
 *  components.
 *  Errors: forbidden, not_found, invalid_field lines.<index> or businessDate, lots_would_mix, nothing_counted, books_closed. */
export async function sellGoods(deps: Deps, actor: Actor, request: Request<SellGoods>): Promise<Result<Sold, Failure>> {
  const { locationId, lines } = request.input;
  const allowed = may(actor, 'stock.sell', { locationIds: [locationId] });
  if (!allowed.ok) return allowed;
  const quantities = quantitiesOf(lines, 'positive');
  if (!quantities.ok) return quantities;
  return command(deps, actor, 'sell-goods', request, async (tx, now) => {
    const today = todayOf(deps, await readCompany(tx));
    const day = businessDayOf(request.input.businessDate, today);
    if (!day.ok) return day;
    const sold = lines.map((l, i) => ({ ...l, quantity: quantities.value[i] as number }));
    return postSale(
      tx,
      { userId: actor.userId, now, today },
      { locationId, day: day.value, note: '', mixLots: request.input.mixLots === true, lines: sold },
    );
  });
}
