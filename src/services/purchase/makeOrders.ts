import { type Actor, may } from '@/core/people';
import { err, ok, type Result } from '@/core/result';
import { recordChanges } from '@/data/repositories/bookkeeping';
import { readCalendars } from '@/data/repositories/calendars';
import { readSuppliers, type SupplierRow } from '@/data/repositories/catalogue';
import { readCompany } from '@/data/repositories/company';
import { byPair } from '@/data/repositories/levels';
import { markDirty } from '@/data/repositories/marks';
import { clearTrayChoice } from '@/data/repositories/trayChoices';
import { lockTrays, readTrayLines, type TrayLineRow, updateTrayLine } from '@/data/repositories/trays';
import type { Tx } from '@/data/sql';
import { arrivalFrom, type Buying, readBuying } from '../catalogue/buying';
import { command, type Request } from '../command';
import { type Deps, timeOf, todayOf } from '../deps';
import type { Failure } from '../failure';
import { breaksOf, groupByLine } from '../planning/trayTotals';
import { recordUndo } from '../undo/recordUndo';
import { enterOrder, enterStockLine } from './enterOrder';
import { loadOrder } from './loadOrder';
import { openChange } from './orderSteps';
import { approversOf, netOfOrder } from './orderSums';
import { postJoin } from './postJoin';
import { breakPacks } from './pricing';
import { readTrayPlans } from './trayOrders';

export type MadeOrder = {
  readonly orderId: number;
  readonly supplier: string;
  /** Order lines that were made, or added to. */
  readonly lines: number;
  /** It was put onto a draft that was there. */
  readonly joined: boolean;
  /** What the order comes to now, in its currency. */
  readonly net: number;
  readonly currency: string;
  /** Who can approve it: oneself, or these. */
  readonly next: 'you' | readonly string[];
};

/** Turns the trays of these suppliers into draft orders: one order per supplier, or one for each place where the supplier
 *  wants it so; one line per item and pack, one delivery part per location. A tray may join a draft that fits, by rule or as
 *  somebody said; or, as somebody said, an order that its supplier knows, which is opened for a change by it. Held trays stay. Drafts have no number. Errors: forbidden, not_found when all trays are empty or held. */
export async function makeOrders(
  deps: Deps,
  actor: Actor,
  request: Request<{ readonly supplierIds: readonly number[] }>,
): Promise<Result<MadeOrder[], Failure>> {
  const allowed = may(actor, 'orders.edit');
  if (!allowed.ok) return allowed;
  return command(deps, actor, 'make-orders', request, async (tx, now) => {
    const company = await readCompany(tx);
    const at = { today: todayOf(deps, company), time: timeOf(deps, company), timeZone: company.timeZone };
    const { today } = at;
    const calendars = await readCalendars(tx, today);
    // Orders are locked before tray lines: which are joined is looked at first and once more under the locks.
    const joined = await draftsToLock(tx, at, calendars, request.input.supplierIds);
    for (const id of joined) await loadOrder(tx, id, 'edit');
    const waiting = await lockTrays(tx, request.input.supplierIds);
    const book = await readBuying(
      tx,
      waiting.map((l) => l.itemId),
    );
    const plans = await readTrayPlans(tx, at, { book, calendars });
    const suppliers = (await readSuppliers(tx)).filter(
      (s) => request.input.supplierIds.includes(s.id) && !plans(s.id).held,
    );
    const orders = suppliers.flatMap((supplier) => {
      const whole = waiting.filter((l) => l.supplierId === supplier.id).sort(byPair);
      return plans(supplier.id)
        .orders(supplier, whole)
        .map((o) => ({ supplier, ...o }));
    });
    if (orders.length === 0) return err({ kind: 'not_found', what: 'tray' });
    const wantedOf = (l: TrayLineRow, b: Buying) => arrivalFrom(calendars, b, l.locationId, at);
    const done: Done[] = [];
    for (const { supplier, lines: tray, joins } of orders) {
      const trayLineIds = tray.map((l) => l.id);
      const there = joins && joined.has(joins.id) ? joins : null;
      // What its supplier knows is changed by it, with a number of its own once that is approved.
      const changed = there?.told ? await loadOrder(tx, there.id, 'amend') : null;
      if (changed?.ok) await openChange(tx, actor, now, changed.value);
      const draft = there && (await loadOrder(tx, there.id, 'edit')).ok ? there : null;
      const orderId =
        draft?.id ?? (await enterOrder(tx, supplier, { orderDate: today, userId: actor.userId, at: now }));
      const lines = draft
        ? await postJoin(tx, orderId, tray, book, { today, wantedOf })
        : await enterLines(tx, orderId, [...tray], book, today, wantedOf);
      await recordChanges(tx, actor.userId, now, [
        { entity: 'order', entityId: orderId, action: draft ? 'joined from tray' : 'made from tray', after: { lines } },
        ...trayLineIds.map((id) => ({ entity: 'tray_line' as const, entityId: id, action: 'ordered' })),
      ]);
      const opened = changed?.ok ?? false;
      done.push({ orderId, supplier, lines, joined: draft !== null, opened, trayLineIds });
    }
    for (const s of suppliers) await clearTrayChoice(tx, s.id);
    await recordUndo(tx, actor, request.key, 'make-orders', now, {
      kind: 'orders_made',
      orderIds: done.filter((d) => !d.joined).map((d) => d.orderId),
      joined: done
        .filter((d) => d.joined)
        .map(({ orderId, trayLineIds, opened }) => ({ orderId, trayLineIds, opened })),
    });
    markDirty(tx, waiting);
    const approvers = await approversOf(tx, actor, company.currency, today);
    const made: MadeOrder[] = [];
    for (const { orderId, supplier, lines, joined: added } of done) {
      const net = await netOfOrder(tx, orderId, supplier.currency);
      made.push({
        ...{ orderId, supplier: supplier.name, lines, joined: added, net, currency: supplier.currency },
        next: approvers(net, supplier.currency),
      });
    }
    return ok(made);
  });
}

