import { lineNet } from '@/core/money';
import { type NeedCause, type NeedWarning, needWarnings } from '@/core/netting';
import { type Pack, packContent, packsIn } from '@/core/packs';
import { fromDecimal, type Quantity } from '@/core/quantity';
import type { PriceStep, SourceRule } from '@/core/sourcing';
import { type Fraction, fraction } from '@/core/units';
import { readCalendars } from '@/data/repositories/calendars';
import { type ItemRow, readItemsByIds } from '@/data/repositories/catalogue';
import { readCompany, readLocations } from '@/data/repositories/company';
import { readCustomerOfDemands } from '@/data/repositories/customerOrders';
import { readHandNeeds } from '@/data/repositories/handNeeds';
import { readLevelsAt } from '@/data/repositories/levels';
import { type NeedRow, readNeedsByIds, readStatesAt } from '@/data/repositories/planning';
import { readTransferOfLines } from '@/data/repositories/transfers';
import type { Tx } from '@/data/sql';
import { readBuying } from '../catalogue/buying';
import { sourceRules } from '../catalogue/sourceRules';
import { readExchange } from '../cost/exchange';
import { type Deps, timeOf, todayOf } from '../deps';
import { pairKey, pairMap } from '../grouping';
import { coverDaysOf, freeOf, type Gauge, gaugeOf } from '../stock/gauge';
import { readUrgency } from './urgency';

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
  /** Whom it is bought from. */
  readonly supplier: { readonly id: number; readonly name: string; readonly code: string } | null;
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
  /** What has to be mended or looked at first. */
  readonly warnings: readonly NeedWarning[];
  /** Which rule chose its source; null without one. */
  readonly sourceRule: SourceRule | null;
  /** The line it is bought for one to one, of another place's request or a customer's order; null for the ordinary demand of its
   *  place. `straight`: its supplier sends it to the customer. */
  readonly boughtFor: {
    readonly kind: 'request' | 'customer';
    readonly document: string;
    readonly href: string;
    readonly who: string;
    readonly straight: boolean;
  } | null;
  /** When stock here runs out, when this would be here, and the days between them; below 0 it comes too late. */
  readonly runOut: string | null;
  readonly arrives: string | null;
  readonly slackDays: number | null;
  /** Since when there is this need (UTC). */
  readonly firstSeen: string;
  /** What is asked for by hand of it, by whom and with which note; null where nothing is. */
  readonly byHand: { readonly quantity: Quantity; readonly who: string; readonly note: string } | null;
};

export type NeedPrice = PriceStep & { readonly content: { readonly num: string; readonly den: string } };

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
  const sending = needs.flatMap((n) =>
    n.supplyLocationId === null ? [] : [{ itemId: n.itemId, locationId: n.supplyLocationId }],
  );
  const levels = pairMap(await readLevelsAt(tx, [...needs, ...sending]));
  const { packs } = book;
  const states = pairMap(await readStatesAt(tx, needs));
  const calendars = await readCalendars(tx, today);
  const boughtFor = await readBoughtFor(tx, needs, locations);
  const ruleOf = await sourceRules(tx, book, itemIds);
  const urgency = await readUrgency(tx, { today, time: timeOf(deps, company) }, needs, {
    book,
    calendars,
  });
  const byHand = pairMap(await readHandNeeds(tx, itemIds));
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
    const sentFrom = sender(n);
    const net = price && exchange.toBase(lineNet(base, price, currency), currency);
    const { runOut, arrives, slackDays } = urgency(n);
    const hand = n.pegOf === 'pair' ? byHand.get(pairKey(n.itemId, n.locationId)) : undefined;
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
      supplier: buying
        ? { id: buying.source.supplierId, name: buying.source.supplierName, code: buying.source.supplierCode }
        : null,
      gauge: gaugeOf(levels.get(pairKey(n.itemId, n.locationId)), state),
      coverDays: coverDaysOf(state),
      packs: quantity,
      base,
      packName: sent?.name ?? buying?.packName ?? item.unitName,
      content: { num: String(content.num), den: String(content.den) },
      causes: n.cause.split(',').filter((c): c is NeedCause => c !== ''),
      ...{ sentFrom, net, runOut, arrives, slackDays, firstSeen: n.firstSeen },
      byHand: hand ? { quantity: fromDecimal(hand.quantity), who: hand.who, note: hand.note } : null,
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
      warnings: needWarnings({
        ...{ hasSource: buying !== undefined, supplierActive: buying?.source.supplierActive ?? true },
        ...{ itemActive: item.status === 'active', priced: price !== null, rated: rate !== null },
        ...{ sentFree: sentFrom?.free ?? null, quantity: base },
      }),
      sourceRule: ruleOf(n.itemId, n.locationId),
      boughtFor: boughtFor(n),
    });
  }
  return views;
}

/** Whom needs that are bought one to one are for. */
async function readBoughtFor(
  tx: Tx,
  needs: readonly NeedRow[],
  locations: ReadonlyMap<number, string>,
): Promise<(n: NeedRow) => NeedView['boughtFor']> {
  const of = (kind: NeedRow['pegOf']) => needs.filter((n) => n.pegOf === kind).map((n) => n.peg);
  const requests = await readTransferOfLines(tx, of('transfer_line'));
  const customers = await readCustomerOfDemands(tx, of('customer_demand'));
  return ({ pegOf, peg }) => {
    const request = pegOf === 'transfer_line' ? requests.get(peg) : undefined;
    const customer = pegOf === 'customer_demand' ? customers.get(peg) : undefined;
    if (request)
      return {
        ...{ kind: 'request', document: request.number, href: `/stock/transfers/${request.id}` },
        ...{ who: locations.get(request.toLocationId) ?? '', straight: false },
      };
    if (!customer) return null;
    return {
      ...{ kind: 'customer', document: customer.number, href: `/promises/${customer.orderId}` },
      ...{ who: customer.customer, straight: customer.straight === 1 },
    };
  };
}

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
