import { rollTo } from '@/core/calendar';
import { type Actor, may } from '@/core/people';
import { fromDecimal, toDecimal } from '@/core/quantity';
import { err, ok, type Result } from '@/core/result';
import { recordChanges } from '@/data/repositories/bookkeeping';
import { readCalendars } from '@/data/repositories/calendars';
import { readCompany } from '@/data/repositories/company';
import { lockMaterials, setLineJob } from '@/data/repositories/jobMaterials';
import { markDirty } from '@/data/repositories/marks';
import { bumpOrder } from '@/data/repositories/orders';
import { command, type Request } from '../command';
import { type Deps, todayOf } from '../deps';
import type { Failure } from '../failure';
import { materialsOf, packsFor } from './askedFor';
import { followEntered } from './breakPrices';
import { enterStockLine } from './enterOrder';
import { loadOrder } from './loadOrder';

export type TakeMaterials = { readonly orderId: number; readonly materialIds: readonly number[] };

/** Takes open materials of our jobs over onto a draft: a line for each, in whole packs, wanted when the job needs it. What somebody
 *  else ordered meanwhile is left. Errors: forbidden, not_found, not_in_this_state. */
export async function takeMaterials(
  deps: Deps,
  actor: Actor,
  request: Request<TakeMaterials>,
): Promise<Result<{ readonly taken: number }, Failure>> {
  const allowed = may(actor, 'orders.edit');
  if (!allowed.ok) return allowed;
  const { orderId, materialIds } = request.input;
  return command(deps, actor, 'take-materials', request, async (tx, now) => {
    await lockMaterials(tx, materialIds);
    const loaded = await loadOrder(tx, orderId, 'edit');
    if (!loaded.ok) return loaded;
    const { order, lines } = loaded.value;
    const today = todayOf(deps, await readCompany(tx));
    const open = await materialsOf(tx, order.supplierId, actor.locations);
    const chosen = open.filter(({ material }) => materialIds.includes(material.id));
    if (chosen.length === 0) return err({ kind: 'not_found', what: 'line' });
    const calendars = await readCalendars(tx, today);
    let lineNo = Math.max(0, ...lines.map((l) => l.lineNo));
    for (const { material, buying } of chosen) {
      lineNo += 1;
      const packs = packsFor(buying, fromDecimal(material.open));
      const part = { locationId: material.locationId, packQuantity: toDecimal(packs), trayLineId: null };
      // On the last day before then that the place takes goods in; what was needed before today is wanted now.
      const { receiving } = calendars.supply(order.supplierId, { days: 0, kind: 'working' }, material.locationId);
      const by = rollTo(receiving, material.neededOn, 'backward');
      const wantedDate = by < today ? rollTo(receiving, today, 'forward') : by;
      await enterStockLine(tx, { orderId, lineNo, today, wantedDate }, buying, [part]);
      await setLineJob(tx, { orderId, lineNo }, material.id);
      await recordChanges(tx, actor.userId, now, [
        {
          ...{ entity: 'order', entityId: orderId, action: `line ${lineNo}: added` },
          after: `${material.itemName}, for job ${material.job}`,
        },
      ]);
    }
    await followEntered(tx, orderId, lineNo - chosen.length + 1, today);
    await bumpOrder(tx, orderId);
    markDirty(
      tx,
      chosen.map(({ material }) => ({ itemId: material.itemId, locationId: material.locationId })),
    );
    return ok({ taken: chosen.length });
  });
}
