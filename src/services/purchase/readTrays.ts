import { arrivesIfOrdered } from '@/core/calendar';
import { eachText, lineNet } from '@/core/money';
import { type Actor, may } from '@/core/people';
import { fromDecimal, type Quantity } from '@/core/quantity';
import { ok, type Result } from '@/core/result';
import { readCalendars } from '@/data/repositories/calendars';
import { readItemsByIds, readSuppliers } from '@/data/repositories/catalogue';
import { readCompany, readLocations } from '@/data/repositories/company';
import { readTrayLines } from '@/data/repositories/trays';
import { readSnapshot } from '@/data/transaction';
import { readBuying } from '../catalogue/buying';
import { readExchange } from '../cost/exchange';
import { type Deps, timeOf, todayOf } from '../deps';
import type { Failure } from '../failure';
import { groupBy } from '../grouping';
import { type AskedRows, GROUP, keepList, type Page, readRows } from '../lists/keptList';
import { comingLines, trayTotals } from '../planning/trayTotals';

export type TrayLineView = {
  readonly id: number;
  readonly itemId: number;
  readonly itemName: string;
  readonly itemNumber: string;
  readonly location: string;
  readonly packs: Quantity;
  readonly packName: string;
  readonly base: Quantity;
  readonly unit: string;
  readonly net: number | null;
  readonly each: string | null;
  /** Of net and each. */
  readonly currency: string;
};

export type TrayView = {
  readonly supplierId: number;
  readonly supplier: string;
  readonly blocked: boolean;
  readonly arrives: string;
  /** In the currency of the supplier; and in the company's, null where no rate is on file. */
  readonly net: number;
  readonly netInBase: number | null;
  readonly currency: string;
  readonly orderMinimum: number;
  readonly paymentTerms: string;
  readonly deliveryTerms: string;
  /** Where in the list its head stands; its lines follow. */
  readonly start: number;
  readonly lines: number;
};

export type TrayEntry =
  | { readonly kind: 'tray'; readonly tray: TrayView }
  | ({ readonly kind: 'line' } & TrayLineView)
  /** A line that was ordered or taken back since. */
  | { readonly kind: 'gone'; readonly id: number };
export type TraysHead = {
  readonly list: string;
  /** Entries: lines and heads of trays. */
  readonly count: number;
  readonly trays: readonly TrayView[];
  readonly currency: string;
};
type About = { readonly trays: readonly TrayView[] };

/** Opens the trays: one per supplier that has something in it, with its total against the supplier's minimum.
 *  Errors: forbidden. */
export async function openTrays(deps: Deps, actor: Actor): Promise<Result<TraysHead, Failure>> {
  const allowed = may(actor, 'orders.read');
  if (!allowed.ok) return allowed;
  const { trays, lines, currency } = await readSnapshot(deps.pool, async (tx) => {
    const company = await readCompany(tx);
    const today = todayOf(deps, company);
    const lines = await readTrayLines(tx);
    const book = await readBuying(
      tx,
      lines.map((l) => l.itemId),
    );
    const suppliers = await readSuppliers(tx);
    const calendars = await readCalendars(tx, today);
    const totals = trayTotals(comingLines(lines, book, suppliers, today));
    const exchange = await readExchange(tx, company.currency, today);
    const linesOf = groupBy(lines, (l) => l.supplierId);
    let start = 0;
    const trays = suppliers.flatMap((s): TrayView[] => {
      const own = linesOf.get(s.id)?.length ?? 0;
      if (own === 0) return [];
      const tray = {
        supplierId: s.id,
        supplier: s.name,
        blocked: s.status === 'blocked',
        arrives: arrivesIfOrdered(
          calendars.supply(s.id, { days: s.leadTimeDays, kind: s.leadTimeKind }, null),
          today,
          timeOf(deps, company),
        ),
        net: totals.get(s.id) ?? 0,
        netInBase: exchange.toBase(totals.get(s.id) ?? 0, s.currency),
        currency: s.currency,
        orderMinimum: s.orderMinimum,
        paymentTerms: s.paymentTerms,
        deliveryTerms: s.deliveryTerms,
        start,
        lines: own,
      };
      start += 1 + own;
      return [tray];
    });
    return { trays, lines: linesOf, currency: company.currency };
  });
  const ids = trays.flatMap((t) => [GROUP, ...(lines.get(t.supplierId) ?? []).map((l) => l.id)]);
  const about: About = { trays };
  const list = await keepList(deps, actor, 'trays', { ids, about });
  return ok({ list, count: ids.length, trays, currency });
}

/** Up to 200 entries of the opened trays, as they are now. A line is priced with all that goes on one order line with it.
 *  Errors: forbidden, list_gone. */
export async function readTrayRows(
  deps: Deps,
  actor: Actor,
  asked: AskedRows,
): Promise<Result<Page<TrayEntry>, Failure>> {
  const allowed = may(actor, 'orders.read');
  if (!allowed.ok) return allowed;
  return readRows(deps, actor, 'trays', asked, async (tx, { entries, about }) => {
    const { trays } = about as About;
    const company = await readCompany(tx);
    const today = todayOf(deps, company);
    const all = await readTrayLines(tx);
    const wanted = new Set(entries);
    const own = all.filter((l) => wanted.has(l.id));
    const itemIds = own.map((l) => l.itemId);
    // All that goes to these suppliers: breaks may be counted over the whole order.
    const theirs = new Set(own.map((l) => l.supplierId));
    const together = all.filter((l) => theirs.has(l.supplierId));
    const book = await readBuying(
      tx,
      together.map((l) => l.itemId),
    );
    const coming = comingLines(together, book, await readSuppliers(tx), today);
    const prices = new Map(coming.flatMap((c) => c.lines.map((l) => [l.id, c.price])));
    const items = await readItemsByIds(tx, [...new Set(itemIds)]);
    const places = new Map((await readLocations(tx)).map((l) => [l.id, l.name]));
    const lines = new Map(
      own.map((l): [number, TrayEntry] => {
        const item = items.get(l.itemId);
        const buying = book.bySource.get(l.sourceId);
        const price = prices.get(l.id) ?? null;
        const base = fromDecimal(l.baseQuantity);
        const line = {
          id: l.id,
          itemId: l.itemId,
          itemName: item?.name ?? '',
          itemNumber: item?.number ?? '',
          location: places.get(l.locationId) ?? '',
          packs: fromDecimal(l.packQuantity),
          packName: buying?.packName ?? item?.unitName ?? '',
          base,
          unit: item?.unitName ?? '',
          net: buying && price ? lineNet(base, price, buying.source.currency) : null,
          each: price && eachText(price, buying?.source.currency ?? company.currency),
          currency: buying?.source.currency ?? company.currency,
        };
        return [l.id, { kind: 'line', ...line }];
      }),
    );
    return [...entries].map((id, i): TrayEntry => {
      const tray = trays.find((t) => t.start === asked.from + i);
      if (id === GROUP && tray) return { kind: 'tray', tray };
      return lines.get(id) ?? { kind: 'gone', id };
    });
  });
}
