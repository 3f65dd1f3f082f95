import {
  type ChargeDifference,
  chargeDifferences,
  dutyRateOf,
  effectiveCharges,
  type OrderCharge,
  standingCharges,
  weightOf,
} from '@/core/landed';
import { type CostLine, netOfLine, type OrderCost, orderCost } from '@/core/purchase';
import { fromDecimal } from '@/core/quantity';
import type { Purpose } from '@/core/tax';
import { type Fraction, fraction } from '@/core/units';
import { readChargesOf, readDutyRates, readFreightTerms, readTaxRates } from '@/data/repositories/landed';
import { readOwnCharges } from '@/data/repositories/orderCharges';
import type { OrderLineRow, OrderRow } from '@/data/repositories/orders';
import type { Tx } from '@/data/sql';
import type { Exchange } from '../cost/exchange';
import { totalLineOf } from './pricing';

/** A charge of an order, with in what it is another than its supplier usually has it, and that one. */
export type ChargeOfOrder = OrderCharge & {
  readonly differs: readonly ChargeDifference[];
  readonly usual: OrderCharge | null;
};

export type CostOfOrder = {
  readonly cost: OrderCost;
  /** Those left out too. */
  readonly charges: readonly ChargeOfOrder[];
  /** Lines that the cost is of, in its order; what was taken off counts nothing. */
  readonly lineIds: readonly number[];
  /** Kilograms and litres of what has them on file, and how many stock lines have none. */
  readonly weight: Fraction;
  readonly volume: Fraction;
  readonly noWeight: number;
  readonly noVolume: number;
  /** Duty percent by line id, where one is on file. */
  readonly duties: ReadonlyMap<number, string>;
};

/** What a line is bought for, unless it says so: as the item is; what is no item is for own use, but for charges, which follow the
 *  goods. */
export const purposeOf = (l: Pick<OrderLineRow, 'purpose' | 'itemPurpose' | 'kind'>): Purpose =>
  l.purpose ??
  (l.itemPurpose === 'own_use' || (l.itemPurpose === null && (l.kind === 'non_stock' || l.kind === 'service'))
    ? 'own_use'
    : 'resale');

const sumOf = (all: readonly (Fraction | null)[]): Fraction =>
  all.reduce<Fraction>(
    (a, b) => (b === null ? a : fraction(a.num * b.den + b.num * a.den, a.den * b.den)),
    fraction(0),
  );

/** What an order costs with its charges, tax and landed cost per line, by the rates of a day. */
export async function costOfOrder(
  tx: Tx,
  order: OrderRow,
  all: readonly OrderLineRow[],
  exchange: Exchange,
  today: string,
): Promise<CostOfOrder> {
  const rows = all.filter((l) => fromDecimal(l.baseQuantity) > 0);
  const duties = await readDutyRates(tx);
  const dutyOf = new Map(
    rows.flatMap((l) => {
      if (!l.hsCode) return [];
      const rate = dutyRateOf(duties, { hsCode: l.hsCode, origin: l.itemOrigin || null }, today);
      return rate ? [[l.id, rate.percent] as const] : [];
    }),
  );
  const lines = rows.map((l): CostLine => {
    const quantity = fromDecimal(l.baseQuantity);
    const stock = l.kind === 'stock' || l.kind === 'straight_to_customer';
    return {
      ...{ lineNo: l.lineNo, net: netOfLine(totalLineOf(l), order.currency), quantity: stock ? quantity : 0, stock },
      ...{ weight: weightOf(l.weightKg, quantity), volume: weightOf(l.volumeL, quantity) },
      dutyPercent: dutyOf.get(l.id) ?? '0',
      ...{ taxCategory: l.taxCategory || l.itemTaxCategory || '', purpose: purposeOf(l) },
    };
  });
  const missing = (of: 'weight' | 'volume') => lines.filter((l) => l.stock && l[of] === null).length;
  const weight = sumOf(lines.map((l) => l.weight));
  const standing = await standingOf(tx, order, {
    net: lines.reduce((sum, l) => sum + l.net, 0),
    weight: missing('weight') > 0 ? null : weight,
    currency: order.currency,
  });
  const own = await readOwnCharges(tx, order.id);
  const charges = order.chargesKept === 1 ? own : effectiveCharges(standing, own);
  const byName = new Map(standing.map((c) => [c.name, c]));
  const taxRates = await readTaxRates(tx);
  const cost = orderCost({
    ...{ base: exchange.base, currency: order.currency, perUnit: exchange.perUnit, lines, charges },
    // A company that has no tax rates reckons without tax.
    ...{ regime: taxRates.length === 0 ? ('exempt' as const) : order.taxRegime, taxRates, day: today },
  });
  return {
    cost,
    charges: charges.map((c) => ({
      ...c,
      differs: chargeDifferences(c, byName.get(c.name)),
      usual: byName.get(c.name) ?? null,
    })),
    lineIds: rows.map((l) => l.id),
    ...{ weight, volume: sumOf(lines.map((l) => l.volume)), noWeight: missing('weight'), noVolume: missing('volume') },
    duties: dutyOf,
  };
}

async function standingOf(tx: Tx, order: OrderRow, of: Parameters<typeof standingCharges>[2]): Promise<OrderCharge[]> {
  const [terms] = await readFreightTerms(tx, [order.supplierId]);
  const usual = (await readChargesOf(tx, [order.supplierId])).map((c) => ({
    ...c,
    onCharges: c.onCharges.split(';').flatMap((n) => n.trim() || []),
  }));
  return standingCharges(usual, terms ?? { payer: null, fixed: null, perKg: null, freeFrom: null }, of);
}
