import { type BusinessDate, type DateFault, parseDay, rollTo } from '@/core/calendar';
import { ok, type Result } from '@/core/result';
import { readCalendars } from '@/data/repositories/calendars';
import type { Tx } from '@/data/sql';

/** A wanted day, and the day that was typed where the place takes nothing in on it. */
export type WantedDay = { readonly day: BusinessDate; readonly insteadOf: BusinessDate | null };

/** A wanted day as typed, on the first day from then on that the place takes goods in: a holiday, a closure or a weekend moves it.
 *  Errors: not_a_date. */
export async function wantedDay(
  tx: Tx,
  typed: string,
  today: BusinessDate,
  to: { readonly supplierId: number; readonly locationId: number | null },
): Promise<Result<WantedDay, DateFault>> {
  const asked = parseDay(typed, today);
  if (!asked.ok) return asked;
  const calendars = await readCalendars(tx, today);
  const { receiving } = calendars.supply(to.supplierId, { days: 0, kind: 'working' }, to.locationId);
  const day = rollTo(receiving, asked.value, 'forward');
  return ok({ day, insteadOf: day === asked.value ? null : asked.value });
}
