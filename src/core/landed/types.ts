import type { Minor } from '@/core/money';
import type { Fraction } from '@/core/units';

/** By what a charge is spread over the lines: 'duty' takes each line's own duty rate instead of a sum that is split. */
export type Spread = 'value' | 'quantity' | 'weight' | 'volume' | 'even' | 'duty';

/** How much a charge is: a fixed sum in some currency, or a percentage of the goods plus earlier charges, by position. */
export type ChargeAmount =
  | { readonly kind: 'fixed'; readonly minor: Minor; readonly currency: string }
  | { readonly kind: 'percent'; readonly percent: string; readonly and: readonly number[] }
  | { readonly kind: 'duty'; readonly and: readonly number[] };

/** A charge, or an allowance with its sign turned: one thing, like AllowanceCharge of UBL 2.1. */
export type Charge = {
  readonly name: string;
  readonly sign: 1 | -1;
  readonly amount: ChargeAmount;
  readonly spread: Spread;
  /** Positions of the lines it is for; null = all. */
  readonly lines: readonly number[] | null;
  readonly into: 'stock' | 'expense' | 'recoverable';
};

export type LandedLine = {
  /** What share of goods an allowance or charge by value takes; 0 for goods free of charge. */
  readonly net: Minor;
  /** In base units, millionths. */
  readonly quantity: number;
  /** Of the whole line, in kilograms and litres; null where the item has none on file. */
  readonly weight: Fraction | null;
  readonly volume: Fraction | null;
  readonly dutyPercent: string;
  /** Lines that are not stock have weight, volume and quantity 0, which is no fault. */
  readonly stock: boolean;
};

export type LandedInput = {
  readonly base: string;
  readonly currency: string;
  /** Base currency for one of the order's, exact. */
  readonly rate: Fraction;
  /** Rates of other currencies that fixed charges are in. */
  readonly rates?: ReadonlyMap<string, Fraction>;
  readonly lines: readonly LandedLine[];
  /** Allowance on the whole order, percent of the sum of line nets; taken off in the order's currency before all else. */
  readonly orderDiscountPercent?: string;
  readonly charges: readonly Charge[];
};

/** A stock line without what the charge is spread by; the charge is spread by value until it is mended. */
export type LandedFault = {
  readonly kind: 'no_weight' | 'no_volume' | 'no_rate';
  readonly line: number | null;
  readonly charge: number;
};

export type LandedCost = {
  readonly lines: readonly {
    readonly discount: Minor;
    readonly netAfterDiscount: Minor;
    /** In base currency. */
    readonly goods: Minor;
    /** Its share of each charge, in order, signed, whatever it goes into. */
    readonly shares: readonly Minor[];
    /** Goods and the shares that go into stock cost. */
    readonly landed: Minor;
  }[];
  readonly charges: readonly { readonly amount: Minor; readonly spread: Spread }[];
  readonly goods: Minor;
  readonly landed: Minor;
  readonly faults: readonly LandedFault[];
};
