import type { BusinessDate } from '@/core/calendar';
import { minorOf } from '@/core/landed';
import { packsIn } from '@/core/packs';
import { fromDecimal, type Quantity } from '@/core/quantity';
import type { SplitNeed, SplitOption, SplitProblem, SplitSupplier } from '@/core/split';
import { usefulQuantities } from '@/core/ways';
import { readCalendars } from '@/data/repositories/calendars';
import { readSuppliers, type SupplierRow } from '@/data/repositories/catalogue';
import type { NeedRow } from '@/data/repositories/planning';
import { readTrayLines } from '@/data/repositories/trays';
import { readWeighing } from '@/data/repositories/ways';
import type { Tx } from '@/data/sql';
import { arrivalFrom, type Buying, type BuyingBook, breaksAt, orderRuleOf, readBuying } from '../catalogue/buying';
import { estimateLanded, type LandedBook, readLandedBook } from '../cost/estimateLanded';
import { type Exchange, readExchange } from '../cost/exchange';
import { comingLines, trayTotals } from './trayTotals';
import { readUrgency } from './urgency';

/** What an option is, by its key. */
export type OptionAbout = {
  readonly sourceId: number;
  readonly packs: Quantity;
  readonly base: Quantity;
  readonly arrives: BusinessDate;
};

export type AskedSplit = {
  readonly problem: SplitProblem;
  readonly about: ReadonlyMap<string, OptionAbout>;
  /** Needs that nobody with a price can cover; they are left as they are. */
  readonly left: readonly number[];
};

/** Needs as a problem of assigning them: every supplier with a price at each useful quantity, the need's own supplier at what it suggests
 *  first. Where anything would be here before stock runs out, only what is counts; where nothing would, only what comes soonest.
 *  Sums in minor units of the company's currency; what lies in a supplier's tray counts towards its minimum and free freight. */
export async function splitProblemOf(
  tx: Tx,
  at: { readonly today: BusinessDate; readonly time: string },
  currency: string,
  needs: readonly NeedRow[],
): Promise<AskedSplit> {
  const book = await readBuying(
    tx,
    needs.map((n) => n.itemId),
  );
  const buyings = [...book.bySource.values()];
  const landed = await readLandedBook(tx, buyings);
  const exchange = await readExchange(tx, currency, at.today);
  const calendars = await readCalendars(tx, at.today);
  const urgency = await readUrgency(tx, at, needs, { book, calendars });
  const about = new Map<string, OptionAbout>();
  const left: number[] = [];
  const asked = needs.flatMap((n): SplitNeed[] => {
    const options = buyings
      .filter((b) => b.source.itemId === n.itemId && b.source.supplierActive)
      .flatMap((b) => optionsOf(n, b, { landed, exchange, today: at.today }))
      .map((o) => ({ ...o, arrives: arrivalFrom(calendars, o.buying, n.locationId, at) }));
    const { runOut } = urgency(n);
    const soonest = options.map((o) => o.arrives).sort()[0];
    const latest =
      runOut !== null && options.some((o) => o.arrives <= runOut) ? runOut : runOut === null ? null : soonest;
    const first = (o: (typeof options)[number]) =>
      o.buying.source.id === n.sourceId && o.base === fromDecimal(n.suggested) ? 0 : o.buying.source.preference;
    const kept = options
      .filter((o) => latest === null || latest === undefined || o.arrives <= latest)
      .sort((a, b) => first(a) - first(b));
    if (kept.length === 0) {
      left.push(n.id);
      return [];
    }
    for (const o of kept)
      about.set(o.option.key, {
        ...{ sourceId: o.buying.source.id, base: o.base, packs: packsIn(o.base, o.buying.content), arrives: o.arrives },
      });
    return [{ key: String(n.id), options: kept.map((o) => o.option) }];
  });
  const suppliers = await suppliersOf(tx, at.today, {
    landed,
    exchange,
    used: new Set(asked.flatMap((n) => n.options.map((o) => o.supplier))),
  });
  return { problem: { needs: asked, suppliers }, about, left };
}

type Ground = { readonly landed: LandedBook; readonly exchange: Exchange; readonly today: BusinessDate };

function optionsOf(n: NeedRow, buying: Buying, { landed, exchange, today }: Ground) {
  const { source } = buying;
  const sells = { rule: orderRuleOf(buying), breaks: breaksAt(buying, today), layer: 0 };
  const quantities = new Set(usefulQuantities(fromDecimal(n.shortage), sells));
  if (source.id === n.sourceId) quantities.add(fromDecimal(n.suggested));
  return [...quantities].flatMap((base): { buying: Buying; base: Quantity; option: SplitOption }[] => {
    const cost = estimateLanded(landed, buying, base, packsIn(base, buying.content), exchange, today);
    if (!cost) return [];
    const counted = cost.shares.filter((s) => s.into !== 'recoverable' && !s.perOrder);
    const sum = (weight: boolean) =>
      counted.filter((s) => (s.origin === 'freight_terms') === weight).reduce((a, s) => a + s.minor, 0);
    const option = { key: `${n.id}/${source.id}/${base}`, supplier: source.supplierId, goods: cost.goods };
    return [{ buying, base, option: { ...option, more: sum(false), byWeight: sum(true) } }];
  });
}

async function suppliersOf(
  tx: Tx,
  today: BusinessDate,
  {
    landed,
    exchange,
    used,
  }: { readonly landed: LandedBook; readonly exchange: Exchange; readonly used: ReadonlySet<number> },
): Promise<SplitSupplier[]> {
  const { order } = await readWeighing(tx);
  const rows = (await readSuppliers(tx)).filter((s) => used.has(s.id));
  const already = await inTraysOf(tx, today, rows);
  return rows.map((s) => {
    const base = (minor: number) => exchange.toBase(minor, s.currency) ?? 0;
    const terms = landed.terms.get(s.id);
    const fixed = (landed.charges.get(s.id) ?? []).filter((c) => c.amountKind === 'fixed' && c.into !== 'recoverable');
    const perOrder = fixed.reduce(
      (a, c) =>
        a +
        (c.sign === 'allowance' ? -1 : 1) *
          (exchange.toBase(minorOf(c.amount ?? '0', c.currency || s.currency), c.currency || s.currency) ?? 0),
      order,
    );
    return {
      ...{ id: s.id, minimum: base(s.orderMinimum), perOrder: Math.max(0, perOrder) },
      freight: terms?.fixed ? base(minorOf(terms.fixed, s.currency)) : 0,
      freeFrom: terms?.freeFrom ? base(minorOf(terms.freeFrom, s.currency)) : null,
      already: base(already.get(s.id) ?? 0),
    };
  });
}

/** What lies in trays, in the suppliers' currencies. */
async function inTraysOf(tx: Tx, today: BusinessDate, suppliers: readonly SupplierRow[]): Promise<Map<number, number>> {
  const lines = await readTrayLines(tx);
  const book: BuyingBook = await readBuying(
    tx,
    lines.map((l) => l.itemId),
  );
  return trayTotals(comingLines(lines, book, suppliers, today));
}
