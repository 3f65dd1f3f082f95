import { type BusinessDate, isDate } from '@/core/calendar';
import { err, ok, type Result } from '@/core/result';
import { type Failure, invalidField } from '../failure';

/** The day something is posted on: today when nothing is said, an earlier day when it is booked afterwards.
 *  Errors: invalid_field businessDate (not a date, in the future). */
export function businessDayOf(typed: string, today: BusinessDate): Result<BusinessDate, Failure> {
  if (typed === '') return ok(today);
  if (!isDate(typed)) return err(invalidField('businessDate', { kind: 'not_a_date', text: typed }));
  return typed > today ? err(invalidField('businessDate', { kind: 'in_the_future', text: typed })) : ok(typed);
}
