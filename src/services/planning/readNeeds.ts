import { arrivesIfOrdered } from '@/core/calendar';
import { lineNet } from '@/core/money';
import type { Reckoning } from '@/core/netting';
import { type Pack, packContent, packsIn } from '@/core/packs';
import { type Actor, may } from '@/core/people';
import { fromDecimal, type Quantity } from '@/core/quantity';
import { err, ok, type Result } from '@/core/result';
import type { PriceStep, SourceRule } from '@/core/sourcing';
import { type Fraction, fraction } from '@/core/units';
import { readCalendars } from '@/data/repositories/calendars';
import { countItems, type ItemRow, readItemsByIds, readPacks, readSuppliers } from '@/data/repositories/catalogue';
import { readCompany, readLocations } from '@/data/repositories/company';
import { readLevels } from '@/data/repositories/levels';
import { readList } from '@/data/repositories/lists';
import { type NeedRow, type OpenNeed, readNeedsByIds, readOpenNeeds, readStates } from '@/data/repositories/planning';
import { readTransferOfLines } from '@/data/repositories/transfers';
import { readTrayLines } from '@/data/repositories/trays';
import type { Tx } from '@/data/sql';
import { readSnapshot } from '@/data/transaction';
import { readBuying } from '../catalogue/buying';
import { sourceRules } from '../catalogue/sourceRules';
import { readExchange } from '../cost/exchange';
import { type Deps, timeOf, todayOf } from '../deps';
import type { Failure } from '../failure';
import { groupBy, pairKey, pairMap } from '../grouping';
import { type AskedRows, GROUP, keepList, type Page, printOf, readRows } from '../lists/keptList';
import { coverDaysOf, freeOf, type Gauge, gaugeOf } from '../stock/gauge';
import { readPairPlans } from './pairPlans';
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
  readonly causes: readonly NeedCause[];
  /** The place that would send it, and what is free there; null = bought. */
  readonly sentFrom: { readonly locationId: number; readonly location: string; readonly free: Quantity } | null;
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
  /** The line it is bought for one to one, of another place's request; null for the ordinary demand of its place. */
  readonly boughtFor: { readonly transferId: number; readonly transfer: string; readonly location: string } | null;
};

export type NeedCause = 'below_min' | 'dated_demand' | 'shop_asks' | 'supply_cut' | 'customer_waits';

export type NeedPrice = PriceStep & { readonly content: { readonly num: string; readonly den: string } };

/** The head of a supplier's needs. */
export type NeedGroup = {
  readonly supplierId: number | null;
  readonly supplier: string | null;
  /** The place that sends these; null = bought. */
  readonly sentFrom: string | null;
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
    return {
      open,
      groups: await groupsOf(tx, open, today, timeOf(deps, company)),
      status,
      currency: company.currency,
      today,
    };
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
    const views = await needViewsOf(
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

/** These needs as a row shows them, by id. */
export async function needViewsOf(deps: Deps, tx: Tx, needIds: readonly number[]): Promise<Map<number, NeedView>> {
  const company = await readCompany(tx);
  const today = todayOf(deps, company);
  const exchange = await readExchange(tx, company.currency, today);
  const needs = await readNeedsByIds(tx, needIds);
  const itemIds = [...new Set(needs.map((n) => n.itemId))];
  const book = await readBuying(tx, itemIds);
  const items = await readItemsByIds(tx, itemIds);
  const locations = new Map((await readLocations(tx)).map((l) => [l.id, l.name]));
  const levels = pairMap(await readLevels(tx, itemIds));
  const packs = new Map((await readPacks(tx, itemIds)).map((p) => [p.id, p]));
  const states = pairMap(await readStates(tx, itemIds));
  const plans = await readPairPlans(tx, itemIds, today);
  const requests = await readTransferOfLines(
    tx,
    needs.filter((n) => n.pegOf === 'transfer_line').map((n) => n.peg),
  );
  const ruleOf = await sourceRules(tx, book, itemIds);
  const sender = (n: NeedRow): NeedView['sentFrom'] => {
    if (n.supplyLocationId === null) return null;
    const level = levels.get(pairKey(n.itemId, n.supplyLocationId));
    const free = Math.max(0, level ? freeOf(level) : 0);
    return { locationId: n.supplyLocationId, location: locations.get(n.supplyLocationId) ?? '', free };
  };
  const views = new Map<number, NeedView>();
  for (const n of needs) {
    const item = items.get(n.itemId);
    if (!item) continue;
    const buying = book.bySource.get(n.sourceId ?? 0);
    const base = fromDecimal(n.suggested);
    const sent = n.supplyLocationId === null ? null : sendingPack(item, packs);
    const content = sent?.content ?? buying?.content ?? fraction(1n);
    const quantity = sent || buying ? packsIn(base, content) : base;
    const price = sent ? null : (buying?.priceAt(quantity, today) ?? null);
    const currency = buying?.source.currency ?? company.currency;
    const rate = exchange.perUnit(currency);
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
      gauge: gaugeOf(levels.get(pairKey(n.itemId, n.locationId)), state),
      coverDays: coverDaysOf(state),
      packs: quantity,
      base,
      packName: sent?.name ?? buying?.packName ?? item.unitName,
      content: { num: String(content.num), den: String(content.den) },
      causes: n.cause.split(',').filter((c): c is NeedCause => c !== ''),
      sentFrom: sender(n),
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
      ...(n.pegOf === 'pair'
        ? { reckoning: plans.reckoning(n.itemId, n.locationId, state), boughtFor: null }
        : {
            reckoning: plans.peg(n.itemId, n.locationId, n.peg)?.reckoning ?? null,
            boughtFor: boughtForOf(requests.get(n.peg), locations),
          }),
    });
  }
  return views;
}

