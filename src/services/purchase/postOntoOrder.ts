import { recordChanges } from '@/data/repositories/bookkeeping';
import { readCalendars } from '@/data/repositories/calendars';
import { readCompany } from '@/data/repositories/company';
import { markDirty } from '@/data/repositories/marks';
import { lockTrayLines } from '@/data/repositories/trays';
import type { Tx } from '@/data/sql';
import { arrivalFrom, readBuying } from '../catalogue/buying';
import { type Deps, timeOf, todayOf } from '../deps';
import type { Decided } from '../undo/recordUndo';
import type { LoadedOrder } from './loadOrder';
import { postJoin } from './postJoin';

/** Puts what was decided just now, still in its tray, onto a draft, and records it; what undoing it takes is returned. */
export async function postOntoOrder(
  deps: Deps,
  tx: Tx,
  by: { readonly userId: number; readonly now: string; readonly action: string },
  { order }: LoadedOrder,
  trayLineIds: readonly number[],
  decided: readonly Decided[],
) {
  const tray = await lockTrayLines(tx, [...trayLineIds]);
  const book = await readBuying(
    tx,
    tray.map((t) => t.itemId),
  );
  const company = await readCompany(tx);
  const at = { today: todayOf(deps, company), time: timeOf(deps, company) };
  const calendars = await readCalendars(tx, at.today);
  await postJoin(tx, order.id, tray, book, {
    today: at.today,
    wantedOf: (l, b) => order.wantedDate ?? arrivalFrom(calendars, b, l.locationId, at),
  });
  await recordChanges(tx, by.userId, by.now, [
    { entity: 'order', entityId: order.id, action: by.action, after: { needs: trayLineIds.length } },
    ...trayLineIds.map((id) => ({ entity: 'tray_line' as const, entityId: id, action: 'ordered' })),
  ]);
  markDirty(tx, tray);
  return {
    ...{ kind: 'orders_made' as const, orderIds: [], joined: [{ orderId: order.id, trayLineIds: [...trayLineIds] }] },
    decided: [...decided],
  };
}
