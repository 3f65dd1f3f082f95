import { arrivalDate } from '@/core/calendar';
import { partQuantities } from '@/core/packs';
import { type Actor, may } from '@/core/people';
import { fromDecimal, toDecimal } from '@/core/quantity';
import { err, ok, type Result } from '@/core/result';
import { recordChanges } from '@/data/repositories/bookkeeping';
import { findItem, readSuppliers } from '@/data/repositories/catalogue';
import { readCompany } from '@/data/repositories/company';
import { byPair } from '@/data/repositories/levels';
import { insertOrder, insertOrderLine, insertPart } from '@/data/repositories/orders';
import { markDirty } from '@/data/repositories/planning';
import { lockTrays, type TrayLineRow, updateTrayLine } from '@/data/repositories/trays';
import type { Tx } from '@/data/sql';
import { type Buying, readBuying } from '../catalogue/buying';
import { command, type Request } from '../command';
import { type Deps, todayOf } from '../deps';
import type { Failure } from '../failure';
import { groupByLine } from '../planning/trayTotals';
import { expectedPrice } from './pricing';

export type MadeOrder = { readonly orderId: number; readonly supplier: string; readonly lines: number };

/** Turns the trays of these suppliers into draft orders: one order per supplier, one line per item and pack, one
 *  delivery part per location. Drafts have no number. Errors: forbidden, not_found when all trays are empty. */
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
    const today = todayOf(deps, await readCompany(tx));
    const book = await readBuying(
      tx,
      waiting.map((l) => l.itemId),
    );
    const made: MadeOrder[] = [];
    for (const supplier of await readSuppliers(tx)) {
      const tray = waiting.filter((l) => l.supplierId === supplier.id).sort(byPair);
      if (tray.length === 0) continue;
      const { currency, paymentTerms, deliveryTerms, address, id: supplierId } = supplier;
      const terms = { currency, paymentTerms, deliveryTerms, supplierAddress: address };
      const orderId = await insertOrder(tx, { supplierId, orderDate: today, ...terms, userId: actor.userId, at: now });
      const wanted = arrivalDate(today, { days: supplier.leadTimeDays, kind: supplier.leadTimeKind });
      const groups = groupByLine(tray);
      for (const [i, group] of groups.entries()) {
        const source = book.bySource.get(group[0]?.sourceId ?? 0);
        if (!source) throw new Error('a tray line without its source');
        await addLine(tx, orderId, i + 1, group, source, today, wanted);
      }
      await recordChanges(tx, actor.userId, now, [
        { entity: 'order', entityId: orderId, action: 'made from tray', after: { lines: groups.length } },
      ]);
      made.push({ orderId, supplier: supplier.name, lines: groups.length });
    }
    await markDirty(tx, waiting);
    return ok(made);
  });
}

async function addLine(
  tx: Tx,
  orderId: number,
  lineNo: number,
  group: readonly TrayLineRow[],
  buying: Buying,
  today: string,
  wantedDate: string,
): Promise<void> {
  const item = await findItem(tx, buying.source.itemId);
  if (!item) throw new Error('a tray line without its item');
  const packs = group.map((l) => fromDecimal(l.packQuantity));
  const bases = partQuantities(packs, buying.content);
  const sum = (all: readonly number[]) => all.reduce((a, b) => a + b, 0);
  const lineId = await insertOrderLine(tx, {
    orderId,
    lineNo,
    kind: 'stock',
    itemId: item.id,
    sourceId: buying.source.id,
    description: item.name,
    supplierItemNumber: buying.source.supplierItemNumber,
    packId: buying.source.packId,
    packName: buying.packName ?? item.unitName,
    contentNum: Number(buying.content.num),
    contentDen: Number(buying.content.den),
    packQuantity: toDecimal(sum(packs)),
    baseQuantity: toDecimal(sum(bases)),
    ...expectedPrice(buying, sum(packs), today),
  });
  for (const [i, line] of group.entries()) {
    const packQuantity = toDecimal(packs[i] as number);
    const baseQuantity = toDecimal(bases[i] as number);
    const part = { lineId, partNo: i + 1, locationId: line.locationId, packQuantity, baseQuantity };
    await insertPart(tx, { ...part, wantedDate, trayLineId: line.id });
    await updateTrayLine(tx, { id: line.id, state: 'ordered', packQuantity, baseQuantity });
  }
}
