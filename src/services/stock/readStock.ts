import { arrivesIfOrdered, daysBetween } from '@/core/calendar';
import { surplusOf } from '@/core/netting';
import { roundToStep } from '@/core/packs';
import { type Actor, may } from '@/core/people';
import { fromDecimal, type Quantity } from '@/core/quantity';
import { ok, type Result } from '@/core/result';
import { worthOfPart } from '@/core/stock';
import { readItemsByIds } from '@/data/repositories/catalogue';
import { readCompany, readLocations } from '@/data/repositories/company';
import { readRates } from '@/data/repositories/demand';
import { readLevels, readStockValues } from '@/data/repositories/levels';
import { readComing } from '@/data/repositories/openSupply';
import { readStates } from '@/data/repositories/planning';
import { readExcess, readStockItems, type StockShow } from '@/data/repositories/stockLists';
import type { Tx } from '@/data/sql';
import { readSnapshot } from '@/data/transaction';
import { everyItem, findItems } from '../catalogue/findItems';
import { type Deps, timeOf, todayOf } from '../deps';
import type { Failure } from '../failure';
import { pairKey, pairMap } from '../grouping';
import { type AskedRows, keepList, type Page, readRows } from '../lists/keptList';
import { readPairPlans } from '../planning/pairPlans';
import { coverDaysOf, type Gauge, gaugeOf } from './gauge';

/** What there is of an item at a place, all terms apart. Quantities in millionths of the base unit, value in minor units. */
export type StockAt = {
  readonly locationId: number;
  readonly location: string;
  readonly gauge: Gauge;
  readonly onHand: Quantity;
  readonly allocated: Quantity;
  readonly inspection: Quantity;
  readonly blocked: Quantity;
  readonly free: Quantity;
  readonly onOrder: Quantity;
  readonly inDrafts: Quantity;
  /** On the road, and approved but not yet sent. */
  readonly inTransit: Quantity;
  readonly toBeSent: Quantity;
  /** Asked for by other places and suggested to those supplied from here. */
  readonly planned: Quantity;
  /** Of what is coming: bought one to one for lines that other places ask for. */
  readonly pegged: Quantity;
  readonly value: number;
  readonly coverDays: number | null;
  readonly belowMin: boolean;
  readonly excess: Quantity;
  /** Could be sent away: free less minimum, reserve and what is sold until it can refill. */
  readonly surplus: Quantity;
};

export type StockLine = {
  readonly itemId: number;
  readonly number: string;
  readonly name: string;
  readonly unit: string;
  readonly places: readonly StockAt[];
  /** When goods sent today are at each place. */
  readonly sentArrives: readonly { readonly locationId: number; readonly date: string }[];
};

export type StockHead = {
  readonly list: string;
  readonly count: number;
  readonly value: number;
  /** Of what is beyond the maximum, when the list is of that. */
  readonly excessValue: number | null;
  readonly currency: string;
  readonly places: readonly { readonly id: number; readonly name: string }[];
};

export const stockSorts = ['name', 'number', 'value'] as const;
export const stockShows = [
  '',
  'below',
  'above',
  'negative',
  'in_stock',
  'idle',
] as const satisfies readonly StockShow[];
export type StockAsked = {
  readonly search: string;
  readonly locationId: number | null;
  readonly sort: (typeof stockSorts)[number];
  readonly category: string;
  readonly show: StockShow;
  /** With "idle": nothing sold for so many days. */
  readonly days: number;
};
type About = { readonly locationIds: readonly number[] };

/** Opens the list of stock: the items found that stock is kept of, at one place or at all of the person's.
 *  Errors: forbidden. */
