import { type BusinessDate, businessDate } from '@/core/calendar';
import { draftsThatFit, draftToJoin, type OpenDraft, type TrayChoice } from '@/core/purchase';
import type { Calendars } from '@/data/repositories/calendars';
import type { SupplierRow } from '@/data/repositories/catalogue';
import { type DraftRow, readOpenDrafts, readTrayChoices, type TrayChoiceRow } from '@/data/repositories/trayChoices';
import type { TrayLineRow } from '@/data/repositories/trays';
import type { Tx } from '@/data/sql';
import { arrivalFrom, type BuyingBook } from '../catalogue/buying';
import { groupBy } from '../grouping';
import { ordersOfTray } from '../planning/trayTotals';

/** One order that a tray will become: its lines, and the draft they join; null = a new order. */
export type ComingOrder = {
  readonly lines: readonly TrayLineRow[];
  readonly joins: OpenDraft | null;
  /** Drafts that it could join, and orders of the supplier that it would change. */
  readonly fitting: readonly OpenDraft[];
  readonly arrives: BusinessDate;
};

export type TrayPlan = {
  readonly held: boolean;
  readonly choice: TrayChoice;
  readonly orders: (supplier: Pick<SupplierRow, 'id' | 'trayRule'>, lines: readonly TrayLineRow[]) => ComingOrder[];
};

/** What each supplier's tray will become, by rule or as somebody said. */
export async function readTrayPlans(
  tx: Tx,
  at: { readonly today: BusinessDate; readonly time: string; readonly timeZone: string },
  { book, calendars }: { readonly book: BuyingBook; readonly calendars: Calendars },
): Promise<(supplierId: number) => TrayPlan> {
  const choices = new Map((await readTrayChoices(tx)).map((c) => [c.supplierId, c]));
  const drafts = groupBy(draftsOf(await readOpenDrafts(tx), at.timeZone), (d) => d.supplierId);
  return (supplierId) => {
    const said = choices.get(supplierId);
    const own = drafts.get(supplierId) ?? [];
    const choice = choiceOf(said);
    return {
      held: said?.held === 1,
      choice,
      orders: (supplier, lines) =>
        ordersOfTray(lines, supplier.trayRule).map((group) => {
          const places =
            supplier.trayRule === 'one_order' ? ('all' as const) : [...new Set(group.map((l) => l.locationId))];
          const arrives = group
            .flatMap((l) => {
              const buying = book.bySource.get(l.sourceId);
              return buying ? [arrivalFrom(calendars, buying, l.locationId, at)] : [];
            })
            .sort()
            .at(-1);
          const fitting = draftsThatFit(own, { places, arrives: arrives ?? at.today, today: at.today });
          return {
            ...{ lines: group, joins: draftToJoin(fitting, own, choice), arrives: arrives ?? at.today },
            fitting: [...fitting, ...own.filter((d) => d.told)],
          };
        }),
    };
  };
}

const choiceOf = (said: TrayChoiceRow | undefined): TrayChoice =>
  said?.becomes === 'joins' && said.orderId !== null
    ? { kind: 'joins', id: said.orderId }
    : said?.becomes === 'new'
      ? { kind: 'new' }
      : { kind: 'by_rule' };

function draftsOf(rows: readonly DraftRow[], timeZone: string): (OpenDraft & { supplierId: number })[] {
  return [...groupBy(rows, (r) => r.id).values()].flatMap((own) => {
    const [first] = own;
    if (!first) return [];
    return [
      {
        ...{ id: first.id, supplierId: first.supplierId, orderDate: first.orderDate, told: first.told },
        begun: businessDate(new Date(`${first.begunAt.replace(' ', 'T')}Z`), timeZone),
        places: [...new Set(own.flatMap((r) => r.locationId ?? []))],
        wanted: [...new Set(own.flatMap((r) => r.wanted ?? []))],
      },
    ];
  });
}
