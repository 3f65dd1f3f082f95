import { barcodeText } from '@/core/codes';
import { landedPerUnit } from '@/core/landed';
import { eachText, pricePerBaseUnit } from '@/core/money';
import { packContent } from '@/core/packs';
import { type Actor, may } from '@/core/people';
import type { EffectivePolicy } from '@/core/policy';
import { openOf } from '@/core/purchase';
import { fromDecimal, type Quantity } from '@/core/quantity';
import { err, ok, type Result } from '@/core/result';
import { type Fraction, fraction } from '@/core/units';
import {
  type ComponentRow,
  findItem,
  type ItemFacts,
  type ItemRow,
  readBarcodes,
  readComponents,
  readItemFacts,
  readItemIds,
  readItemsByIds,
  readPacks,
  readShelves,
  type SourceRow,
} from '@/data/repositories/catalogue';
import { readCompany, readLocations } from '@/data/repositories/company';
import { readKnownCosts } from '@/data/repositories/costs';
import { type MovementRow, readLevels, readMovements, readStockValues } from '@/data/repositories/levels';
import { partFigures } from '@/data/repositories/orders';
import { readStates } from '@/data/repositories/planning';
import { type ExpectedRow, readExpected } from '@/data/repositories/receipts';
import type { Tx } from '@/data/sql';
import { readSnapshot } from '@/data/transaction';
import { type Deps, todayOf } from '../deps';
import type { Failure } from '../failure';
import { groupBy, pairKey, pairMap } from '../grouping';
import { type AskedRows, keepList, type Page, readRows } from '../lists/keptList';
import { readPairPlans } from '../planning/pairPlans';
import { type Bought, readBought } from '../purchase/bought';
import { type Gauge, gaugeOf } from '../stock/gauge';
import { readBuying } from './buying';
import { everyItem, findItems, type ItemsAsked } from './findItems';

export type ItemSummary = {
  readonly item: ItemRow;
  readonly gauge: Gauge;
  /** Free stock at each place, when all places are shown. */
  readonly byPlace: readonly { readonly name: string; readonly free: Quantity }[];
  readonly value: number;
  readonly supplier: string | null;
  readonly each: string | null;
  /** Of each. */
  readonly currency: string;
  readonly openNeeds: number;
  /** What a base unit of the last receipt cost, in the company's currency. */
  readonly lastCost: string | null;
  /** Where it lies, when one place is shown. */
  readonly shelf: string;
};

export type { ItemSort, ItemsAsked, ItemView as ItemListView } from './findItems';
export type ItemListHead = {
  readonly list: string;
  readonly count: number;
  readonly value: number;
  readonly currency: string;
  /** Items that were made in the middle of other work and lack something. */
  readonly toComplete: number;
};
type About = { readonly locationId: number | null };

/** Opens the list of items asked for, for all places of the person or for one. Errors: forbidden. */
export async function openItems(
  deps: Deps,
  actor: Actor,
  filter: Partial<ItemsAsked> & { readonly locationId: number | null },
): Promise<Result<ItemListHead, Failure>> {
  const allowed = may(actor, 'stock.read', filter.locationId === null ? {} : { locationIds: [filter.locationId] });
  if (!allowed.ok) return allowed;
  const at = filter.locationId === null ? actor.locations : [filter.locationId];
  const { ids, ...head } = await readSnapshot(deps.pool, async (tx) => {
    const ids = await findItems(tx, actor, { ...everyItem, ...filter }, at);
    const values = await readStockValues(tx, at);
    return {
      ids,
      value: ids.reduce((sum, id) => sum + (values.get(id) ?? 0), 0),
      currency: (await readCompany(tx)).currency,
      toComplete: (await readItemIds(tx, { toComplete: true }, 'name')).length,
    };
  });
  const about: About = { locationId: filter.locationId };
  const list = await keepList(deps, actor, 'items', { ids, about });
  return ok({ list, count: ids.length, ...head });
}

/** Up to 200 items of an open list, as they are now, with stock of all places (or of the one) added up. Min and max show
 *  only for one place: needs are never netted across places. Errors: forbidden, list_gone. */
export async function readItemRows(
  deps: Deps,
  actor: Actor,
  asked: AskedRows,
): Promise<Result<Page<ItemSummary>, Failure>> {
  const allowed = may(actor, 'stock.read');
  if (!allowed.ok) return allowed;
  return readRows(deps, actor, 'items', asked, async (tx, { entries, about }) => {
    const { locationId } = about as About;
    return summariesOf(deps, tx, [...entries], locationId === null ? actor.locations : [locationId], locationId);
  });
}

