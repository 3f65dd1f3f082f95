import { allocate, convert, decimalsOf, type Minor } from '@/core/money';
import { decimalFraction, divideHalfUp, type Fraction, fraction } from '@/core/units';
import type { Charge, LandedCost, LandedFault, LandedInput, LandedLine, Spread } from './types';

const sum = (xs: readonly Minor[]): Minor => xs.reduce((a, b) => a + b, 0);

/** A percentage of money, rounded half up of the absolute value, once. */
export function percentOf(percent: string, of: Minor): Minor {
  const p = decimalFraction(percent);
  const value = Number(divideHalfUp(p.num * BigInt(of), p.den * 100n));
  return value === 0 ? 0 : value;
}

/** What the lines weigh in a spread; a stock line without the figure makes the whole charge go by value. */
function weightsOf(
  spread: Exclude<Spread, 'duty'>,
  lines: readonly LandedLine[],
  chosen: readonly number[],
  values: readonly Minor[],
): { weights: Fraction[]; missing: number | null; kind: 'no_weight' | 'no_volume' } {
  const byValue = chosen.map((i) => fraction(Math.max(0, values[i] as number)));
  const kind = spread === 'volume' ? 'no_volume' : 'no_weight';
  if (spread === 'value') return { weights: byValue, missing: null, kind };
  if (spread === 'even') return { weights: chosen.map(() => fraction(1)), missing: null, kind };
  const figure = (l: LandedLine): Fraction | null =>
    !l.stock
      ? fraction(0)
      : spread === 'quantity'
        ? fraction(l.quantity, 1_000_000)
        : spread === 'weight'
          ? l.weight
          : l.volume;
  const figures = chosen.map((i) => figure(lines[i] as LandedLine));
  const missing = figures.indexOf(null);
  if (missing >= 0) return { weights: byValue, missing: chosen[missing] as number, kind };
  return { weights: figures as Fraction[], missing: null, kind };
}

/** Landed cost of the lines of an order or receipt, in base currency.
 *
 *  1. The order discount is a percentage of the sum of the line nets, rounded, and split by line net.
 *  2. What is left is converted as one sum and split over the lines by their net.
 *  3. Each charge in its order: a fixed sum (converted, rounded), or a percentage of goods plus earlier charges; split by
 *     its spread over its lines; a percentage "by value" goes by the same base per line that it is a percentage of.
 *     Duty is each line's own rate of its goods plus earlier charges, rounded per line.
 *  4. landed = goods + shares of the charges that go into stock cost.
 *
 *  Units: minor units; every split is by largest remainder and adds up exactly.
 *  Faults: no_weight, no_volume (spread by value instead), no_rate (the charge counts 0). They stop nothing.
 *  Source: UBL 2.1 AllowanceCharge for the one kind of thing with a sign; duty on cost, insurance and freight: common practice. */
export function landedCost(input: LandedInput): LandedCost {
  const { lines, base, currency, charges } = input;
  const all = lines.map((_, i) => i);
  const faults: LandedFault[] = [];
  const nets = lines.map((l) => l.net);
  const discount = percentOf(input.orderDiscountPercent ?? '0', sum(nets));
  const discounts = allocate(
    discount,
    nets.map((n) => fraction(Math.max(0, n))),
  );
  const left = nets.map((n, i) => n - (discounts[i] as number));
  const total = convert(sum(left), currency, input.rate, base);
  const goods = allocate(
    total,
    left.map((n) => fraction(Math.max(0, n))),
  );

  const shares: Minor[][] = [];
  const done: { amount: Minor; spread: Spread }[] = [];
  for (const [at, charge] of charges.entries()) {
    const chosen = charge.lines ?? all;
    const basis = all.map((i) => {
      const and = charge.amount.kind === 'fixed' ? [] : charge.amount.and;
      return (goods[i] as number) + sum(and.map((c) => shares[c]?.[i] ?? 0));
    });
    const share: Minor[] = lines.map(() => 0);
    let spread = charge.spread;
    if (charge.amount.kind === 'duty') {
      for (const i of chosen)
        share[i] = charge.sign * percentOf((lines[i] as LandedLine).dutyPercent, basis[i] as number);
      spread = 'duty';
    } else {
      const amount = charge.sign * amountOf(charge, at, input, sum(chosen.map((i) => basis[i] as number)), faults);
      const by = weightsOf(spread === 'duty' ? 'value' : spread, lines, chosen, basis);
      if (by.missing !== null) {
        faults.push({ kind: by.kind, line: by.missing, charge: at });
        spread = 'value';
      }
      for (const [k, part] of allocate(amount, by.weights).entries()) share[chosen[k] as number] = part;
    }
    shares.push(share);
    done.push({ amount: sum(share), spread });
  }

  const costed = lines.map((_, i) => {
    const own = shares.map((s) => s[i] as number);
    const stock = sum(own.filter((_, c) => (charges[c] as Charge).into === 'stock'));
    return {
      discount: discounts[i] as number,
      netAfterDiscount: left[i] as number,
      goods: goods[i] as number,
      shares: own,
      landed: (goods[i] as number) + stock,
    };
  });
  return { lines: costed, charges: done, goods: total, landed: sum(costed.map((l) => l.landed)), faults };
}

function amountOf(charge: Charge, at: number, input: LandedInput, basis: Minor, faults: LandedFault[]): Minor {
  const { amount } = charge;
  if (amount.kind === 'percent') return percentOf(amount.percent, basis);
  if (amount.kind === 'duty') return 0;
  if (amount.currency === input.base) return amount.minor;
  const rate = amount.currency === input.currency ? input.rate : input.rates?.get(amount.currency);
  if (!rate) {
    faults.push({ kind: 'no_rate', line: null, charge: at });
    return 0;
  }
  return convert(amount.minor, amount.currency, rate, input.base);
}

/** Landed cost per base unit as a decimal string, rounded half up; for display and comparison, never stored.
 *  Units: landed in minor units of the currency, quantity in millionths. Null for a quantity of 0.
 *  @example landedPerUnit(7000, 20_000_000, 'EUR', 6)  // '3.500000' */
export function landedPerUnit(landed: Minor, quantity: number, currency: string, decimals: number): string | null {
  if (quantity <= 0) return null;
  const scale = 10n ** BigInt(decimals);
  const n = divideHalfUp(BigInt(landed) * 1_000_000n * scale, BigInt(quantity) * 10n ** BigInt(decimalsOf(currency)));
  const digits = String(n < 0n ? -n : n).padStart(decimals + 1, '0');
  const text = decimals === 0 ? digits : `${digits.slice(0, -decimals)}.${digits.slice(-decimals)}`;
  return n < 0n ? `-${text}` : text;
}
