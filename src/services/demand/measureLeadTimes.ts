import { type BusinessDate, daysBetween } from '@/core/calendar';
import { sampleStatistics } from '@/core/leadtime';
import { ok } from '@/core/result';
import { readAllDeliveries, upsertLeadTimes } from '@/data/repositories/leadTimes';
import { readSnapshot, write } from '@/data/transaction';
import type { Deps } from '../deps';
import { groupBy } from '../grouping';

/** So many of the latest lead times are kept as they were. */
const OBSERVED = 60;

/** Measures how long each supplier takes from order to receipt, in calendar days, over everything that came. A line that came
 *  in several deliveries counts with each. */
export async function measureLeadTimes(deps: Deps, today: BusinessDate): Promise<void> {
  const rows = await readSnapshot(deps.pool, async (tx) => {
    const bySupplier = groupBy(await readAllDeliveries(tx), (d) => d.supplierId);
    return [...bySupplier].flatMap(([supplierId, lines]) => {
      const days = lines.map((l) => daysBetween(l.ordered, l.received));
      const figures = sampleStatistics(days);
      return figures ? [{ supplierId, ...figures, observed: days.slice(-OBSERVED) }] : [];
    });
  });
  await write<void, never>(deps.pool, async (tx) => {
    await upsertLeadTimes(tx, rows, today);
    return ok(undefined);
  });
}
