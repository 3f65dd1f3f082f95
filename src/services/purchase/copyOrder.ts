import { type Actor, may } from '@/core/people';
import { err, ok, type Result } from '@/core/result';
import { recordChanges } from '@/data/repositories/bookkeeping';
import { readCalendars } from '@/data/repositories/calendars';
import { readSuppliers } from '@/data/repositories/catalogue';
import { readCompany } from '@/data/repositories/company';
import { markDirty } from '@/data/repositories/marks';
import { findOrder, insertOrderLine, insertPart, readOrderLines, readParts } from '@/data/repositories/orders';
import { arrivalFrom, readBuying } from '../catalogue/buying';
import { command, type Request } from '../command';
import { type Deps, timeOf, todayOf } from '../deps';
import type { Failure } from '../failure';
import { followEntered } from './breakPrices';
import { enterOrder, enterStockLine, inPack } from './enterOrder';
import { pairsOf } from './loadOrder';

/** Begins a new draft with what an order has: the same lines for the same places at today's prices, wanted when an order of today
 *  would come. What came without being ordered, what was taken off, and what went straight to a customer stays behind.
 *  Errors: forbidden, not_found. */
export async function copyOrder(
  deps: Deps,
  actor: Actor,
  request: Request<{ readonly orderId: number }>,
): Promise<Result<{ readonly orderId: number; readonly lines: number }, Failure>> {
  const allowed = may(actor, 'orders.edit');
  if (!allowed.ok) return allowed;
  return command(deps, actor, 'copy-order', request, async (tx, now) => {
    const from = await findOrder(tx, request.input.orderId);
    const supplier = from && (await readSuppliers(tx)).find((s) => s.id === from.supplierId);
    if (!from || !supplier) return err({ kind: 'not_found', what: 'order' });
    const company = await readCompany(tx);
    const at = { today: todayOf(deps, company), time: timeOf(deps, company) };
    const calendars = await readCalendars(tx, at.today);
    const parts = (await readParts(tx, [from.id])).filter(
      (p) => p.customerLineId === null && Number(p.baseQuantity) > 0,
    );
    const lines = (await readOrderLines(tx, [from.id])).filter(
      (l) => l.unordered === 0 && parts.some((p) => p.lineId === l.id),
    );
    const book = await readBuying(
      tx,
      lines.flatMap((l) => l.itemId ?? []),
    );
    const { locationId, contact } = from;
    const orderId = await enterOrder(tx, supplier, {
      ...{ orderDate: at.today, userId: actor.userId, at: now, locationId, contact },
      address: from.supplierAddress,
    });
    let lineNo = 0;
    for (const l of lines) {
      const own = parts.filter((p) => p.lineId === l.id);
      const usual = book.bySource.get(l.sourceId ?? 0);
      lineNo += 1;
      if (l.kind !== 'stock' || !usual) {
        const lineId = await insertOrderLine(tx, { ...l, orderId, lineNo, expectedAmount: null, unordered: 0 });
        for (const [i, p] of own.entries())
          await insertPart(tx, { ...p, lineId, partNo: i + 1, wantedDate: null, trayLineId: null });
        continue;
      }
      const pack = l.packId === null ? undefined : book.packs.get(l.packId);
      const buying =
        l.packId === usual.source.packId
          ? usual
          : inPack(usual, pack ? { id: pack.id, name: pack.name, content: book.contentOf(pack.id) } : null);
      const wantedDate = arrivalFrom(calendars, usual, own[0]?.locationId ?? null, at);
      const entered = own.map((p) => ({
        ...{ locationId: p.locationId as number, packQuantity: p.packQuantity, trayLineId: null },
      }));
      await enterStockLine(tx, { orderId, lineNo, today: at.today, wantedDate }, buying, entered, {
        freeOfCharge: l.freeOfCharge === 1,
      });
    }
    await followEntered(tx, orderId, 1, at.today);
    await recordChanges(tx, actor.userId, now, [
      { entity: 'order', entityId: orderId, action: 'copied', after: { from: from.number ?? `draft ${from.id}` } },
    ]);
    markDirty(tx, pairsOf(lines, parts));
    return ok({ orderId, lines: lines.length });
  });
}