const boughtForOf = (
  request: { id: number; number: string; toLocationId: number } | undefined,
  locations: ReadonlyMap<number, string>,
): NeedView['boughtFor'] =>
  request
    ? { transferId: request.id, transfer: request.number, location: locations.get(request.toLocationId) ?? '' }
    : null;

/** In what an item is sent between our places: its usual pack for sending, else single base units. */
export function sendingPack(
  item: Pick<ItemRow, 'unitName' | 'usualSendPackId'>,
  packs: ReadonlyMap<number, Pack>,
): { readonly name: string; readonly content: Fraction } {
  const content = item.usualSendPackId === null ? null : packContent(packs, item.usualSendPackId);
  return content?.ok
    ? { name: packs.get(item.usualSendPackId as number)?.name ?? item.unitName, content: content.value }
    : { name: item.unitName, content: fraction(1n) };
}

async function statusOf(tx: Tx, open: readonly OpenNeed[], today: string, currency: string): Promise<NeedsStatus> {
  const itemIds = [...new Set(open.map((n) => n.itemId))];
  const trayLines = await readTrayLines(tx);
  const book = await readBuying(tx, [...itemIds, ...trayLines.map((l) => l.itemId)]);
  const exchange = await readExchange(tx, currency, today);
  let net = 0;
  let unpriced = 0;
  for (const n of open) {
    if (n.supplyLocationId !== null) continue;
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

async function groupsOf(tx: Tx, open: readonly OpenNeed[], today: string, time: string): Promise<NeedGroup[]> {
  const suppliers = new Map((await readSuppliers(tx)).map((s) => [s.id, s]));
  const places = new Map((await readLocations(tx)).map((l) => [l.id, l.name]));
  const calendars = await readCalendars(tx, today);
  let start = 0;
  const from = (n: OpenNeed) => (n.supplyLocationId === null ? (n.supplierId ?? 0) : -n.supplyLocationId);
  return [...groupBy(open, from)].map(([of, needs]): NeedGroup => {
    const s = suppliers.get(of);
    const group = {
      supplierId: s?.id ?? null,
      supplier: s?.name ?? null,
      sentFrom: places.get(-of) ?? null,
      arrives: s
        ? arrivesIfOrdered(calendars.supply(s.id, { days: s.leadTimeDays, kind: s.leadTimeKind }, null), today, time)
        : null,
      orderMinimum: s?.orderMinimum ?? 0,
      currency: s?.currency ?? '',
      start,
      count: needs.length,
    };
    start += 1 + needs.length;
    return group;
  });
}
