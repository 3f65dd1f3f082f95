import {
  chargesToSpread,
  type LandedFault,
  type LandedLine,
  landedCost,
  landedPerUnit,
  type OrderCharge,
  type Spread,
} from '@/core/landed';
import { allocate, convert, type Minor } from '@/core/money';
import { type OrderTax, orderTax, type Purpose, type TaxRate, type TaxRegime } from '@/core/tax';
import { type Fraction, fraction, over } from '@/core/units';

/** A line of an order as its cost is reckoned. */
export type CostLine = LandedLine & {
  readonly lineNo: number;
  readonly taxCategory: string;
  readonly purpose: Purpose;
};

export type OrderCostInput = {
  readonly base: string;
  readonly currency: string;
  /** Base currency for one of another, exact; null where no rate is on file. */
  readonly perUnit: (currency: string) => Fraction | null;
  readonly lines: readonly CostLine[];
  readonly charges: readonly OrderCharge[];
  readonly regime: TaxRegime;
  readonly taxRates: readonly TaxRate[];
  readonly day: string;
};

export type CostOfLine = {
  /** In base currency. */
  readonly goods: Minor;
  /** Its share of each charge, in their order, whatever it goes into; and what of its tax is cost. */
  readonly shares: readonly Minor[];
  readonly tax: Minor;
  readonly landed: Minor;
  /** Landed cost of a base unit, at four decimals; null for no quantity. */
  readonly each: string | null;
};

export type OrderCost = {
  /** Charges that count, in their order: on the bill in the order's currency, and in the company's. */
  readonly charges: readonly {
    readonly charge: OrderCharge;
    readonly inOrder: Minor;
    readonly inBase: Minor | null;
    /** As it is spread in the end: by value where a figure is missing. */
    readonly spread: Spread;
  }[];
  readonly net: Minor;
  /** Charges on the supplier's bill. */
  readonly billed: Minor;
  readonly tax: OrderTax;
  /** What the supplier's bill comes to. */
  readonly total: Minor;
  /** Null while no rate of its currency is on file: an unknown rate is never taken for 1. */
  readonly landed: { readonly lines: readonly CostOfLine[]; readonly goods: Minor; readonly sum: Minor } | null;
  readonly faults: readonly LandedFault[];
};

/** What an order costs: its bill in its own currency (net, charges on it, tax) and what its goods are expected to cost on the shelf
 *  in the company's (landed). Tax is of each line's net with its shares of the charges: those on the bill; where the customs are
 *  paid, of all of them. What of the tax is not recovered is cost of the line.
 *  Units: minor units of the currency that is said.
 *  Source: see landedCost and orderTax; tax on import of value, duty and carriage: Directive 2006/112/EC, articles 85 and 86, from memory. */
export function orderCost(input: OrderCostInput): OrderCost {
  const { base, currency, perUnit, lines, regime, day } = input;
  const counted = input.charges.filter((c) => !c.leftOut);
  const charges = chargesToSpread(
    counted,
    lines.map((l) => l.lineNo),
  );
  const foreign = [...new Set(charges.flatMap((c) => (c.amount.kind === 'fixed' ? [c.amount.currency] : [])))];
  const own = perUnit(currency);
  const ratesTo = (one: Fraction | null) =>
    new Map(
      foreign.flatMap((c) => {
        const rate = perUnit(c);
        return rate && one ? [[c, over(rate, one)] as const] : [];
      }),
    );
  const onBill = landedCost({ base: currency, currency, rate: fraction(1), rates: ratesTo(own), lines, charges });
  const inBase = own && landedCost({ base, currency, rate: own, rates: ratesTo(fraction(1)), lines, charges });
  const isTaxed = (i: number) => regime === 'import' || (counted[i] as OrderCharge).billed;
  const tax = orderTax(
    lines.map((l, i) => ({
      ...{ category: l.taxCategory, purpose: l.purpose },
      net: l.net + (onBill.lines[i]?.shares ?? []).reduce((sum, share, c) => (isTaxed(c) ? sum + share : sum), 0),
    })),
    regime,
    input.taxRates,
    day,
  );
  const billed = onBill.charges.reduce((sum, c, i) => (counted[i]?.billed ? sum + c.amount : sum), 0);
  const net = lines.reduce((sum, l) => sum + l.net, 0);
  const taxCosts = own && spreadInBase(tax.costs, currency, own, base);
  const costed = inBase?.lines.map((l, i): CostOfLine => {
    const cost = taxCosts?.[i] ?? 0;
    const landed = l.landed + cost;
    const { quantity } = lines[i] as CostLine;
    return { goods: l.goods, shares: l.shares, tax: cost, landed, each: landedPerUnit(landed, quantity, base, 4) };
  });
  return {
    charges: counted.map((charge, i) => ({
      charge,
      inOrder: onBill.charges[i]?.amount ?? 0,
      inBase: inBase?.charges[i]?.amount ?? null,
      spread: onBill.charges[i]?.spread ?? charge.spread,
    })),
    ...{ net, billed, tax, total: net + billed + tax.charged },
    landed:
      costed && inBase
        ? { lines: costed, goods: inBase.goods, sum: costed.reduce((sum, l) => sum + l.landed, 0) }
        : null,
    faults: (inBase ?? onBill).faults,
  };
}

/** Costs in the order's currency, converted as one sum and split again. */
function spreadInBase(costs: readonly Minor[], currency: string, rate: Fraction, base: string): Minor[] {
  const sum = convert(
    costs.reduce((a, b) => a + b, 0),
    currency,
    rate,
    base,
  );
  return allocate(
    sum,
    costs.map((c) => fraction(Math.abs(c))),
  );
}
