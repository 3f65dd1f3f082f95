import { parseDate } from '@/core/calendar';
import { checked, MICRO, parseQuantity, type Quantity } from '@/core/quantity';
import { err, ok, type Result } from '@/core/result';

export type LotEntry = { readonly code: string; readonly quantity: Quantity; readonly bestBefore: string | null };
export type LotFault =
  | { readonly kind: 'lot_not_understood'; readonly text: string }
  | { readonly kind: 'lots_do_not_add_up'; readonly sum: Quantity; readonly of: Quantity }
  | { readonly kind: 'serials_do_not_add_up'; readonly count: number; readonly of: Quantity }
  | { readonly kind: 'serial_twice'; readonly text: string }
  | { readonly kind: 'serial_there'; readonly text: string };

const MOST = 60;

/** Lots as typed or pasted, one a line (or parted by semicolons): number, quantity and best-before date, parted by commas,
 *  tabs or blanks; a single lot without a quantity is all of it. They have to add up to what came. '' = not known by lot.
 *  Errors: lot_not_understood, lots_do_not_add_up.
 *  @example parseLots('4711 8\n4712 12', 20 pieces, '2026-11-25')  // two lots */
export function parseLots(text: string, came: Quantity, today: string): Result<LotEntry[], LotFault> {
  const lines = text
    .split(/[\n;]/)
    .map((l) => l.trim())
    .filter((l) => l !== '');
  const lots = new Map<string, LotEntry>();
  for (const line of lines) {
    const [code = '', amount = '', ...rest] = line.split(/[,\t]\s*|\s+/).filter((w) => w !== '');
    const alone = amount === '' && lines.length === 1;
    const quantity = alone ? ok(came) : parseQuantity(amount);
    const date = rest.join(' ');
    const day = date === '' ? ok(null) : parseDate(date, today);
    if (code.length > MOST || !quantity.ok || quantity.value <= 0 || !day.ok)
      return err({ kind: 'lot_not_understood', text: line });
    const before = lots.get(code);
    lots.set(code, {
      code,
      quantity: checked((before?.quantity ?? 0) + quantity.value),
      bestBefore: day.value ?? before?.bestBefore ?? null,
    });
  }
  const all = [...lots.values()];
  const sum = all.reduce((a, l) => a + l.quantity, 0);
  return all.length === 0 || sum === came ? ok(all) : err({ kind: 'lots_do_not_add_up', sum, of: came });
}

/** Serial numbers as typed or pasted, parted by anything but themselves: each is one piece, and there are as many as came.
 *  Errors: lot_not_understood, serial_twice, serials_do_not_add_up. */
export function parseSerials(text: string, came: Quantity): Result<LotEntry[], LotFault> {
  const codes = text.split(/[\s,;]+/).filter((c) => c !== '');
  const seen = new Set<string>();
  for (const code of codes) {
    if (code.length > MOST) return err({ kind: 'lot_not_understood', text: code });
    if (seen.has(code)) return err({ kind: 'serial_twice', text: code });
    seen.add(code);
  }
  if (codes.length > 0 && codes.length * MICRO !== came)
    return err({ kind: 'serials_do_not_add_up', count: codes.length, of: came });
  return ok(codes.map((code) => ({ code, quantity: MICRO, bestBefore: null })));
}
