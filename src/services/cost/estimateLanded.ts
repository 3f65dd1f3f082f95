import {
  type DutyRate,
  dutyRateOf,
  type EstimatedCharge,
  type LandedFault,
  landedCost,
  landedPerUnit,
  type UsualCharge,
  usualCharges,
  weightOf,
} from '@/core/landed';
import { lineNet, type Minor } from '@/core/money';
import { fromDecimal, MICRO, type Quantity } from '@/core/quantity';
import {
  type GoodsRow,
  readChargesOf,
  readDutyRates,
  readFreightTerms,
  readGoods,
  type TermsRow,
} from '@/data/repositories/landed';
import type { Tx } from '@/data/sql';
import type { Buying } from '../catalogue/buying';
import type { Exchange } from './exchange';

/** Everything an estimate looks up, for the items and suppliers of some sources. */
export type LandedBook = {
  readonly goods: ReadonlyMap<number, GoodsRow>;
  readonly terms: ReadonlyMap<number, TermsRow>;
  readonly charges: ReadonlyMap<number, readonly UsualCharge[]>;
  readonly duties: readonly DutyRate[];
};

export async function readLandedBook(tx: Tx, buyings: readonly Buying[]): Promise<LandedBook> {
  const itemIds = [...new Set(buyings.map((b) => b.source.itemId))];
  const supplierIds = [...new Set(buyings.map((b) => b.source.supplierId))];
  const charges = new Map<number, UsualCharge[]>();
  for (const { supplierId, ...c } of await readChargesOf(tx, supplierIds)) {
    const own = charges.get(supplierId) ?? [];
    own.push({ ...c, onCharges: c.onCharges === '' ? [] : c.onCharges.split(';').map((n) => n.trim()) });
    charges.set(supplierId, own);
  }
  return {
    goods: new Map((await readGoods(tx, itemIds)).map((g) => [g.id, g])),
    terms: new Map((await readFreightTerms(tx, supplierIds)).map((t) => [t.id, t])),
    charges,
    duties: await readDutyRates(tx),
  };
}

/** What some goods from one source are expected to cost on the shelf, with the sum that leads there. */
export type LandedEstimate = {
  readonly quantity: Quantity;
  readonly currency: string;
  /** Line net in the supplier's currency and in the company's. */
  readonly net: Minor;
  readonly goods: Minor;
  /** Each charge of the estimate with its share, in the company's currency, whatever it goes into. */
  readonly shares: readonly {
    readonly name: string;
    readonly minor: Minor;
    readonly into: EstimatedCharge['into'];
    readonly origin: EstimatedCharge['origin'];
    readonly duty: string | null;
    /** One sum for the order, however much stands on it. */
    readonly perOrder: boolean;
  }[];
  readonly landed: Minor;
  /** Landed cost of a base unit, at four decimals. */
  readonly each: string | null;
  readonly faults: readonly LandedFault['kind'][];
  /** Charges that are asked each time and have no usual amount: they count 0 here. */
  readonly asked: readonly string[];
  /** A duty charge found no rate for these goods: it counts 0 here. */
  readonly dutyUnknown: boolean;
};

/** The landed cost of one line of these goods, reckoned as if it were ordered alone: freight by the supplier's terms, its
 *  usual charges, duty by HS code and origin, the exchange rate of the day. Null without a price or without a rate.
 *  Units: quantity in millionths of the base unit, packs likewise; money in minor units. */
export function estimateLanded(
  book: LandedBook,
  buying: Buying,
  quantity: Quantity,
  packs: Quantity,
  exchange: Exchange,
  today: string,
): LandedEstimate | null {
  const { source } = buying;
  const price = buying.priceAt(packs, today);
  const rate = exchange.perUnit(source.currency);
  const goods = book.goods.get(source.itemId);
  const terms = book.terms.get(source.supplierId);
  if (!price || !rate || !goods || !terms || quantity <= 0) return null;
  const net = lineNet(quantity, price, source.currency);
  const weight = weightOf(goods.weightKg, quantity);
  const { charges, asked, noWeight } = usualCharges(book.charges.get(source.supplierId) ?? [], terms, {
    net,
    weight,
    currency: source.currency,
  });
  const duty = dutyRateOf(book.duties, { hsCode: goods.hsCode || null, origin: goods.origin || null }, today);
  const foreign = [...new Set(charges.flatMap((c) => (c.amount.kind === 'fixed' ? [c.amount.currency] : [])))];
  const rates = new Map(
    foreign.flatMap((c) => {
      const r = exchange.perUnit(c);
      return r ? [[c, r] as const] : [];
    }),
  );
  const cost = landedCost({
    base: exchange.base,
    currency: source.currency,
    rate,
    rates,
    charges,
    lines: [
      {
        ...{ net, quantity, weight, volume: weightOf(goods.volumeL, quantity) },
        ...{ dutyPercent: duty?.percent ?? '0', stock: true },
      },
    ],
  });
  const [line] = cost.lines;
  if (!line) return null;
  return {
    quantity,
    currency: source.currency,
    net,
    goods: line.goods,
    shares: charges.map((c, i) => ({
      ...{ name: c.name, minor: line.shares[i] as number, into: c.into, origin: c.origin, perOrder: c.perOrder },
      duty: c.amount.kind === 'duty' ? (duty?.percent ?? null) : null,
    })),
    landed: line.landed,
    each: landedPerUnit(line.landed, quantity, exchange.base, 4),
    faults: [...new Set([...cost.faults.map((f) => f.kind), ...(noWeight ? (['no_weight'] as const) : [])])],
    asked,
    dutyUnknown: duty === null && charges.some((c) => c.amount.kind === 'duty'),
  };
}

/** The least quantity that can be ordered from a source, for an estimate where nobody said how much. */
export function leastOrder(buying: Buying): { readonly quantity: Quantity; readonly packs: Quantity } {
  const content = Number(buying.content.num) / Number(buying.content.den);
  const multiple = buying.source.multiplePacks;
  const packs = Math.max(
    multiple,
    Math.ceil(fromDecimal(buying.source.minimum) / MICRO / content / multiple) * multiple,
  );
  return { quantity: Math.round(packs * content * MICRO), packs: packs * MICRO };
}
