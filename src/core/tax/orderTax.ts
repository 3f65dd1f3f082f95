import { percentOf } from '@/core/landed';
import { allocate, type Minor } from '@/core/money';
import { fraction } from '@/core/units';

/** How purchases from a supplier are taxed: by it, by the buyer itself (supply within a customs union), by the customs, or not. */
export const taxRegimes = ['domestic', 'within_union', 'import', 'exempt'] as const;
export type TaxRegime = (typeof taxRegimes)[number];

/** What a line is bought for. */
export type Purpose = 'resale' | 'own_use';

/** The rate of a tax category. */
export type TaxRate = {
  readonly category: string;
  readonly percent: string;
  /** How much of it is recovered on what is bought for own use, in percent; on what is sold again it is all. */
  readonly ownUsePercent: string;
  /** It holds for what has no category. */
  readonly usual: boolean;
  readonly validFrom: string;
  readonly validTo: string | null;
};

export type TaxedLine = {
  /** As on file; '' = none. */
  readonly category: string;
  readonly purpose: Purpose;
  /** After its shares of discount and charges. */
  readonly net: Minor;
};

export type TaxSum = {
  readonly category: string;
  /** Null where no rate of the category is in force: nothing is reckoned then. */
  readonly percent: string | null;
  readonly taxable: Minor;
  readonly tax: Minor;
  readonly recoverable: Minor;
  /** What is not recovered: it is cost of the goods. */
  readonly cost: Minor;
};

export type OrderTax = {
  /** Who is paid: the supplier with its bill; nobody, the buyer accounts for it; the customs. */
  readonly paidTo: 'supplier' | 'self' | 'customs' | 'nobody';
  readonly sums: readonly TaxSum[];
  /** What the supplier's bill comes to more. */
  readonly charged: Minor;
  /** Of each line, what of its tax is cost. */
  readonly costs: readonly Minor[];
};

const paidTo = { domestic: 'supplier', within_union: 'self', import: 'customs', exempt: 'nobody' } as const;

/** The rate of a category that is in force on a day: the latest that has begun and is not over. */
export function taxRateOn(rates: readonly TaxRate[], category: string, day: string): TaxRate | null {
  const inForce = rates.filter((r) => r.validFrom <= day && (r.validTo === null || r.validTo >= day));
  const own = inForce.filter((r) => (category === '' ? r.usual : r.category === category));
  return own.sort((a, b) => (a.validFrom < b.validFrom ? 1 : -1))[0] ?? null;
}

/** Tax of an order per category: the rate of the summed net of the category, rounded half up once; split over its lines by their
 *  net to say what of it is recovered and what is cost. A negative sum is taxed the other way round.
 *  Units: minor units of one currency.
 *  Source: EN 16931, BR-CO-17 (tax amount of a category = taxable amount x rate / 100, rounded to two decimals), from memory. */
export function orderTax(
  lines: readonly TaxedLine[],
  regime: TaxRegime,
  rates: readonly TaxRate[],
  day: string,
): OrderTax {
  const costs: Minor[] = lines.map(() => 0);
  if (regime === 'exempt') return { paidTo: 'nobody', sums: [], charged: 0, costs };
  const groups = new Map<string, { rate: TaxRate | null; members: number[] }>();
  for (const [i, line] of lines.entries()) {
    const rate = taxRateOn(rates, line.category, day);
    const category = rate?.category ?? line.category;
    const group = groups.get(category) ?? { rate, members: [] };
    group.members.push(i);
    groups.set(category, group);
  }
  const sums = [...groups].map(([category, { rate, members }]): TaxSum => {
    const taxable = members.reduce((sum, i) => sum + (lines[i] as TaxedLine).net, 0);
    if (!rate) return { category, percent: null, taxable, tax: 0, recoverable: 0, cost: 0 };
    const tax = percentOf(rate.percent, taxable);
    const shares = allocate(
      tax,
      members.map((i) => fraction(Math.abs((lines[i] as TaxedLine).net))),
    );
    let cost = 0;
    for (const [k, i] of members.entries()) {
      const share = shares[k] as number;
      if ((lines[i] as TaxedLine).purpose === 'own_use') costs[i] = share - percentOf(rate.ownUsePercent, share);
      cost += costs[i] as number;
    }
    return { category, percent: rate.percent, taxable, tax, recoverable: tax - cost, cost };
  });
  const charged = regime === 'domestic' ? sums.reduce((a, s) => a + s.tax, 0) : 0;
  return { paidTo: paidTo[regime], sums, charged, costs };
}
