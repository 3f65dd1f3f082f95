import { arrivalDate } from '@/core/calendar';
import { lineNet } from '@/core/money';
import type { Reckoning } from '@/core/netting';
import { packsIn } from '@/core/packs';
import { type Actor, may } from '@/core/people';
import { fromDecimal, type Quantity } from '@/core/quantity';
import { ok, type Result } from '@/core/result';
import type { PriceStep } from '@/core/sourcing';
import { readItemsByIds, readSuppliers } from '@/data/repositories/catalogue';
import { readCompany, readLocations } from '@/data/repositories/company';
import { readLevels } from '@/data/repositories/levels';
import { readOpenNeeds, readStates } from '@/data/repositories/planning';
import { readPoliciesOf } from '@/data/repositories/policies';
import { readTrayLines } from '@/data/repositories/trays';
import { readSnapshot } from '@/data/transaction';
import { readBuying } from '../catalogue/buying';
import { type Deps, todayOf } from '../deps';
import type { Failure } from '../failure';
import { type Gauge, gaugeOf } from '../stock/gauge';
import { policyAt, reckoningOf } from './reckonPair';
import { bringUpToDate } from './recompute';
import { trayTotals } from './trayTotals';

export type NeedView = {
  readonly id: number;
  readonly fingerprint: string;
  readonly itemId: number;
  readonly itemNumber: string;
  readonly itemName: string;
  readonly locationId: number;
  readonly location: string;
  readonly unit: string;
  readonly supplierId: number | null;
  readonly gauge: Gauge;
  readonly packs: Quantity;
  readonly base: Quantity;
  readonly packName: string;
  readonly content: { readonly num: string; readonly den: string };
  /** At the price for the suggested quantity; null without one. */
  readonly net: number | null;
  /** Price steps of its source, for another quantity; content as num/den of base units. */
  readonly prices: readonly NeedPrice[];
  readonly supplierBlocked: boolean;
  readonly reckoning: Reckoning | null;
};

export type NeedPrice = PriceStep & { readonly content: { readonly num: string; readonly den: string } };

export type NeedGroup = {
  readonly supplierId: number | null;
  readonly supplier: string | null;
  readonly arrives: string | null;
  readonly orderMinimum: number;
  readonly needs: readonly NeedView[];
};

export type NeedsPage = {
  readonly groups: readonly NeedGroup[];
  /** What lies in each supplier's tray. */
  readonly trays: readonly { readonly supplierId: number; readonly net: number }[];
  readonly count: number;
  readonly items: number;
  readonly itemsOfAll: number;
  readonly net: number;
  readonly currency: string;
  readonly today: string;
};

/** All open needs in groups by supplier, those without one last; with a location, only that one's.
 *  Errors: forbidden. */
export async function readNeeds(
  deps: Deps,
  actor: Actor,
  filter: { readonly locationId: number | null },
): Promise<Result<NeedsPage, Failure>> {
  const allowed = may(actor, 'needs.read', filter.locationId === null ? {} : { locationIds: [filter.locationId] });
  if (!allowed.ok) return allowed;
  await bringUpToDate(deps);
  return readSnapshot(deps.pool, async (tx) => {
    const company = await readCompany(tx);
    const today = todayOf(deps, company);
    const shown = await readOpenNeeds(tx, filter.locationId === null ? actor.locations : [filter.locationId]);
    const itemIds = [...new Set(shown.map((n) => n.itemId))];
    const trayLines = await readTrayLines(tx);
    const book = await readBuying(tx, [...itemIds, ...trayLines.map((l) => l.itemId)]);
    const { items, total } = await readItemsByIds(tx, itemIds);
    const locations = new Map((await readLocations(tx)).map((l) => [l.id, l]));
    const levels = await readLevels(tx, itemIds);
    const states = await readStates(tx, itemIds);
    const settings = await readPoliciesOf(tx, itemIds);
    const views: NeedView[] = [];
    for (const n of shown) {
      const item = items.get(n.itemId);
      const place = locations.get(n.locationId);
      if (!item || !place) continue;
      const buying = book.bySource.get(n.sourceId ?? 0);
      const base = fromDecimal(n.suggested);
      const packs = buying ? packsIn(base, buying.content) : base;
      const price = buying?.priceAt(packs, today) ?? null;
      const policy = policyAt(company, settings, n.itemId, n.locationId);
      const here = (r: { itemId: number; locationId: number }) =>
        r.itemId === n.itemId && r.locationId === n.locationId;
      views.push({
        id: n.id,
        fingerprint: n.fingerprint,
        itemId: n.itemId,
        itemNumber: item.number,
        itemName: item.name,
        locationId: n.locationId,
        location: place.name,
        unit: item.unitName,
        supplierId: buying?.source.supplierId ?? null,
        gauge: gaugeOf(levels.find(here), states.find(here), policy),
        packs,
        base,
        packName: buying?.packName ?? item.unitName,
        content: { num: String(buying?.content.num ?? 1n), den: String(buying?.content.den ?? 1n) },
        net: price && lineNet(base, price, company.currency),
        prices: (buying?.prices ?? []).map(
          ({ fromPacks, validFrom, validTo, amount, perQuantity, packId, content }) => ({
            fromPacks,
            validFrom,
            validTo,
            amount,
            perQuantity,
            packId,
            content: { num: String(content.num), den: String(content.den) },
          }),
        ),
        supplierBlocked: buying ? !buying.source.supplierActive : false,
        reckoning: reckoningOf(policy, states.find(here), buying),
      });
    }
    const totals = trayTotals(trayLines, book, today, company.currency);
    return ok({
      groups: await groupsOf(tx, views, today),
      trays: [...totals].map(([supplierId, net]) => ({ supplierId, net })),
      count: views.length,
      items: itemIds.length,
      itemsOfAll: total,
      net: views.reduce((sum, v) => sum + (v.net ?? 0), 0),
      currency: company.currency,
      today,
    });
  });
}

async function groupsOf(
  tx: Parameters<typeof readSuppliers>[0],
  views: readonly NeedView[],
  today: string,
): Promise<NeedGroup[]> {
  const sorted = [...views].sort((a, b) => a.itemName.localeCompare(b.itemName) || a.locationId - b.locationId);
  const groups: NeedGroup[] = (await readSuppliers(tx))
    .map((s) => ({
      supplierId: s.id,
      supplier: s.name,
      arrives: arrivalDate(today, { days: s.leadTimeDays, kind: s.leadTimeKind }),
      orderMinimum: s.orderMinimum,
      needs: sorted.filter((v) => v.supplierId === s.id),
    }))
    .filter((g) => g.needs.length > 0);
  const without = sorted.filter((v) => v.supplierId === null);
  if (without.length > 0) {
    groups.push({ supplierId: null, supplier: null, arrives: null, orderMinimum: 0, needs: without });
  }
  return groups;
}
