import type { Completion } from '@/core/catalogue';
import type { SourceRule } from '@/core/sourcing';

export const completionWords: Readonly<Record<Completion, string>> = {
  category: 'a category',
  supplier: 'a supplier',
  price: 'a supplier’s price or a standard cost',
  policy: 'a policy',
  sale_price: 'a sale price',
  barcode: 'a barcode',
};

export const originWords = { standard_cost: 'standard cost', last_price: 'last price paid' } as const;

/** Why a source was chosen, in words. @example ruleWords({ kind: 'rank', rank: 1, of: 2, here: false })  // 'rank 1 of 2 suppliers' */
export function ruleWords(rule: SourceRule): string {
  switch (rule.kind) {
    case 'only':
      return 'the only supplier';
    case 'rank':
      return `rank ${rule.rank} of ${rule.of} suppliers${rule.here ? ', as said for this place' : ''}`;
    case 'share':
      return `share ${rule.share} %${rule.here ? ' of this place' : ''}, had ${rule.had} % so far`;
    case 'blocked':
      return 'first by rank, but every supplier is blocked';
  }
}

/** Kinds of movements in the ledger. */
export const movementWords: Readonly<Record<string, string>> = {
  opening: 'opening stock',
  receipt: 'goods receipt',
  sale: 'sold',
  correction: 'correction',
  transfer: 'transfer',
  count: 'count',
  use: 'use found by a count',
  value: 'value only',
  receipt_reversal: 'receipt reversed',
  late_charge: 'late charge',
  cost_adjustment: 'cost of a back-dated receipt',
};