type Done = {
  readonly orderId: number;
  readonly supplier: SupplierRow;
  readonly lines: number;
  readonly joined: boolean;
  /** It was opened for changing. */
  readonly opened: boolean;
  readonly trayLineIds: readonly number[];
};

type At = Parameters<typeof readTrayPlans>[1];

/** Drafts that these trays would join, in the order in which they are to be locked. */
async function draftsToLock(
  tx: Tx,
  at: At,
  calendars: Parameters<typeof readTrayPlans>[2]['calendars'],
  supplierIds: readonly number[],
): Promise<Set<number>> {
  const lines = (await readTrayLines(tx)).filter((l) => supplierIds.includes(l.supplierId));
  const book = await readBuying(
    tx,
    lines.map((l) => l.itemId),
  );
  const plans = await readTrayPlans(tx, at, { book, calendars });
  const found = (await readSuppliers(tx)).flatMap((s) =>
    plans(s.id)
      .orders(
        s,
        lines.filter((l) => l.supplierId === s.id),
      )
      .flatMap((o) => o.joins?.id ?? []),
  );
  return new Set(found.sort((a, b) => a - b));
}

/** The lines of a new draft, one per item and pack. */
async function enterLines(
  tx: Tx,
  orderId: number,
  tray: readonly TrayLineRow[],
  book: Awaited<ReturnType<typeof readBuying>>,
  today: string,
  wantedOf: (l: TrayLineRow, b: Buying) => string,
): Promise<number> {
  const groups = groupByLine(tray);
  const breaks = breaksOf(groups, book);
  for (const [i, group] of groups.entries()) {
    const [first] = group;
    const source = book.bySource.get(first?.sourceId ?? 0);
    if (!first || !source) throw new Error('a tray line without its source');
    const entered = await enterStockLine(
      tx,
      { orderId, lineNo: i + 1, today, wantedDate: wantedOf(first, source) },
      source,
      group.map((l) => ({ ...l, trayLineId: l.id })),
      { overPacks: breakPacks(breaks, i) },
    );
    for (const [k, quantities] of entered.entries())
      await updateTrayLine(tx, { id: (group[k] as TrayLineRow).id, state: 'ordered', ...quantities });
  }
  return groups.length;
}
