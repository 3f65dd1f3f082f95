import { ok } from '@/core/result';
import { isFounded, readCompany } from '@/data/repositories/company';
import { anyDirty } from '@/data/repositories/marks';
import { readSnapshot, write } from '@/data/transaction';
import { raiseAlerts } from '@/services/alerts/raiseAlerts';
import { type Deps, stamp, todayOf } from '@/services/deps';
import { recomputeDirty, takeDue } from '@/services/planning/recompute';
import { giveWhatIsFree, releaseExpired } from '@/services/promise/promiseByTime';
import { leaveToWorker } from '@/services/work/leaveToWorker';

/** Free stock is given, and alerts that are wanted at once are looked for, so often. */
const LOOK_EVERY_MS = 15_000;
let lookedAt = Number.NEGATIVE_INFINITY;

/** What happens by itself as time goes on: what was put by until a minute is free again, pairs that have become due are marked,
 *  marks that nobody else has taken are recomputed, what is free goes to those who wait, alerts are raised, and a new business day begins. Before there is a company nothing happens. */
export async function tick(deps: Deps): Promise<void> {
  const now = stamp(deps.clock());
  const found = await readSnapshot(deps.pool, async (tx) => {
    if (!(await isFounded(tx))) return null;
    const company = await readCompany(tx);
    return { newDay: company.needsAsOf !== todayOf(deps, company), dirty: await anyDirty(tx) };
  });
  if (!found) return;
  const looks = performance.now() - lookedAt >= LOOK_EVERY_MS;
  if (looks) lookedAt = performance.now();
  const moved = (await releaseExpired(deps)) + (looks ? await giveWhatIsFree(deps) : 0);
  const due = await takeDue(deps);
  if (found.dirty || moved + due > 0) await recomputeDirty(deps, 200);
  if (found.newDay) await write(deps.pool, async (tx) => ok(await leaveToWorker(tx, 'begin-day', now, null)));
  if (looks) await raiseAlerts(deps, 'at_once');
}
