import { arrivalDate } from '@/core/calendar';
import { lineNet } from '@/core/money';
import type { Reckoning } from '@/core/netting';
import { packsIn } from '@/core/packs';
import { type Actor, may } from '@/core/people';
import { fromDecimal, type Quantity } from '@/core/quantity';
import { err, ok, type Result } from '@/core/result';
import type { PriceStep, SourceRule } from '@/core/sourcing';
import { countItems, readItemsByIds, readSuppliers } from '@/data/repositories/catalogue';
import { readCompany, readLocations } from '@/data/repositories/company';
import { readLevels } from '@/data/repositories/levels';
import { readList } from '@/data/repositories/lists';
import { type OpenNeed, readNeedsByIds, readOpenNeeds, readStates } from '@/data/repositories/planning';
import { readPoliciesOf } from '@/data/repositories/policies';
import { readTrayLines } from '@/data/repositories/trays';
import type { Tx } from '@/data/sql';
import { readSnapshot } from '@/data/transaction';
import { readBuying } from '../catalogue/buying';
import { sourceRules } from '../catalogue/sourceRules';
import { readExchange } from '../cost/exchange';
import { type Deps, todayOf } from '../deps';
import type { Failure } from '../failure';
import { groupBy, pairKey, pairMap } from '../grouping';
import { type AskedRows, GROUP, keepList, type Page, printOf, readRows } from '../lists/keptList';
import { coverDaysOf, type Gauge, gaugeOf } from '../stock/gauge';
import { policyAt, reckoningOf } from './reckonPair';
import { bringUpToDate } from './recompute';
import { comingLines, trayTotals } from './trayTotals';

export type NeedView = {
  readonly id: number;
  readonly fingerprint: string;
  /** False once it was decided or is no longer there. */
  readonly open: boolean;
  readonly itemId: number;
  readonly itemNumber: string;
  readonly itemName: string;
  /** What the buyer is told of the item. */
  readonly buyerNote: string;
  readonly locationId: number;
  readonly location: string;
  readonly unit: string;
  readonly supplierId: number | null;
  readonly gauge: Gauge;
  /** Days that what is here lasts; null when nothing was sold. */
  readonly coverDays: number | null;
  readonly packs: Quantity;
  readonly base: Quantity;
  readonly packName: string;
  readonly content: { readonly num: string; readonly den: string };
  /** At the price for the suggested quantity, in the company's currency; null without a price or a rate. */
  readonly net: number | null;
  /** The currency its supplier is paid in, and the company's for one of it; null where no rate is on file. */
  readonly currency: string;
  readonly rate: { readonly num: string; readonly den: string } | null;
  /** Price steps of its source, for another quantity; content as num/den of base units. */
  readonly prices: readonly NeedPrice[];
  readonly supplierBlocked: boolean;
  /** Which rule chose its source; null without one. */
  readonly sourceRule: SourceRule | null;
  readonly reckoning: Reckoning | null;
};

export type NeedPrice = PriceStep & { readonly content: { readonly num: string; readonly den: string } };

/** The head of a supplier's needs. */
export type NeedGroup = {
  readonly supplierId: number | null;
  readonly supplier: string | null;
  readonly arrives: string | null;
  readonly orderMinimum: number;
  /** Of the minimum and the tray; '' without a supplier. */
  readonly currency: string;
  /** Where in the list its head stands; its needs follow. */
  readonly start: number;
  readonly count: number;
};

export type NeedEntry = { readonly kind: 'group'; readonly group: NeedGroup } | ({ readonly kind: 'need' } & NeedView);

/** Figures over all open needs and trays, which change while a list is worked in. */
export type NeedsStatus = {
  readonly needs: number;
  readonly items: number;
  readonly itemsOfAll: number;
  readonly net: number;
  readonly unpriced: number;
  /** What lies in each supplier's tray. */
  readonly trays: readonly { readonly supplierId: number; readonly net: number }[];
};

export type NeedsHead = {
  readonly list: string;
  /** Entries: needs and heads of groups. */
  readonly count: number;
  readonly status: NeedsStatus;
  readonly currency: string;
  readonly today: string;
};

type About = { readonly locationId: number | null; readonly groups: readonly NeedGroup[] };

/** Opens the list of needs in groups by supplier, those without one last; with a location, only that one's.
 *  Errors: forbidden. */
