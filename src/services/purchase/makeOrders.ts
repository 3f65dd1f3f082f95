import { type Actor, may } from '@/core/people';
import { err, ok, type Result } from '@/core/result';
import { recordChanges } from '@/data/repositories/bookkeeping';
import { readCalendars } from '@/data/repositories/calendars';
import { readSuppliers } from '@/data/repositories/catalogue';
import { readCompany } from '@/data/repositories/company';
import { byPair } from '@/data/repositories/levels';
import { markDirty } from '@/data/repositories/marks';
import { lockTrays, type TrayLineRow, updateTrayLine } from '@/data/repositories/trays';
import { arrivalFrom, readBuying } from '../catalogue/buying';
import { command, type Request } from '../command';
import { type Deps, timeOf, todayOf } from '../deps';
import type { Failure } from '../failure';
import { breaksOf, groupByLine, ordersOfTray } from '../planning/trayTotals';
import { recordUndo } from '../undo/recordUndo';
import { enterOrder, enterStockLine } from './enterOrder';
import { breakPacks } from './pricing';

export type MadeOrder = { readonly orderId: number; readonly supplier: string; readonly lines: number };

/** Turns the trays of these suppliers into draft orders: one order per supplier, or one for each place where the supplier
 *  wants it so; one line per item and pack, one delivery part per location. Drafts have no number. Errors: forbidden, not_found when all trays are empty. */
export async function makeOrders(
  deps: Deps,
  actor: Actor,
  request: Request<{ readonly supplierIds: readonly number[] }>,
): Promise<Result<MadeOrder[], Failure>> {
  const allowed = may(actor, 'orders.edit');
  if (!allowed.ok) return allowed;
  return command(deps, actor, 'make-orders', request, async (tx, now) => {
    const waiting = await lockTrays(tx, request.input.supplierIds);
    if (waiting.length === 0) return err({ kind: 'not_found', what: 'tray' });
    const company = await readCompany(tx);
    const [today, time] = [todayOf(deps, company), timeOf(deps, company)];
    const calendars = await readCalendars(tx, today);
    const book = await readBuying(
      tx,
      waiting.map((l) => l.itemId),
    );
    const made: MadeOrder[] = [];
    const orders = (await readSuppliers(tx)).flatMap((supplier) => {
      const whole = waiting.filter((l) => l.supplierId === supplier.id).sort(byPair);
      return ordersOfTray(whole, supplier.trayRule).map((tray) => ({ supplier, tray }));
    });
    for (const { supplier, tray } of orders) {
      const orderId = await enterOrder(tx, supplier, { orderDate: today, userId: actor.userId, at: now });
      const groups = groupByLine(tray);
      const breaks = breaksOf(groups, book);
      for (const [i, group] of groups.entries()) {
        const source = book.bySource.get(group[0]?.sourceId ?? 0);
        if (!source) throw new Error('a tray line without its source');
        const parts = group.map((l) => ({ ...l, trayLineId: l.id }));
        const entered = await enterStockLine(
          tx,
          {
            ...{ orderId, lineNo: i + 1, today },
            wantedDate: arrivalFrom(calendars, source, group[0]?.locationId ?? null, { today, time }),
          },
          source,
          parts,
          { overPacks: breakPacks(breaks, i) },
        );
        for (const [k, quantities] of entered.entries())
          await updateTrayLine(tx, { id: (group[k] as TrayLineRow).id, state: 'ordered', ...quantities });
      }
      await recordChanges(tx, actor.userId, now, [
        { entity: 'order', entityId: orderId, action: 'made from tray', after: { lines: groups.length } },
        ...tray.map((l) => ({ entity: 'tray_line' as const, entityId: l.id, action: 'ordered' })),
      ]);
      made.push({ orderId, supplier: supplier.name, lines: groups.length });
    }
    await recordUndo(tx, actor, request.key, 'make-orders', now, {
      kind: 'orders_made',
      orderIds: made.map((m) => m.orderId),
    });
    markDirty(tx, waiting);
    return ok(made);
  });
}
