import { type Actor, may } from '@/core/people';
import { fromDecimal, type Quantity } from '@/core/quantity';
import { err, ok, type Result } from '@/core/result';
import { readCompany } from '@/data/repositories/company';
import { findLots, type LotLine, type LotMove, readLotMoves } from '@/data/repositories/lots';
import { readSnapshot } from '@/data/transaction';
import { type Deps, todayOf } from '../deps';
import type { Failure } from '../failure';
import { groupBy } from '../grouping';

/** Lots that are shown at once. */
const MOST = 400;

export type LotSummary = Omit<LotLine, 'locationId' | 'location' | 'quantity'> & {
  readonly left: Quantity;
  readonly places: readonly { readonly location: string; readonly quantity: Quantity }[];
};
export type LotsView = {
  readonly lots: readonly LotSummary[];
  readonly more: boolean;
  readonly today: string;
  readonly item: { readonly id: number; readonly name: string; readonly number: string } | null;
};
export type LotsAsked = {
  /** Part of a lot or serial number, an item number or part of its name; '' = all with something left. */
  readonly search: string;
  readonly itemId: number | null;
  readonly locationId: number | null;
};

/** What is left of lots and where each serial number lies; the first to expire first. Lots with nothing left are found by
 *  their number. Errors: forbidden. */
export async function readLots(deps: Deps, actor: Actor, asked: LotsAsked): Promise<Result<LotsView, Failure>> {
  const { locationId } = asked;
  const allowed = may(actor, 'stock.read', locationId === null ? {} : { locationIds: [locationId] });
  if (!allowed.ok) return allowed;
  return readSnapshot(deps.pool, async (tx) => {
    const at = locationId === null ? actor.locations : [locationId];
    const rows = await findLots(tx, { search: asked.search, itemId: asked.itemId, locationIds: at }, MOST + 1);
    const lots = [...groupBy(rows.slice(0, MOST), (r) => r.lotId).values()].map((own) => summaryOf(actor, own));
    const [first] = lots;
    return ok({
      ...{ lots, more: rows.length > MOST, today: todayOf(deps, await readCompany(tx)) },
      item:
        asked.itemId !== null && first ? { id: first.itemId, name: first.itemName, number: first.itemNumber } : null,
    });
  });
}

/** A lot with its places; what it cost only for those who may see prices. */
function summaryOf(actor: Actor, own: readonly LotLine[]): LotSummary {
  const { locationId: _, location: __, quantity: ___, ...lot } = own[0] as LotLine;
  const cost = may(actor, 'orders.read').ok ? lot.cost : null;
  const places = own.flatMap((l) =>
    l.location === null ? [] : [{ location: l.location, quantity: fromDecimal(l.quantity) }],
  );
  return { ...lot, cost, places, left: places.reduce((a, p) => a + p.quantity, 0) };
}

export type LotView = {
  readonly lot: LotSummary;
  readonly moves: readonly LotMove[];
  readonly today: string;
  readonly currency: string;
};

/** One lot or serial number with everything that happened to it at the person's places. Errors: forbidden, not_found. */
export async function readLot(deps: Deps, actor: Actor, lotId: number): Promise<Result<LotView, Failure>> {
  const allowed = may(actor, 'stock.read');
  if (!allowed.ok) return allowed;
  return readSnapshot<Result<LotView, Failure>>(deps.pool, async (tx) => {
    const own = await findLots(tx, { search: '', itemId: null, locationIds: actor.locations, lotId }, 50);
    if (own.length === 0) return err({ kind: 'not_found', what: 'lot' });
    const company = await readCompany(tx);
    return ok({
      ...{ lot: summaryOf(actor, own), moves: await readLotMoves(tx, lotId, actor.locations) },
      ...{ today: todayOf(deps, company), currency: company.currency },
    });
  });
}
