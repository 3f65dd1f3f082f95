import { minorToDecimal } from '@/core/money';
import type { Fraction } from '@/core/units';
import { type FreightTerms, freightOf, minorOf, type UsualCharge } from './estimate';
import type { Charge, ChargeAmount, Spread } from './types';

/** A charge or allowance as it stands on one order: as its supplier usually has it, another on this order, or added to it. */
export type OrderCharge = {
  readonly name: string;
  readonly position: number;
  readonly sign: 'charge' | 'allowance';
  readonly amountKind: 'fixed' | 'percent' | 'duty';
  /** Sum or percent as decimal text; null = asked each time and not given yet, or duty. */
  readonly amount: string | null;
  /** Of a sum. */
  readonly currency: string;
  readonly onCharges: readonly string[];
  readonly spread: Exclude<Spread, 'duty'>;
  readonly into: 'stock' | 'expense' | 'recoverable';
  readonly account: string;
  /** Whether it is on this supplier's bill, or somebody else's: a carrier's, an agent's, the customs'. */
  readonly billed: boolean;
  /** Numbers of the lines that it is for; empty = all. */
  readonly onlyLines: readonly number[];
  readonly origin: 'freight_terms' | 'usual' | 'by_hand';
  readonly leftOut: boolean;
};

/** The charges that an order has before somebody says otherwise: freight by the supplier's terms, then its usual charges.
 *  Freight is on the supplier's bill unless the receiver or a third party pays the carrier; a usual charge is when it is a sum in
 *  the order's currency or a percentage; duty never is.
 *  Units: net in minor units of the order's currency; weight in kilograms, null when some goods have none on file.
 *  Source: freight terms (prepaid, collect, third party), common practice. */
export function standingCharges(
  usual: readonly (UsualCharge & { readonly account?: string })[],
  freight: FreightTerms,
  order: { readonly net: number; readonly weight: Fraction | null; readonly currency: string },
): OrderCharge[] {
  const { currency } = order;
  const common = { onCharges: [], into: 'stock', account: '', onlyLines: [], leftOut: false } as const;
  const terms = freightOf(freight, order).charges.map(
    (f): OrderCharge => ({
      ...{ ...common, name: f.name, position: 0, sign: 'charge', amountKind: 'fixed' },
      ...{ amount: minorToDecimal(f.minor, currency), currency, spread: f.spread, origin: 'freight_terms' },
      billed: freight.payer !== 'collect' && freight.payer !== 'third_party',
    }),
  );
  return [
    ...terms,
    ...[...usual]
      .sort((a, b) => a.position - b.position)
      .map((u): OrderCharge => {
        const amountKind = u.amountKind === 'asked' ? 'fixed' : u.amountKind;
        const own = u.currency || currency;
        return {
          ...{ ...common, name: u.name, position: u.position, sign: u.sign, amountKind, amount: u.amount },
          ...{ currency: own, onCharges: u.onCharges, spread: u.spread, into: u.into, account: u.account ?? '' },
          ...{ billed: amountKind !== 'duty' && own === currency, origin: 'usual' },
        };
      }),
  ];
}

/** What stands on an order: what was said for it takes the place of the standing charge of the same name, the rest follows. */
export function effectiveCharges(standing: readonly OrderCharge[], own: readonly OrderCharge[]): OrderCharge[] {
  const said = new Map(own.map((c) => [c.name, c]));
  const kept = standing.map((c) => {
    const o = said.get(c.name);
    said.delete(c.name);
    return o ?? c;
  });
  return [...kept, ...[...said.values()].sort((a, b) => a.position - b.position)];
}

/** How a charge of an order is another than its supplier usually has it. */
export type ChargeDifference = 'added' | 'left_out' | 'amount' | 'spread' | 'lines' | 'billed' | 'into';

/** In what a charge differs from the standing one of its name. */
export function chargeDifferences(c: OrderCharge, standing: OrderCharge | undefined): ChargeDifference[] {
  if (!standing) return ['added'];
  if (c.leftOut) return ['left_out'];
  const same = (a: string | null, b: string | null) => a === b || (a !== null && b !== null && Number(a) === Number(b));
  const amount =
    c.sign !== standing.sign || c.amountKind !== standing.amountKind || c.currency !== standing.currency
      ? false
      : same(c.amount, standing.amount);
  return [
    ...(amount ? [] : (['amount'] as const)),
    ...(c.spread === standing.spread ? [] : (['spread'] as const)),
    ...(c.onlyLines.length === 0 ? [] : (['lines'] as const)),
    ...(c.billed === standing.billed ? [] : (['billed'] as const)),
    ...(c.into === standing.into ? [] : (['into'] as const)),
  ];
}

/** Charges of an order as landedCost takes them, without those left out. A percentage counts earlier charges by their names, and
 *  those of later charges or of none not at all. Lines that are named and not there are not meant.
 *  Units: lineNos in the order of the lines of the cost. */
export function chargesToSpread(all: readonly OrderCharge[], lineNos: readonly number[]): Charge[] {
  const at = new Map<string, number>();
  return all
    .filter((c) => !c.leftOut)
    .map((c, i): Charge => {
      const and = c.onCharges.flatMap((name) => at.get(name) ?? []);
      at.set(c.name, i);
      const amount: ChargeAmount =
        c.amountKind === 'percent'
          ? { kind: 'percent', percent: c.amount ?? '0', and }
          : c.amountKind === 'duty'
            ? { kind: 'duty', and }
            : { kind: 'fixed', minor: minorOf(c.amount ?? '0', c.currency), currency: c.currency };
      const chosen = c.onlyLines.flatMap((no) => {
        const position = lineNos.indexOf(no);
        return position < 0 ? [] : [position];
      });
      return {
        ...{ name: c.name, sign: c.sign === 'allowance' ? -1 : 1, amount, into: c.into },
        spread: c.amountKind === 'duty' ? 'duty' : c.spread,
        lines: chosen.length === 0 ? null : chosen,
      };
    });
}

/** A charge as text, to tell whether somebody else changed it meanwhile. */
export const chargeText = (c: OrderCharge): string =>
  JSON.stringify([
    ...[c.sign, c.amountKind, c.amount === null ? null : Number(c.amount), c.currency, c.onCharges, c.spread, c.into],
    ...[c.account, c.billed, c.onlyLines, c.leftOut],
  ]);
