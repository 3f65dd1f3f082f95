import { checked, type Quantity } from '@/core/quantity';

/** Where a customer's line stands. */
export const lineStates = ['waiting', 'part_ready', 'ready', 'handed_over', 'cancelled'] as const;
export type LineState = (typeof lineStates)[number];

/** Sets (of a plain item: base units) of a line. */
export type LineFigures = {
  readonly ordered: Quantity;
  readonly handedOver: Quantity;
  readonly cancelled: Quantity;
  /** Promised from stock and lying ready. */
  readonly ready: Quantity;
};

/** What of a line is still to be handed over. */
export const openOf = (l: Pick<LineFigures, 'ordered' | 'handedOver' | 'cancelled'>): Quantity =>
  Math.max(0, checked(l.ordered - l.handedOver - l.cancelled));

/** What of a line is backordered: open and nothing there for it. */
export const backorderedOf = (l: LineFigures): Quantity => Math.max(0, checked(openOf(l) - l.ready));

export function lineStateOf(l: LineFigures): LineState {
  const open = openOf(l);
  if (open === 0) return l.handedOver > 0 || l.ordered === 0 ? 'handed_over' : 'cancelled';
  if (l.ready >= open) return 'ready';
  return l.ready > 0 ? 'part_ready' : 'waiting';
}

/** What may go out of an order now, per line: all that lies ready; of an order that goes out only complete, nothing until
 *  everything open lies ready. */
export function handOverNow(lines: readonly LineFigures[], delivers: 'in_part' | 'complete'): Quantity[] {
  const whole = delivers === 'in_part' || lines.every((l) => backorderedOf(l) === 0);
  return lines.map((l) => (whole ? Math.min(openOf(l), l.ready) : 0));
}
