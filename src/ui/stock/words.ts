import type { CountState, ShownMovementKind, TransferState } from '@/core/stock';
import type { CrossedLevel } from '@/services/stock/crossings';
import type { Format } from '../format';

/** A level that stock has just crossed, as a sentence. */
export function crossedWords(c: CrossedLevel, format: Format): string {
  const now = format.quantity(c.now);
  switch (c.crossing) {
    case 'below_zero':
      return `${c.item} at ${c.location} is below zero now (${now}): more went out than was booked in.`;
    case 'out_of_stock':
      return `${c.item} at ${c.location} is sold out now.`;
    case 'below_min':
      return `${c.item} at ${c.location} has come to its minimum: ${now} of ${format.quantity(c.level ?? 0)}.`;
    case 'above_max':
      return `${c.item} at ${c.location} is above its maximum now: ${now}, at most ${format.quantity(c.level ?? 0)}.`;
  }
}

export const movementWords: Readonly<Record<ShownMovementKind | 'value', string>> = {
  receipt: 'receipt',
  receipt_reversal: 'receipt reversed',
  sale: 'sale',
  transfer: 'transfer',
  count: 'count',
  use: 'use found by a count',
  correction: 'correction',
  opening: 'opening stock',
  late_charge: 'later charge',
  cost_adjustment: 'cost put right',
  value: 'value',
};

export const transferWords: Readonly<Record<TransferState, string>> = {
  requested: 'asked for',
  approved: 'to be sent',
  shipped: 'on the road',
  received: 'received',
  refused: 'refused',
  cancelled: 'cancelled',
};

export const countWords: Readonly<Record<CountState, string>> = {
  open: 'being counted',
  posted: 'posted',
  dropped: 'dropped',
};
