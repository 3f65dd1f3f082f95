/** Kinds of movement that a list of movements may be narrowed to. */
export const movementKinds = [
  'receipt',
  'receipt_reversal',
  'sale',
  'transfer',
  'count',
  'use',
  'correction',
  'opening',
  'late_charge',
  'cost_adjustment',
] as const;
export type ShownMovementKind = (typeof movementKinds)[number];
