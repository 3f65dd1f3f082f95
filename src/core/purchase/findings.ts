import type { Minor } from '@/core/money';
import { MICRO, type Quantity } from '@/core/quantity';

export type LineKind = 'stock' | 'non_stock' | 'charge' | 'service' | 'straight_to_customer';

/** What an invoice is held against: the order alone, or also what came. */
export const matchings = ['two_way', 'three_way'] as const;
export type Matching = (typeof matchings)[number];

export type FindingLine = {
  readonly lineNo: number;
  readonly kind: LineKind;
  readonly packQuantity: number;
  readonly priceAmount: string | null;
  readonly freeOfCharge: boolean;
  readonly parts: readonly { readonly wantedDate: string | null; readonly hasLocation: boolean }[];
};

export type FindingOrder = {
  readonly lines: readonly FindingLine[];
  readonly supplierBlocked: boolean;
  readonly supplierAddress: boolean;
  /** Letters of its addresses and texts that can't be set on paper. */
  readonly unprintable?: readonly string[];
  /** Charges that are asked each time and were not said yet, and those in a currency without a rate: they count nothing. */
  readonly chargesOpen?: readonly string[];
  /** Tax categories without a rate. */
  readonly untaxed?: readonly string[];
  /** Lines that bring a place above its maximum, by how much beyond a pack; millionths of the base unit. */
  readonly beyondMaximum?: readonly { readonly lineNo: number; readonly place: string; readonly over: Quantity }[];
  /** Budgets of the month that are overdrawn with it, in the company's currency. */
  readonly overBudget?: readonly {
    readonly category: string | null;
    readonly over: Minor;
    readonly currency: string;
  }[];
  readonly orderMinimum: Minor;
  readonly net: Minor;
  /** The currency that no rate is on file of; null when one is, or none is needed. */
  readonly rateMissing: string | null;
  readonly today: string;
};

/** What is still missing before approval (blocks), and what is worth knowing (informs). */
export type Finding =
  | { readonly kind: 'no_lines'; readonly blocks: true }
  | { readonly kind: 'supplier_blocked'; readonly blocks: true }
  | { readonly kind: 'rate_missing'; readonly blocks: true; readonly currency: string }
  | { readonly kind: 'price_missing'; readonly blocks: true; readonly lineNo: number }
  | { readonly kind: 'quantity_missing'; readonly blocks: true; readonly lineNo: number }
  | { readonly kind: 'wanted_date_missing'; readonly blocks: true; readonly lineNo: number }
  | { readonly kind: 'place_missing'; readonly blocks: true; readonly lineNo: number }
  | { readonly kind: 'supplier_address_missing'; readonly blocks: false }
  | { readonly kind: 'not_whole_packs'; readonly blocks: false; readonly lineNo: number }
  | { readonly kind: 'unprintable'; readonly blocks: false; readonly letters: readonly string[] }
  | { readonly kind: 'charges_open'; readonly blocks: false; readonly names: readonly string[] }
  | { readonly kind: 'no_tax_rate'; readonly blocks: false; readonly categories: readonly string[] }
  | {
      readonly kind: 'beyond_maximum';
      readonly blocks: false;
      readonly lineNo: number;
      readonly place: string;
      readonly over: Quantity;
    }
  | {
      readonly kind: 'over_budget';
      readonly blocks: false;
      readonly category: string | null;
      readonly over: Minor;
      readonly currency: string;
    }
  | { readonly kind: 'wanted_in_the_past'; readonly blocks: false; readonly lineNo: number }
  | { readonly kind: 'below_minimum'; readonly blocks: false; readonly minimum: Minor; readonly short: Minor }
  | { readonly kind: 'minimum_reached'; readonly blocks: false; readonly minimum: Minor };

const isZero = (amount: string) => !/[1-9]/.test(amount);

/** A purchase order is never approved at zero unless the line is marked free of charge; place and date must be there.
 *  The order minimum is compared with the line net before order discount, charges and tax. It informs, it does not block. */
export function findings(order: FindingOrder): Finding[] {
  const found: Finding[] = [];
  if (order.lines.length === 0) found.push({ kind: 'no_lines', blocks: true });
  if (order.supplierBlocked) found.push({ kind: 'supplier_blocked', blocks: true });
  if (order.rateMissing !== null) found.push({ kind: 'rate_missing', blocks: true, currency: order.rateMissing });
  for (const line of order.lines) {
    const { lineNo } = line;
    if (line.packQuantity <= 0) found.push({ kind: 'quantity_missing', blocks: true, lineNo });
    if (line.kind === 'stock' && line.packQuantity % MICRO !== 0)
      found.push({ kind: 'not_whole_packs', blocks: false, lineNo });
    if (!line.freeOfCharge && (line.priceAmount === null || isZero(line.priceAmount))) {
      found.push({ kind: 'price_missing', blocks: true, lineNo });
    }
    const comes = line.kind !== 'charge' && line.kind !== 'service';
    if (comes && line.parts.some((p) => p.wantedDate === null))
      found.push({ kind: 'wanted_date_missing', blocks: true, lineNo });
    if (comes && line.parts.some((p) => !p.hasLocation)) {
      found.push({ kind: 'place_missing', blocks: true, lineNo });
    }
    if (line.parts.some((p) => p.wantedDate !== null && p.wantedDate < order.today)) {
      found.push({ kind: 'wanted_in_the_past', blocks: false, lineNo });
    }
  }
  if (order.unprintable && order.unprintable.length > 0)
    found.push({ kind: 'unprintable', blocks: false, letters: order.unprintable });
  if (order.chargesOpen && order.chargesOpen.length > 0)
    found.push({ kind: 'charges_open', blocks: false, names: order.chargesOpen });
  if (order.untaxed && order.untaxed.length > 0)
    found.push({ kind: 'no_tax_rate', blocks: false, categories: order.untaxed });
  for (const b of order.beyondMaximum ?? []) found.push({ kind: 'beyond_maximum', blocks: false, ...b });
  for (const b of order.overBudget ?? []) found.push({ kind: 'over_budget', blocks: false, ...b });
  if (!order.supplierAddress) found.push({ kind: 'supplier_address_missing', blocks: false });
  if (order.orderMinimum > 0 && order.lines.length > 0) {
    const short = order.orderMinimum - order.net;
    found.push(
      short > 0
        ? { kind: 'below_minimum', blocks: false, minimum: order.orderMinimum, short }
        : { kind: 'minimum_reached', blocks: false, minimum: order.orderMinimum },
    );
  }
  return found;
}
