import { daysBetween, isDate } from '@/core/calendar';
import { type Actor, may } from '@/core/people';
import { err, ok, type Result } from '@/core/result';
import { recordChanges } from '@/data/repositories/bookkeeping';
import { readCompany } from '@/data/repositories/company';
import { command, type Request } from '../command';
import { type Deps, todayOf } from '../deps';
import { type Failure, invalidField } from '../failure';
import { leaveToWorker } from './leaveToWorker';

/** The longest span of days that is taken from tills at once. */
const MOST_DAYS = 92;

/** Has the worker take what the tills sold, from one day to another (as typed; '' = today). Days that were taken before stay
 *  as they are. Errors: forbidden, invalid_field from|to. */
export async function takeTillSales(
  deps: Deps,
  actor: Actor,
  request: Request<{ readonly from: string; readonly to: string }>,
): Promise<Result<{ jobId: number }, Failure>> {
  const allowed = may(actor, 'stock.sell');
  if (!allowed.ok) return allowed;
  return command(deps, actor, 'take-till-sales', request, async (tx, now) => {
    const today = todayOf(deps, await readCompany(tx));
    const days: string[] = [];
    for (const field of ['from', 'to'] as const) {
      const text = request.input[field].trim();
      const day = isDate(text) || text === '' ? text || today : null;
      if (day === null) return err(invalidField(field, { kind: 'not_a_date', text }));
      if (day > today) return err(invalidField(field, { kind: 'in_the_future', text: day }));
      days.push(day);
    }
    const [from, to] = days as [string, string];
    if (to < from || daysBetween(from, to) >= MOST_DAYS)
      return err(invalidField('to', { kind: 'not_a_span', days: MOST_DAYS }));
    const jobId = await leaveToWorker(tx, 'take-sales', now, actor.userId, { from, to });
    await recordChanges(tx, actor.userId, now, [
      { entity: 'job', entityId: jobId, action: 'sales from the tills', after: { from, to } },
    ]);
    return ok({ jobId });
  });
}
