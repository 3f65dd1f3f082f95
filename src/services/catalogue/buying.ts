import { arrivesIfOrdered, type BusinessDate } from '@/core/calendar';
import type { Price } from '@/core/money';
import { baseQuantity, contentMicro, type Pack, packContent } from '@/core/packs';
import { fromDecimal, MICRO, type Quantity } from '@/core/quantity';
import { unwrap } from '@/core/result';
import { preferredSource, priceAt } from '@/core/sourcing';
import { type Fraction, fraction } from '@/core/units';
import { Asking } from '@/data/asking';
import type { Calendars } from '@/data/repositories/calendars';
import { askPacks, askPrices, askSources, type PriceRow, type SourceRow } from '@/data/repositories/catalogue';
import type { Tx } from '@/data/sql';

/** How an item is bought from one source: the pack, its content in base units, the price steps. */
export type Buying = {
  readonly source: SourceRow;
  readonly packName: string | null;
  readonly content: Fraction;
  /** All steps of its price list, with the content of the pack each is for. */
  readonly prices: readonly (PriceRow & { readonly content: Fraction })[];
  readonly priceAt: (packs: Quantity, on: string) => Price | null;
};

export type BuyingBook = {
  readonly bySource: ReadonlyMap<number, Buying>;
  /** The source a suggestion buys from, per item. */
  readonly preferred: ReadonlyMap<number, Buying>;
  /** Content of a pack of these items in base units; null = the base unit itself. */
  readonly contentOf: (packId: number | null) => Fraction;
  /** Packs of these items. */
  readonly packs: ReadonlyMap<number, Pack>;
};

/** Sources, packs and prices of these items, ready to compute with. */
export async function readBuying(tx: Tx, itemIds: readonly number[]): Promise<BuyingBook> {
  if (itemIds.length === 0) return bookOf([], [], []);
  const ids = [...new Set(itemIds)];
  const ask = new Asking(tx, 'together');
  const [packs, sources, prices] = [askPacks(ask, ids), askSources(ask, ids), askPrices(ask, ids)];
  return bookOf(await packs(), await sources(), await prices());
}

function bookOf(allPacks: readonly Pack[], sources: readonly SourceRow[], allPrices: readonly PriceRow[]): BuyingBook {
  const packs = new Map<number, Pack>(allPacks.map((p) => [p.id, p]));
  const prices = new Map<number, PriceRow[]>();
  for (const p of allPrices) prices.set(p.sourceId, [...(prices.get(p.sourceId) ?? []), p]);
  const contentOf = (packId: number | null) => (packId === null ? fraction(1n) : unwrap(packContent(packs, packId)));
  const bySource = new Map<number, Buying>();
  const byItem = new Map<number, SourceRow[]>();
  for (const source of sources) {
    byItem.set(source.itemId, [...(byItem.get(source.itemId) ?? []), source]);
    const steps = (prices.get(source.id) ?? []).map((p) => ({ ...p, content: contentOf(p.packId) }));
    bySource.set(source.id, {
      source,
      packName: source.packId === null ? null : (packs.get(source.packId)?.name ?? null),
      content: contentOf(source.packId),
      prices: steps,
      priceAt: (quantity, on) => {
        const step = priceAt(steps, quantity, on);
        return step && { amount: step.amount, perQuantity: step.perQuantity, packContent: step.content };
      },
    });
  }
  const preferred = new Map<number, Buying>();
  for (const [itemId, candidates] of byItem) {
    const best = preferredSource(candidates);
    if (best) preferred.set(itemId, bySource.get(best.id) as Buying);
  }
  return { bySource, preferred, contentOf, packs };
}

/** What source's rounding rule is in millionths. */
export const orderRuleOf = (buying: Buying | undefined) => ({
  minimum: buying ? fromDecimal(buying.source.minimum) : 0,
  packMicro: buying ? unwrap(contentMicro(buying.content, buying.packName ?? undefined)) : MICRO,
  multiplePacks: buying?.source.multiplePacks ?? 1,
  mode: buying?.source.rounding ?? ('up' as const),
});

/** When goods ordered now from this source arrive at a place: by its own lead time, else its supplier's, on the next order
 *  slot whose cut-off has not passed. */
export const arrivalFrom = (
  calendars: Calendars,
  { source }: Buying,
  locationId: number | null,
  at: { readonly today: BusinessDate; readonly time: string },
): BusinessDate =>
  arrivesIfOrdered(
    calendars.supply(source.supplierId, { days: source.leadTimeDays, kind: source.leadTimeKind }, locationId),
    at.today,
    at.time,
  );

/** Base quantities from which another price of a list holds. */
export const breaksAt = (b: Buying, today: BusinessDate): Quantity[] =>
  b.prices
    .filter((p) => p.fromPacks > 0 && p.validFrom <= today && (p.validTo === null || p.validTo >= today))
    .map((p) => baseQuantity(p.fromPacks, b.content));
