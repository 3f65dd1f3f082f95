import { type Actor, may } from '@/core/people';
import { checkLineQuantity } from '@/core/purchase';
import { toDecimal } from '@/core/quantity';
import { err, ok, type Result } from '@/core/result';
import { recordChanges } from '@/data/repositories/bookkeeping';
import { readCalendars } from '@/data/repositories/calendars';
import { readSuppliers } from '@/data/repositories/catalogue';
import { readCompany, readLocations } from '@/data/repositories/company';
import { markDirty } from '@/data/repositories/marks';
import { bumpOrder } from '@/data/repositories/orders';
import { arrivalFrom, readBuying } from '../catalogue/buying';
import { readingThatFits } from '../catalogue/entryReading';
import { command, type Request } from '../command';
import { type Deps, timeOf, todayOf } from '../deps';
import type { Failure } from '../failure';
import { followEntered } from './breakPrices';
import { buyingFrom, enterStockLine, inPack } from './enterOrder';
import { loadOrder } from './loadOrder';

export type PasteLines = {
  readonly orderId: number;
  readonly locationId: number;
  /** Rows as they were pasted: one line each, cells parted by tabs. */
  readonly rows: readonly string[];
};
export type Pasted = {
  readonly added: number;
  /** Rows that were not taken, as they are, with why. */
  readonly left: readonly {
    readonly row: string;
    readonly why: 'unknown' | 'several' | 'not_a_quantity' | 'stopped';
  }[];
};

/** Adds a line for each pasted row that says one item by its number, a code or words that only one item fits, in any order with
 *  its quantity and pack; what is not understood is given back and changes nothing.
 *  Errors: forbidden, not_found, not_in_this_state. */
export async function pasteLines(
  deps: Deps,
  actor: Actor,
  request: Request<PasteLines>,
): Promise<Result<Pasted, Failure>> {
  const { orderId, locationId, rows } = request.input;
  const allowed = may(actor, 'orders.edit', { locationIds: [locationId] });
  if (!allowed.ok) return allowed;
  return command(deps, actor, 'paste-lines', request, async (tx, now) => {
    const loaded = await loadOrder(tx, orderId, 'edit');
    if (!loaded.ok) return loaded;
    const { order, lines } = loaded.value;
    if (!(await readLocations(tx)).some((l) => l.id === locationId && l.closed === 0))
      return err({ kind: 'not_found', what: 'location' });
    const supplier = (await readSuppliers(tx)).find((s) => s.id === order.supplierId);
    if (!supplier) return err({ kind: 'not_found', what: 'supplier' });
    const company = await readCompany(tx);
    const at = { today: todayOf(deps, company), time: timeOf(deps, company) };
    const calendars = await readCalendars(tx, at.today);
    const left: Pasted['left'][number][] = [];
    let lineNo = Math.max(0, ...lines.map((l) => l.lineNo));
    let added = 0;
    for (const row of rows.filter((r) => r.trim() !== '')) {
      const found = await readingThatFits(tx, row.replaceAll('\t', ' '));
      const [item, ...more] = found?.items ?? [];
      if (!found || !item) {
        left.push({ row, why: 'unknown' });
        continue;
      }
      if (found.exact !== 1 && more.length > 0) {
        left.push({ row, why: 'several' });
        continue;
      }
      const packs = checkLineQuantity(found.reading.quantity);
      if (!packs.ok) {
        left.push({ row, why: 'not_a_quantity' });
        continue;
      }
      const usual = await buyingFrom(tx, { userId: actor.userId, now }, supplier, item.id);
      const said = found.packOf(item.id);
      const contentOf = async (id: number) => (await readBuying(tx, [item.id])).contentOf(id);
      const buying =
        found.reading.pack === ''
          ? usual
          : inPack(usual, said ? { id: said.id, name: said.name, content: await contentOf(said.id) } : null);
      lineNo += 1;
      const wantedDate = order.wantedDate ?? arrivalFrom(calendars, usual, locationId, at);
      const part = { locationId, packQuantity: toDecimal(packs.value), trayLineId: null };
      await enterStockLine(tx, { orderId, lineNo, today: at.today, wantedDate }, buying, [part]);
      markDirty(tx, [{ itemId: item.id, locationId }]);
      added += 1;
    }
    if (added > 0) {
      await followEntered(tx, orderId, lineNo - added + 1, at.today);
      await bumpOrder(tx, orderId);
      await recordChanges(tx, actor.userId, now, [
        { entity: 'order', entityId: orderId, action: 'rows pasted', after: { lines: added } },
      ]);
    }
    return ok({ added, left });
  });
}
