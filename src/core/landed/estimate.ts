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

/** The charges to reckon with before an order is made: freight by the supplier's terms first (fixed sum and rate per kilogram,
 *  nothing from the free-freight value on), then its usual charges by position. One that is asked each time counts with its
 *  usual amount, and with 0 where none is on file; `asked` names those.
 *  Units: goods net in minor units of the supplier's currency; weight in kilograms, null when some goods have none on file
 *  (freight by weight is then not reckoned, and said).
 *  Source: freight terms, common practice. */
export function usualCharges(
  usual: readonly UsualCharge[],
  freight: FreightTerms,
  order: { readonly net: Minor; readonly weight: Fraction | null; readonly currency: string },
): { readonly charges: readonly EstimatedCharge[]; readonly asked: readonly string[]; readonly noWeight: boolean } {
  const { currency } = order;
  const charges: EstimatedCharge[] = [];
  const free = freight.freeFrom !== null && order.net >= minorOf(freight.freeFrom, currency);
  const fixed = (name: string, minor: Minor, spread: Spread): EstimatedCharge => ({
    ...{ name, sign: 1, amount: { kind: 'fixed', minor, currency }, spread, lines: null, into: 'stock' },
    ...{ origin: 'freight_terms', perOrder: true },
  });
  if (!free && freight.fixed !== null && Number(freight.fixed) > 0)
    charges.push(fixed('Freight', minorOf(freight.fixed, currency), order.weight === null ? 'value' : 'weight'));
  const byWeight = !free && freight.perKg !== null && Number(freight.perKg) > 0;
  if (byWeight && order.weight !== null)
    charges.push({
      ...fixed('Freight by weight', timesWeight(freight.perKg as string, order.weight, currency), 'weight'),
      perOrder: false,
    });

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
  return { charges, asked, noWeight: byWeight && order.weight === null };
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