export async function openNeeds(
  deps: Deps,
  actor: Actor,
  { locationId }: { readonly locationId: number | null },
): Promise<Result<NeedsHead, Failure>> {
  const allowed = may(actor, 'needs.read', locationId === null ? {} : { locationIds: [locationId] });
  if (!allowed.ok) return allowed;
  await bringUpToDate(deps);
  const { open, groups, ...head } = await readSnapshot(deps.pool, async (tx) => {
    const company = await readCompany(tx);
    const today = todayOf(deps, company);
    const open = await readOpenNeeds(tx, locationId === null ? actor.locations : [locationId]);
    const status = await statusOf(tx, open, today, company.currency);
    return { open, groups: await groupsOf(tx, open, today), status, currency: company.currency, today };
  });
  const about: About = { locationId, groups };
  // Needs come group by group; each head stands before its own.
  const places = groups.flatMap((g, i) => [null, ...open.slice(g.start - i, g.start - i + g.count)]);
  const list = await keepList(deps, actor, 'needs', {
    ids: places.map((n) => n?.id ?? GROUP),
    prints: places.map((n) => (n ? printOf(n.fingerprint) : 0)),
    about,
  });
  return ok({ list, count: places.length, ...head });
}

/** What has changed since a list of needs was opened: the ids of needs that came, went or are no longer as they were, and
 *  the figures over all. Errors: forbidden, list_gone. */
export async function readNeedChanges(
  deps: Deps,
  actor: Actor,
  list: string,
): Promise<Result<{ readonly changed: readonly number[]; readonly status: NeedsStatus }, Failure>> {
  const allowed = may(actor, 'needs.read');
  if (!allowed.ok) return allowed;
  await bringUpToDate(deps);
  return readSnapshot<Result<{ changed: number[]; status: NeedsStatus }, Failure>>(deps.pool, async (tx) => {
    const kept = await readList(tx, { name: list, userId: actor.userId, kind: 'needs' }, { prints: true });
    if (!kept) return err({ kind: 'list_gone' });
    const { locationId } = kept.about as About;
    const company = await readCompany(tx);
    const open = await readOpenNeeds(tx, locationId === null ? actor.locations : [locationId]);
    const had = new Map([...kept.entries].map((id, i) => [id, kept.prints[i]]));
    had.delete(GROUP);
    const now = new Map(open.map((n) => [n.id, printOf(n.fingerprint)]));
    const changed = [...new Set([...had.keys(), ...now.keys()])].filter((id) => had.get(id) !== now.get(id));
    return ok({ changed, status: await statusOf(tx, open, todayOf(deps, company), company.currency) });
  });
}

/** Up to 200 entries of an open list, as they are now. Errors: forbidden, list_gone. */
export async function readNeedRows(
  deps: Deps,
  actor: Actor,
  asked: AskedRows,
): Promise<Result<Page<NeedEntry>, Failure>> {
  const allowed = may(actor, 'needs.read');
  if (!allowed.ok) return allowed;
  return readRows(deps, actor, 'needs', asked, async (tx, { entries, about }) => {
    const { groups } = about as About;
    const views = await viewsOf(
      deps,
      tx,
      [...entries].filter((id) => id !== GROUP),
    );
    return [...entries].map((id, i): NeedEntry => {
      if (id !== GROUP) {
        const view = views.get(id);
        if (!view) throw new Error(`need ${id} is not there`);
        return { kind: 'need', ...view };
      }
      const group = groups.find((g) => g.start === asked.from + i);
      if (!group) throw new Error(`entry ${asked.from + i} is no head of a group`);
      return { kind: 'group', group };
    });
  });
}

