import { addDays } from '@/core/calendar';
import { decimalsOf } from '@/core/money';
import { type Actor, may } from '@/core/people';
import { fromDecimal, MICRO, type Quantity } from '@/core/quantity';
import { ok, type Result } from '@/core/result';
import { withoutTax } from '@/core/selling';
import { type MoverFigures, moverFigures } from '@/core/stock';
import { readItemsByIds, readSaleTerms } from '@/data/repositories/catalogue';
import { readCompany, readLocations } from '@/data/repositories/company';
import { readRates } from '@/data/repositories/demand';
import { type MoverRow, readLastSold, readMoverRows } from '@/data/repositories/movers';
import { readStates } from '@/data/repositories/planning';
import { readSnapshot } from '@/data/transaction';
import { everyItem, findItems } from '../catalogue/findItems';
import { type Deps, todayOf } from '../deps';
import type { Failure } from '../failure';
import { pairKey, pairMap } from '../grouping';
import { coverDaysOf } from './gauge';

export const moverOrders = ['sold', 'margin', 'slow', 'idle'] as const;
export const moverDays = ['91', '30', '182', '365'] as const;
/** Lines that are shown at once; an export has all. */
export const MOST_MOVERS = 200;

export type MoversAsked = {
  readonly order: (typeof moverOrders)[number];
  readonly days: number;
  readonly locationId: number | null;
  readonly category: string;
};

export type MoverLine = MoverFigures & {
  readonly itemId: number;
  readonly number: string;
  readonly name: string;
  readonly unit: string;
  readonly location: string;
  readonly sold: Quantity;
  readonly lastSold: string | null;
  readonly onHand: Quantity;
  readonly value: number;
  readonly coverDays: number | null;
  readonly abc: string | null;
  readonly xyz: string | null;
};

export type MoversView = {
  readonly lines: readonly MoverLine[];
  /** All that were found, and what lies there of them. */
  readonly count: number;
  readonly value: number;
  readonly costOfSales: number;
  readonly margin: number;
  readonly since: string;
  readonly today: string;
  readonly currency: string;
};

/** How items move at each place over the last days: those that sell most (by cost), that earn most, that turn slowest of
 *  what lies there, and of which nothing was sold at all, the most valuable first. Cost and margin at today's figures.
 *  Errors: forbidden. */
export async function readMovers(
  deps: Deps,
  actor: Actor,
  asked: MoversAsked,
  most = MOST_MOVERS,
): Promise<Result<MoversView, Failure>> {
  const { locationId, days } = asked;
  const allowed = may(actor, 'stock.read', locationId === null ? {} : { locationIds: [locationId] });
  if (!allowed.ok) return allowed;
  return readSnapshot(deps.pool, async (tx) => {
    const company = await readCompany(tx);
    const today = todayOf(deps, company);
    const since = addDays(today, -days);
    const at = locationId === null ? actor.locations : [locationId];
    const within =
      asked.category === ''
        ? null
        : new Set(await findItems(tx, actor, { ...everyItem, category: asked.category, stockKept: true }, null));
    const rows = (await readMoverRows(tx, since, at)).filter((r) => within === null || within.has(r.itemId));
    const ids = [...new Set(rows.map((r) => r.itemId))];
    const decimals = decimalsOf(company.currency);
    const nets = new Map(
      (await readSaleTerms(tx, ids)).map((t) => {
        const net = withoutTax(t, decimals + 4);
        return [t.itemId, net === null ? null : Number(net) * 10 ** decimals];
      }),
    );
    const figured = rows.map((r) => ({
      ...{ row: r, sold: fromDecimal(r.sold), onHand: fromDecimal(r.onHand) },
      figures: moverFigures({
        ...{ sold: fromDecimal(r.sold), days, onHand: fromDecimal(r.onHand), value: r.value },
        ...{ unitCost: unitCostOf(r), unitNet: nets.get(r.itemId) ?? null },
      }),
    }));
    const fit = figured.filter((m) => fits(m, asked.order)).sort((a, b) => before(a, b, asked.order));
    const shown = fit.slice(0, most);
    const shownIds = [...new Set(shown.map((m) => m.row.itemId))];
    const items = await readItemsByIds(tx, shownIds);
    const places = new Map((await readLocations(tx)).map((l) => [l.id, l.name]));
    const rates = pairMap(await readRates(tx, shownIds));
    const states = pairMap(await readStates(tx, shownIds));
    const last = pairMap(await readLastSold(tx, shownIds));
    const sum = (of: (m: (typeof fit)[number]) => number) => fit.reduce((a, m) => a + of(m), 0);
    return ok({
      lines: shown.map(({ row, sold, onHand, figures }): MoverLine => {
        const item = items.get(row.itemId);
        const key = pairKey(row.itemId, row.locationId);
        const rate = rates.get(key);
        return {
          ...figures,
          ...{ itemId: row.itemId, number: item?.number ?? '', name: item?.name ?? '', unit: item?.unitName ?? '' },
          ...{
            location: places.get(row.locationId) ?? '',
            sold,
            lastSold: last.get(key)?.day ?? null,
            onHand,
            value: row.value,
          },
          ...{ coverDays: coverDaysOf(states.get(key)), abc: rate?.abc ?? null, xyz: rate?.xyz ?? null },
        };
      }),
      ...{ count: fit.length, value: sum((m) => m.row.value) },
      ...{ costOfSales: sum((m) => m.figures.costOfSales ?? 0), margin: sum((m) => m.figures.margin ?? 0) },
      ...{ since, today, currency: company.currency },
    });
  });
}

type Figured = {
  readonly row: MoverRow;
  readonly sold: Quantity;
  readonly onHand: Quantity;
  readonly figures: MoverFigures;
};

/** What one costs: the average of what is there, else what came last; minor units. */
function unitCostOf(r: MoverRow): number | null {
  const onHand = fromDecimal(r.onHand);
  if (onHand > 0) return (r.value * MICRO) / onHand;
  const last = r.lastCostQuantity === null ? 0 : fromDecimal(r.lastCostQuantity);
  return last > 0 ? ((r.lastCost ?? 0) * MICRO) / last : null;
}

const fits = (m: Figured, order: MoversAsked['order']): boolean => {
  if (order === 'idle') return m.onHand > 0 && m.sold <= 0;
  if (order === 'slow') return m.onHand > 0 && m.sold > 0 && m.figures.turns !== null;
  return m.sold > 0;
};

function before(a: Figured, b: Figured, order: MoversAsked['order']): number {
  switch (order) {
    case 'sold':
      return (b.figures.costOfSales ?? 0) - (a.figures.costOfSales ?? 0) || a.row.itemId - b.row.itemId;
    case 'margin':
      return (b.figures.margin ?? 0) - (a.figures.margin ?? 0) || a.row.itemId - b.row.itemId;
    case 'slow':
      return (a.figures.turns ?? 0) - (b.figures.turns ?? 0) || b.row.value - a.row.value;
    case 'idle':
      return b.row.value - a.row.value || a.row.itemId - b.row.itemId;
  }
}
