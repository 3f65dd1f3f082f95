import { type BusinessDate, daysBetween } from '@/core/calendar';
import { firstBelow, project } from '@/core/projection';
import { fromDecimal } from '@/core/quantity';
import { type Pair, readLevels } from '@/data/repositories/levels';
import { readSupply } from '@/data/repositories/openSupply';
import type { Tx } from '@/data/sql';
import type { PairPlans } from './pairPlans';
import { whenItComes } from './whenItComes';

/** Days looked ahead for the day on which stock runs out. */
const AHEAD = 120;

/** The day on which stock of a pair runs out, counted from today: what lies there and is not blocked, what comes on its day (what
 *  is overdue on the next receiving day), use of the last 91 days. Null when it does not in the days looked at. */
export async function runOutOf(
  tx: Tx,
  { today, time }: { readonly today: BusinessDate; readonly time: string },
  plans: PairPlans,
  pair: Pair,
): Promise<number | null> {
  const { itemId, locationId } = pair;
  const here = plans.at(itemId, locationId);
  const [level] = await readLevels(tx, [itemId], [locationId]);
  const coming = (await readSupply(tx, [itemId])).filter((s) => s.locationId === locationId);
  const when = whenItComes(plans.calendars, here?.calendar ?? null, locationId, { today, time });
  const days = project({
    stock: fromDecimal(level?.onHand ?? '0') - fromDecimal(level?.blocked ?? '0'),
    owed: fromDecimal(level?.allocated ?? '0'),
    receipts: coming.map((s) => ({ day: daysBetween(today, when(s).comes), quantity: fromDecimal(s.quantity) })),
    ...{ orders: [], dependent: [], perDay: here?.figures.perDay ?? 0, days: AHEAD },
  });
  return firstBelow(days, 0);
}