async function viewsOf(deps: Deps, tx: Tx, needIds: readonly number[]): Promise<Map<number, NeedView>> {
  const company = await readCompany(tx);
  const today = todayOf(deps, company);
  const exchange = await readExchange(tx, company.currency, today);
  const needs = await readNeedsByIds(tx, needIds);
  const itemIds = [...new Set(needs.map((n) => n.itemId))];
  const book = await readBuying(tx, itemIds);
  const items = await readItemsByIds(tx, itemIds);
  const locations = new Map((await readLocations(tx)).map((l) => [l.id, l.name]));
  const levels = pairMap(await readLevels(tx, itemIds));
  const states = pairMap(await readStates(tx, itemIds));
  const settingsOf = groupBy(await readPoliciesOf(tx, itemIds), (s) => s.itemId);
  const ruleOf = await sourceRules(tx, book, itemIds);
  const views = new Map<number, NeedView>();
  for (const n of needs) {
    const item = items.get(n.itemId);
    if (!item) continue;
    const buying = book.bySource.get(n.sourceId ?? 0);
    const base = fromDecimal(n.suggested);
    const packs = buying ? packsIn(base, buying.content) : base;
    const price = buying?.priceAt(packs, today) ?? null;
    const currency = buying?.source.currency ?? company.currency;
    const rate = exchange.perUnit(currency);
    const policy = policyAt(company, settingsOf.get(n.itemId) ?? [], n.itemId, n.locationId);
    const state = states.get(pairKey(n.itemId, n.locationId));
    views.set(n.id, {
      id: n.id,
      fingerprint: n.fingerprint,
      open: n.state === 'open',
      itemId: n.itemId,
      itemNumber: item.number,
      itemName: item.name,
      buyerNote: item.buyerNote,
      locationId: n.locationId,
      location: locations.get(n.locationId) ?? '',
      unit: item.unitName,
      supplierId: buying?.source.supplierId ?? null,
      gauge: gaugeOf(levels.get(pairKey(n.itemId, n.locationId)), state, policy),
      coverDays: coverDaysOf(state),
      packs,
      base,
      packName: buying?.packName ?? item.unitName,
      content: { num: String(buying?.content.num ?? 1n), den: String(buying?.content.den ?? 1n) },
      net: price && exchange.toBase(lineNet(base, price, currency), currency),
      currency,
      rate: rate && { num: String(rate.num), den: String(rate.den) },
      prices: (buying?.prices ?? []).map(({ fromPacks, validFrom, validTo, amount, perQuantity, packId, content }) => ({
        fromPacks,
        validFrom,
        validTo,
        amount,
        perQuantity,
        packId,
        content: { num: String(content.num), den: String(content.den) },
      })),
      supplierBlocked: buying ? !buying.source.supplierActive : false,
      sourceRule: ruleOf(n.itemId, n.locationId),
      reckoning: reckoningOf(policy, state, buying),
    });
  }
  return views;
}

async function statusOf(tx: Tx, open: readonly OpenNeed[], today: string, currency: string): Promise<NeedsStatus> {
  const itemIds = [...new Set(open.map((n) => n.itemId))];
  const trayLines = await readTrayLines(tx);
  const book = await readBuying(tx, [...itemIds, ...trayLines.map((l) => l.itemId)]);
  const exchange = await readExchange(tx, currency, today);
  let net = 0;
  let unpriced = 0;
  for (const n of open) {
    const buying = book.bySource.get(n.sourceId ?? 0);
    const base = fromDecimal(n.suggested);
    const price = buying?.priceAt(packsIn(base, buying.content), today) ?? null;
    const own = buying && price ? lineNet(base, price, buying.source.currency) : null;
    const inBase = own !== null && buying ? exchange.toBase(own, buying.source.currency) : null;
    if (inBase !== null) net += inBase;
    else unpriced += 1;
  }
  const totals = trayTotals(comingLines(trayLines, book, await readSuppliers(tx), today));
  return {
    needs: open.length,
    items: itemIds.length,
    itemsOfAll: await countItems(tx),
    net,
    unpriced,
    trays: [...totals].map(([supplierId, net]) => ({ supplierId, net })),
  };
}

async function groupsOf(tx: Tx, open: readonly OpenNeed[], today: string): Promise<NeedGroup[]> {
  const suppliers = new Map((await readSuppliers(tx)).map((s) => [s.id, s]));
  let start = 0;
  return [...groupBy(open, (n) => n.supplierId)].map(([supplierId, needs]): NeedGroup => {
    const s = suppliers.get(supplierId ?? 0);
    const group = {
      supplierId,
      supplier: s?.name ?? null,
      arrives: s ? arrivalDate(today, { days: s.leadTimeDays, kind: s.leadTimeKind }) : null,
      orderMinimum: s?.orderMinimum ?? 0,
      currency: s?.currency ?? '',
      start,
      count: needs.length,
    };
    start += 1 + needs.length;
    return group;
  });
}
