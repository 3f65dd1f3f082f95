import { pricePerBaseUnit } from '@/core/money';
import { packContent } from '@/core/packs';
import { type Actor, may } from '@/core/people';
import type { EffectivePolicy } from '@/core/policy';
import { openOf } from '@/core/purchase';
import { fromDecimal, type Quantity } from '@/core/quantity';
import { err, ok, type Result } from '@/core/result';
import { type Fraction, fraction } from '@/core/units';
import {
  findItem,
  type ItemRow,
  readItems as readItemRows,
  readPacks,
  type SourceRow,
} from '@/data/repositories/catalogue';
import { readCompany, readLocations } from '@/data/repositories/company';
import { type MovementRow, readLevels, readMovements } from '@/data/repositories/levels';
import { partFigures } from '@/data/repositories/orders';
import { readStates } from '@/data/repositories/planning';
import { readPoliciesOf } from '@/data/repositories/policies';
import { type ExpectedRow, readExpected } from '@/data/repositories/receipts';
import { readSnapshot } from '@/data/transaction';
import { type Deps, todayOf } from '../deps';
import type { Failure } from '../failure';
import { policyAt } from '../planning/reckonPair';
import { type Bought, readBought } from '../purchase/bought';
import { type Gauge, gaugeOf } from '../stock/gauge';
import { readBuying } from './buying';

export type ItemSummary = {
  readonly item: ItemRow;
  readonly gauge: Gauge;
  /** Free stock at each place, when all places are shown. */
  readonly byPlace: readonly { readonly name: string; readonly free: Quantity }[];
  readonly value: number;
  readonly supplier: string | null;
  readonly each: string | null;
  readonly openNeeds: number;
};

/** Items by name or number, with stock of all places (or of one) added up. Min and max show only for one place: needs are
 *  never netted across places. Errors: forbidden. */
export async function readItems(
  deps: Deps,
  actor: Actor,
  filter: { readonly search: string; readonly locationId: number | null },
): Promise<Result<{ items: ItemSummary[]; currency: string }, Failure>> {
  const allowed = may(actor, 'stock.read', filter.locationId === null ? {} : { locationIds: [filter.locationId] });
  if (!allowed.ok) return allowed;
  return readSnapshot(deps.pool, async (tx) => {
    const company = await readCompany(tx);
    const today = todayOf(deps, company);
    const rows = await readItemRows(tx, filter.search);
    const ids = rows.map((r) => r.id);
    const at = filter.locationId === null ? actor.locations : [filter.locationId];
    const levels = await readLevels(tx, ids, at);
    const states = await readStates(tx, ids, at);
    const settings = await readPoliciesOf(tx, ids);
    const book = await readBuying(tx, ids);
    const places = await readLocations(tx);
    const items = rows.map((item): ItemSummary => {
      const own = levels.filter((l) => l.itemId === item.id);
      const ownStates = states.filter((s) => s.itemId === item.id);
      const gauges = ownStates.map((s) =>
        gaugeOf(
          own.find((l) => l.locationId === s.locationId),
          s,
          policyAt(company, settings, item.id, s.locationId),
        ),
      );
      const sum = (key: 'onHand' | 'free' | 'coming' | 'inTrays' | 'owed') => gauges.reduce((a, g) => a + g[key], 0);
      const one = filter.locationId === null ? null : (gauges[0] ?? null);
      const buying = book.preferred.get(item.id);
      const price = buying?.priceAt(0, today) ?? null;
      return {
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
          filter.locationId === null
            ? places.flatMap((p) => {
                const i = ownStates.findIndex((s) => s.locationId === p.id);
                return i < 0 ? [] : [{ name: p.name, free: gauges[i]?.free ?? 0 }];
              })
            : [],
        value: own.reduce((a, l) => a + l.value, 0),
        supplier: buying?.source.supplierName ?? null,
        each: price && pricePerBaseUnit(price, 2),
        openNeeds: ownStates.filter((s) => s.needState === 'open').length,
      };
    });
    return ok({ items, currency: company.currency });
  });
}

export type ItemPlace = {
  readonly locationId: number;
  readonly location: string;
  readonly gauge: Gauge;
  readonly value: number;
  readonly policy: EffectivePolicy;
  readonly need: Quantity;
  readonly needState: 'none' | 'open' | 'decided';
};

export type ItemView = {
  readonly item: ItemRow;
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
    if (!item) return err({ kind: 'not_found', what: 'item' });
    const company = await readCompany(tx);
    const today = todayOf(deps, company);
    const locations = (await readLocations(tx)).filter(
      (l) => actor.locations === null || actor.locations.includes(l.id),
    );
    const levels = await readLevels(tx, [itemId], actor.locations);
    const states = await readStates(tx, [itemId], actor.locations);
    const settings = await readPoliciesOf(tx, [itemId]);
    const packRows = await readPacks(tx, [itemId]);
    const packs = new Map(packRows.map((p) => [p.id, p]));
    const book = await readBuying(tx, [itemId]);
    const names = new Map(locations.map((l) => [l.id, l.name]));
    const expected = await readExpected(tx, actor.locations, { itemId });
    return ok({
      item,
      places: locations.map((l) => {
        const level = levels.find((x) => x.locationId === l.id);
        const state = states.find((x) => x.locationId === l.id);
        const policy = policyAt(company, settings, itemId, l.id);
        return {
          locationId: l.id,
          location: l.name,
          gauge: gaugeOf(level, state, policy),
          value: level?.value ?? 0,
          policy,
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