async function summariesOf(
  deps: Deps,
  tx: Tx,
  ids: readonly number[],
  at: readonly number[] | null,
  locationId: number | null,
): Promise<ItemSummary[]> {
  const company = await readCompany(tx);
  const today = todayOf(deps, company);
  const items = await readItemsByIds(tx, ids);
  const allLevels = await readLevels(tx, ids, at);
  const [levels, levelsOf] = [pairMap(allLevels), groupBy(allLevels, (l) => l.itemId)];
  const statesOf = groupBy(await readStates(tx, ids, at), (s) => s.itemId);
  const book = await readBuying(tx, ids);
  const places = (await readLocations(tx)).filter((l) => l.closed === 0);
  const costs = new Map((await readKnownCosts(tx, ids)).map((c) => [c.itemId, c]));
  const shelves = new Map(
    locationId === null ? [] : (await readShelves(tx, ids, locationId)).map((s) => [s.itemId, s.shelf]),
  );
  return ids.flatMap((id): ItemSummary[] => {
    const item = items.get(id);
    if (!item) return [];
    const states = statesOf.get(id) ?? [];
    const gauges = states.map((s) => gaugeOf(levels.get(pairKey(id, s.locationId)), s));
    const sum = (key: 'onHand' | 'free' | 'coming' | 'inTrays' | 'owed') => gauges.reduce((a, g) => a + g[key], 0);
    const one = locationId === null ? null : (gauges[0] ?? null);
    const buying = book.preferred.get(id);
    const price = buying?.priceAt(0, today) ?? null;
    const cost = costs.get(id);
    const summary = {
      item,
      gauge: {
        onHand: sum('onHand'),
        free: sum('free'),
        coming: sum('coming'),
        inTrays: sum('inTrays'),
        owed: sum('owed'),
        min: one?.min ?? null,
        max: one?.max ?? null,
      },
      byPlace:
        locationId === null
          ? places.flatMap((p) => {
              const i = states.findIndex((s) => s.locationId === p.id);
              return i < 0 ? [] : [{ name: p.name, free: gauges[i]?.free ?? 0 }];
            })
          : [],
      value: (levelsOf.get(id) ?? []).reduce((a, l) => a + l.value, 0),
      supplier: buying?.source.supplierName ?? null,
      each: price && eachText(price, buying?.source.currency ?? company.currency),
      openNeeds: states.filter((s) => s.needState === 'open').length,
      currency: buying?.source.currency ?? company.currency,
      lastCost:
        cost?.lastQuantity && cost.lastValue !== null
          ? landedPerUnit(cost.lastValue, fromDecimal(cost.lastQuantity), company.currency, 2)
          : null,
      shelf: shelves.get(id) ?? '',
    };
    return [summary];
  });
}

export type ItemPlace = {
  readonly locationId: number;
  readonly location: string;
  readonly gauge: Gauge;
  readonly value: number;
  readonly policy: Pick<EffectivePolicy, 'kind' | 'origin' | 'missing'>;
  /** The place that sends it here; null = bought. */
  readonly sentFrom: string | null;
  readonly need: Quantity;
  readonly needState: 'none' | 'open' | 'decided' | 'aside';
};

export type ItemView = {
  readonly item: ItemRow;
  readonly facts: ItemFacts;
  readonly barcodes: readonly { readonly text: string; readonly pack: string | null }[];
  readonly components: readonly ComponentRow[];
  readonly places: readonly ItemPlace[];
  readonly packs: readonly { readonly name: string; readonly content: Fraction }[];
  readonly sources: readonly {
    source: SourceRow;
    packName: string | null;
    each: string | null;
    perPack: string | null;
  }[];
  readonly expected: readonly (ExpectedRow & { readonly open: Quantity })[];
  readonly bought: readonly Bought[];
  readonly movements: readonly (MovementRow & { location: string })[];
  readonly currency: string;
};

/** One item: stock and policy per place, packs and sources, what is on order, what was bought, its movements.
 *  Errors: forbidden, not_found. */
export async function readItem(deps: Deps, actor: Actor, itemId: number): Promise<Result<ItemView, Failure>> {
  const allowed = may(actor, 'stock.read');
  if (!allowed.ok) return allowed;
  return readSnapshot<Result<ItemView, Failure>>(deps.pool, async (tx) => {
    const item = await findItem(tx, itemId);
    const facts = await readItemFacts(tx, itemId);
    if (!item || !facts) return err({ kind: 'not_found', what: 'item' });
    const company = await readCompany(tx);
    const today = todayOf(deps, company);
    const locations = (await readLocations(tx)).filter(
      (l) => actor.locations === null || actor.locations.includes(l.id),
    );
    const levels = await readLevels(tx, [itemId], actor.locations);
    const states = await readStates(tx, [itemId], actor.locations);
    const plans = await readPairPlans(tx, [itemId], today);
    const packRows = await readPacks(tx, [itemId]);
    const packs = new Map(packRows.map((p) => [p.id, p]));
    const book = await readBuying(tx, [itemId]);
    const names = new Map(locations.map((l) => [l.id, l.name]));
    const expected = await readExpected(tx, actor.locations, { itemId });
    return ok({
      item,
      facts,
      barcodes: (await readBarcodes(tx, itemId)).map((b) => ({ text: barcodeText(b), pack: b.pack })),
      components: await readComponents(tx, itemId),
      places: locations.map((l) => {
        const level = levels.find((x) => x.locationId === l.id);
        const state = states.find((x) => x.locationId === l.id);
        const plan = plans.at(itemId, l.id);
        return {
          locationId: l.id,
          location: l.name,
          gauge: gaugeOf(level, state),
          value: level?.value ?? 0,
          policy: {
            kind: plan?.policy.kind ?? 'none',
            origin: plan?.policy.origin ?? 'none',
            missing: plan?.policy.missing ?? [],
          },
          sentFrom: plan?.sentFrom ? (names.get(plan.sentFrom) ?? null) : null,
          need: fromDecimal(state?.suggested ?? '0'),
          needState: state?.needState ?? 'none',
        };
      }),
      packs: packRows.flatMap((p) => {
        const content = packContent(packs, p.id);
        return content.ok ? [{ name: p.name, content: content.value }] : [];
      }),
      sources: [...book.bySource.values()].map((b) => {
        const price = b.priceAt(0, today);
        return {
          source: b.source,
          packName: b.packName,
          each: price && pricePerBaseUnit(price, 4),
          perPack: price?.amount ?? null,
        };
      }),
      expected: expected.map((e) => ({
        ...e,
        open: openOf(partFigures(e), fraction(e.contentNum, e.contentDen)).base,
      })),
      bought: may(actor, 'orders.read').ok ? await readBought(tx, itemId, 5) : [],
      movements: (await readMovements(tx, itemId, actor.locations, 60)).map((m) => ({
        ...m,
        location: names.get(m.locationId) ?? '',
      })),
      currency: company.currency,
    });
  });
}
