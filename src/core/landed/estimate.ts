import { decimalsOf, type Minor } from '@/core/money';
import { decimalFraction, divideHalfUp, type Fraction, fraction } from '@/core/units';

import type { Charge, ChargeAmount, Spread } from './types';

/** A charge or allowance as a supplier usually has it. */
export type UsualCharge = {
  readonly name: string;
  readonly position: number;
  readonly sign: 'charge' | 'allowance';
  readonly amountKind: 'asked' | 'fixed' | 'percent' | 'duty';
  /** Sum per order or percent; of one that is asked each time what is usual, null when nothing is. */
  readonly amount: string | null;
  /** Of a sum; '' = the supplier's. */
  readonly currency: string;
  /** Earlier charges that a percentage or duty counts besides the goods. */
  readonly onCharges: readonly string[];
  readonly spread: Exclude<Spread, 'duty'>;
  readonly into: 'stock' | 'expense' | 'recoverable';
};

/** What a supplier asks for bringing goods, in its currency. */
export type FreightTerms = {
  readonly payer: 'prepaid' | 'collect' | 'third_party' | null;
  readonly fixed: string | null;
  readonly perKg: string | null;
  /** From this goods value on it is free. */
  readonly freeFrom: string | null;
};

/** A charge of an estimate with where it comes from. */
export type EstimatedCharge = Charge & {
  readonly origin: 'freight_terms' | 'usual' | 'asked';
  /** One sum for the order, however much stands on it. */
  readonly perOrder: boolean;
};

/** Minor units of a decimal amount, rounded half up. */
export const minorOf = (amount: string, currency: string): Minor => {
  const f = decimalFraction(amount);
  return Number(divideHalfUp(f.num * 10n ** BigInt(decimalsOf(currency)), f.den));
};

type Order = { readonly net: Minor; readonly weight: Fraction | null; readonly currency: string };
type Freight = {
  readonly name: string;
  readonly minor: Minor;
  readonly spread: 'value' | 'weight';
  readonly perOrder: boolean;
};

/** Freight by the terms of a supplier: a fixed sum and a rate per kilogram, nothing from the free-freight value on; `noWeight` when
 *  it goes by weight and some goods have none on file (it is not reckoned then).
 *  Units: goods net in minor units of the supplier's currency; weight in kilograms.
 *  Source: freight terms, common practice. */
export function freightOf(
  freight: FreightTerms,
  order: Order,
): { readonly charges: readonly Freight[]; readonly noWeight: boolean } {
  const { currency } = order;
  const asked = (amount: string | null): amount is string => amount !== null && Number(amount) > 0;
  if (freight.freeFrom !== null && order.net >= minorOf(freight.freeFrom, currency))
    return { charges: [], noWeight: false };
  const charges: Freight[] = [];
  if (asked(freight.fixed)) {
    const spread = order.weight === null ? 'value' : 'weight';
    charges.push({ name: 'Freight', minor: minorOf(freight.fixed, currency), spread, perOrder: true });
  }
  if (asked(freight.perKg) && order.weight !== null) {
    const minor = timesWeight(freight.perKg, order.weight, currency);
    charges.push({ name: 'Freight by weight', minor, spread: 'weight', perOrder: false });
  }
  return { charges, noWeight: asked(freight.perKg) && order.weight === null };
}

/** The charges to reckon with before an order is made: freight by the supplier's terms first, then its usual charges by position.
 *  One that is asked each time counts with its usual amount, and with 0 where none is on file; `asked` names those. */
export function usualCharges(
  usual: readonly UsualCharge[],
  freight: FreightTerms,
  order: Order,
): { readonly charges: readonly EstimatedCharge[]; readonly asked: readonly string[]; readonly noWeight: boolean } {
  const { currency } = order;
  const terms = freightOf(freight, order);
  const charges = terms.charges.map(
    ({ name, minor, spread, perOrder }): EstimatedCharge => ({
      ...{ name, sign: 1, amount: { kind: 'fixed', minor, currency }, spread, lines: null, into: 'stock' },
      ...{ origin: 'freight_terms', perOrder },
    }),
  );

  const at = new Map<string, number>();
  const asked: string[] = [];
  for (const u of [...usual].sort((a, b) => a.position - b.position)) {
    if (u.amountKind === 'asked' && u.amount === null) asked.push(u.name);
    const own: Charge = {
      name: u.name,
      sign: u.sign === 'allowance' ? -1 : 1,
      amount: amountOf(u, currency, at),
      spread: u.amountKind === 'duty' ? 'duty' : u.spread,
      lines: null,
      into: u.into,
    };
    at.set(u.name, charges.length);
    charges.push({
      ...{ ...own, origin: u.amountKind === 'asked' ? 'asked' : 'usual' },
      perOrder: u.amountKind === 'fixed' || u.amountKind === 'asked',
    });
  }
  return { charges, asked, noWeight: terms.noWeight };
}

const timesWeight = (perKg: string, weight: Fraction, currency: string): Minor => {
  const rate = decimalFraction(perKg);
  return Number(divideHalfUp(rate.num * weight.num * 10n ** BigInt(decimalsOf(currency)), rate.den * weight.den));
};

function amountOf(u: UsualCharge, currency: string, at: ReadonlyMap<string, number>): ChargeAmount {
  const and = u.onCharges.flatMap((name) => at.get(name) ?? []);
  if (u.amountKind === 'percent') return { kind: 'percent', percent: u.amount ?? '0', and };
  if (u.amountKind === 'duty') return { kind: 'duty', and };
  const own = u.currency || currency;
  return { kind: 'fixed', minor: minorOf(u.amount ?? '0', own), currency: own };
}

/** Weight of a quantity in kilograms. Units: per base unit in kg as decimal text, quantity in millionths. */
export const weightOf = (perUnit: string | null, quantity: number): Fraction | null => {
  if (perUnit === null) return null;
  const f = decimalFraction(perUnit);
  return fraction(f.num * BigInt(quantity), f.den * 1_000_000n);
};
