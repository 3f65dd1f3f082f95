import type { BusinessDate } from '@/core/calendar';
import { fromDecimal } from '@/core/quantity';
import {
  bumpOrder,
  deletePart,
  insertPart,
  type OrderLineRow,
  readOrderLines,
  readParts,
  takeOffOrderLine,
} from '@/data/repositories/orders';
import { type TrayLineRow, updateTrayLine } from '@/data/repositories/trays';
import type { Tx } from '@/data/sql';
import type { Buying, BuyingBook } from '../catalogue/buying';
import { groupByLine } from '../planning/trayTotals';
import { followBreaks } from './breakPrices';
import { enterStockLine } from './enterOrder';
import { refigureLine } from './orderCell';
import { perTrayLine } from './perTrayLine';

/** Puts tray lines onto a draft, locked: what it has already in the same pack from the same source gets further parts, everything
 *  else a line of its own; prices follow the quantities they now have together. Returns how many order lines it concerned. */
export async function postJoin(
  tx: Tx,
  orderId: number,
  tray: readonly TrayLineRow[],
  book: BuyingBook,
  { today, wantedOf }: { readonly today: BusinessDate; readonly wantedOf: (l: TrayLineRow, b: Buying) => BusinessDate },
): Promise<number> {
  const groups = groupByLine(tray);
  for (const group of groups) {
    const [first] = group;
    const buying = book.bySource.get(first?.sourceId ?? 0);
    if (!first || !buying) throw new Error('a tray line without its source');
    const lines = await readOrderLines(tx, [orderId]);
    const there = lines.find((l) => sameLine(l, first));
    const wantedDate = wantedOf(first, buying);
    if (there) await addParts(tx, orderId, there, group, wantedDate, today);
    else {
      const lineNo = Math.max(0, ...lines.map((l) => l.lineNo)) + 1;
      const parts = group.map((l) => ({ ...l, trayLineId: l.id }));
      await enterStockLine(tx, { orderId, lineNo, today, wantedDate }, buying, parts);
      const made = (await readOrderLines(tx, [orderId])).find((l) => l.lineNo === lineNo);
      // Breaks may count over the order: what stands on it already follows too.
      if (made) await refigure(tx, orderId, made, today);
    }
    await takeOver(tx, orderId, group);
  }
  await bumpOrder(tx, orderId);
  return groups.length;
}

const sameLine = (l: OrderLineRow, t: TrayLineRow): boolean =>
  l.kind === 'stock' &&
  l.itemId === t.itemId &&
  l.sourceId === t.sourceId &&
  l.packId === t.packId &&
  fromDecimal(l.baseQuantity) > 0 &&
  l.freeOfCharge === 0;

async function addParts(
  tx: Tx,
  orderId: number,
  line: OrderLineRow,
  group: readonly TrayLineRow[],
  wantedDate: BusinessDate,
  today: BusinessDate,
): Promise<void> {
  const had = (await readParts(tx, [orderId])).filter((p) => p.lineId === line.id);
  let partNo = Math.max(0, ...had.map((p) => p.partNo));
  for (const l of group) {
    partNo += 1;
    await insertPart(tx, {
      ...{ lineId: line.id, partNo, locationId: l.locationId, wantedDate, trayLineId: l.id },
      ...{ packQuantity: l.packQuantity, baseQuantity: l.baseQuantity },
    });
  }
  await refigure(tx, orderId, line, today);
}

/** The figures of a line, from its parts as they are now. */
async function refigure(tx: Tx, orderId: number, line: OrderLineRow, today: BusinessDate): Promise<void> {
  const own = (await readParts(tx, [orderId])).filter((p) => p.lineId === line.id);
  const packs = own.map((p) => fromDecimal(p.packQuantity));
  await refigureLine(tx, await readOrderLines(tx, [orderId]), line, own, packs, today);
}

/** Tray lines go on with the quantities that their parts have. */
async function takeOver(tx: Tx, orderId: number, group: readonly TrayLineRow[]): Promise<void> {
  const parts = perTrayLine(await readParts(tx, [orderId]));
  for (const { id } of group) {
    const part = parts.get(id);
    if (!part) throw new Error(`tray line ${id} has no part on order ${orderId}`);
    await updateTrayLine(tx, { id, state: 'ordered', ...part });
  }
}

/** Takes what was put onto a draft, locked, off it again: its tray lines lie in their tray as before. */
export async function postLeave(
  tx: Tx,
  orderId: number,
  lines: readonly TrayLineRow[],
  today: BusinessDate,
): Promise<void> {
  for (const t of lines) {
    const parts = await readParts(tx, [orderId]);
    const own = parts.filter((p) => p.trayLineId === t.id);
    const [part] = own;
    if (!part) continue;
    await updateTrayLine(tx, { id: t.id, state: 'in_tray', ...(perTrayLine(own).get(t.id) ?? t) });
    const line = (await readOrderLines(tx, [orderId])).find((l) => l.id === part.lineId);
    if (parts.filter((p) => p.lineId === part.lineId).length === own.length) {
      await takeOffOrderLine(tx, part.lineId);
      if (line) await followBreaks(tx, await readOrderLines(tx, [orderId]), [line], today);
    } else {
      for (const p of own) await deletePart(tx, p.id);
      if (line) await refigure(tx, orderId, line, today);
    }
  }
  await bumpOrder(tx, orderId);
}