export async function openStock(deps: Deps, actor: Actor, asked: StockAsked): Promise<Result<StockHead, Failure>> {
  const { locationId } = asked;
  const allowed = may(actor, 'stock.read', locationId === null ? {} : { locationIds: [locationId] });
  if (!allowed.ok) return allowed;
  const found = await readSnapshot(deps.pool, async (tx) => {
    const company = await readCompany(tx);
    const places = (await readLocations(tx)).filter(
      (l) => l.closed === 0 && (locationId === null ? (actor.locations?.includes(l.id) ?? true) : l.id === locationId),
    );
    const locationIds = places.map((l) => l.id);
    const { search, sort, category } = asked;
    const ids = await findItems(tx, actor, { ...everyItem, search, sort, category, stockKept: true }, locationIds);
    const only = await readStockItems(tx, asked.show, locationIds, { days: asked.days, today: todayOf(deps, company) });
    const items = only ? ids.filter((id) => only.has(id)) : ids;
    const values = await readStockValues(tx, locationIds);
    const value = items.reduce((a, id) => a + (values.get(id) ?? 0), 0);
    const listed = new Set(items);
    const excess =
      asked.show === 'above' ? (await readExcess(tx, locationIds)).filter((e) => listed.has(e.itemId)) : null;
    return {
      excessValue:
        excess?.reduce(
          (a, e) => a + worthOfPart(fromDecimal(e.excess), { quantity: fromDecimal(e.onHand), value: e.value }),
          0,
        ) ?? null,
      items,
      locationIds,
      value,
      currency: company.currency,
      places: places.map(({ id, name }) => ({ id, name })),
    };
  });
  const about: About = { locationIds: found.locationIds };
  const list = await keepList(deps, actor, 'stock', { ids: found.items, about });
  const { value, excessValue, currency, places } = found;
  return ok({ list, count: found.items.length, value, excessValue, currency, places });
}

/** Up to 200 lines of an open list of stock, as they are now. Errors: forbidden, list_gone. */
export async function readStockRows(
  deps: Deps,
  actor: Actor,
  asked: AskedRows,
): Promise<Result<Page<StockLine>, Failure>> {
  const allowed = may(actor, 'stock.read');
  if (!allowed.ok) return allowed;
  return readRows(deps, actor, 'stock', asked, (tx, { entries, about }) =>
    stockLinesOf(deps, tx, [...entries], (about as About).locationIds),
  );
}

export async function stockLinesOf(
  deps: Deps,
  tx: Tx,
  ids: readonly number[],
  locationIds: readonly number[],
): Promise<StockLine[]> {
  const company = await readCompany(tx);
  const [today, time] = [todayOf(deps, company), timeOf(deps, company)];
  const items = await readItemsByIds(tx, ids);
  const levels = pairMap(await readLevels(tx, ids));
  const states = pairMap(await readStates(tx, ids));
  const rates = pairMap(await readRates(tx, ids));
  const coming = pairMap(await readComing(tx, ids));
  const plans = await readPairPlans(tx, ids, today);
  const places = (await readLocations(tx)).filter((l) => locationIds.includes(l.id));
  const q = (text: string | undefined) => fromDecimal(text ?? '0');
  const sentArrives = places.map((l) => ({
    locationId: l.id,
    date: arrivesIfOrdered(plans.calendars.sending(l.id), today),
  }));
  return ids.map((itemId) => {
    const item = items.get(itemId);
    return {
      itemId,
      number: item?.number ?? '',
      name: item?.name ?? '',
      unit: item?.unitName ?? '',
      sentArrives,
      places: places.map((l): StockAt => {
        const key = pairKey(itemId, l.id);
        const [level, state, due] = [levels.get(key), states.get(key), coming.get(key)];
        const here = plans.at(itemId, l.id);
        const gauge = gaugeOf(level, state);
        const refill = here?.calendar ? daysBetween(today, arrivesIfOrdered(here.calendar, today, time)) : 0;
        const surplus = surplusOf({
          free: gauge.free,
          min: here?.plan.rule === 'level' ? here.plan.level : 0,
          reserve: here?.policy.reserve ?? 0,
          perDay: q(rates.get(key)?.perDay),
          daysToRefill: refill,
        });
        return {
          ...{ locationId: l.id, location: l.name, gauge, onHand: gauge.onHand, free: gauge.free },
          ...{ allocated: q(level?.allocated), inspection: q(level?.inspection), blocked: q(level?.blocked) },
          ...{
            onOrder: q(due?.onOrder),
            inDrafts: q(due?.inDrafts),
            inTransit: q(due?.inTransit),
            toBeSent: q(due?.approved),
          },
          ...{ planned: q(state?.planned), pegged: q(state?.pegged) },
          value: level?.value ?? 0,
          coverDays: coverDaysOf(state),
          belowMin: state?.belowMin === 1,
          excess: q(state?.excess),
          surplus: roundToStep(surplus, here?.figures.unitMicro ?? 1e6, 'down'),
        };
      }),
    };
  });
}
