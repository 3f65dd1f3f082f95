import { minorOf } from '@/core/landed';
import { lineNet, type Minor } from '@/core/money';
import { contentMicro, packsIn } from '@/core/packs';
import { fromDecimal, MICRO, type Quantity } from '@/core/quantity';
import { unwrap } from '@/core/result';
import { type EarlyBuy, type TopUp, topUp } from '@/core/ways';
import { readSuppliers } from '@/data/repositories/catalogue';
import { readLocations } from '@/data/repositories/company';
import { readFreightTerms, readGoods } from '@/data/repositories/landed';
import { type EarlyRow, readEarlyPairs } from '@/data/repositories/topUps';
import { readTrayLines } from '@/data/repositories/trays';
import { readWeighing } from '@/data/repositories/ways';
import type { Tx } from '@/data/sql';
import { type Buying, type BuyingBook, readBuying } from '../catalogue/buying';
import { comingLines, trayTotals } from '../planning/trayTotals';

export type TopUpTarget = 'minimum' | 'free_freight';

/** Something that is brought forward: packs of an item for a place. */
export type BroughtForward = {
  readonly itemId: number;
  readonly locationId: number;
  readonly sourceId: number;
  readonly packs: Quantity;
  readonly base: Quantity;
  readonly amount: Minor;
  readonly holding: number;
  /** Days until it would be bought anyway. */
  readonly neededInDays: number;
};

export type TrayTopUp = Omit<TopUp, 'buys'> & {
  readonly target: Minor;
  readonly missing: Minor;
  readonly currency: string;
  readonly buys: readonly BroughtForward[];
};

/** So many things are looked at, and so far ahead: what is not needed within that time is not brought forward. */
const CANDIDATES = 500;
const AHEAD_DAYS = 120;

/** What to bring forward so that a supplier's tray comes to its minimum, or to free freight: what holding it costs against what is
 *  saved. Null when nothing is missing, there is no such target, or all that will be needed soon does not reach it. Where a
 *  supplier gets an order per place, only for those that the tray goes to. Units: minor units of the supplier's currency. */
export async function topUpOf(
  tx: Tx,
  today: string,
  supplierId: number,
  target: TopUpTarget,
): Promise<TrayTopUp | null> {
  const supplier = (await readSuppliers(tx)).find((s) => s.id === supplierId);
  const lines = (await readTrayLines(tx)).filter((l) => l.supplierId === supplierId);
  if (!supplier || lines.length === 0) return null;
  // An order for all places can take more for any of them.
  const places =
    supplier.trayRule === 'one_order'
      ? (await readLocations(tx)).filter((l) => l.closed === 0).map((l) => l.id)
      : [...new Set(lines.map((l) => l.locationId))];
  const rows = await readEarlyPairs(tx, supplierId, places, CANDIDATES);
  const book = await readBuying(
    tx,
    [...lines, ...rows].map((l) => l.itemId),
  );
  const net = trayTotals(comingLines(lines, book, [supplier], today)).get(supplierId) ?? 0;
  const [terms] = await readFreightTerms(tx, [supplierId]);
  const goal =
    target === 'minimum' ? supplier.orderMinimum : terms?.freeFrom ? minorOf(terms.freeFrom, supplier.currency) : 0;
  if (goal <= net) return null;
  const { carrying } = await readWeighing(tx);
  const saving = target === 'minimum' ? 0 : await freightOf(tx, supplier.currency, terms, lines);
  const early = rows.flatMap((r) => earlyOf(r, book, today) ?? []);
  const found = topUp(
    goal - net,
    saving,
    early.map((e) => e.buy),
    carrying / 1000,
  );
  if (!found) return null;
  const byKey = new Map(early.map((e) => [e.buy.key, e]));
  return {
    ...found,
    ...{ target: goal, missing: goal - net, currency: supplier.currency },
    buys: found.buys.flatMap(({ key, packs, amount, holding }): BroughtForward[] => {
      const e = byKey.get(key);
      if (!e) return [];
      const { itemId, locationId, sourceId } = e.row;
      return [
        {
          ...{ itemId, locationId, sourceId, packs: packs * e.step, base: packs * e.micro, amount, holding },
          neededInDays: Math.round(e.buy.neededInDays),
        },
      ];
    }),
  };
}

type Early = {
  readonly row: EarlyRow;
  readonly buying: Buying;
  readonly buy: EarlyBuy;
  /** What is bought at once: packs, and base units. */
  readonly step: Quantity;
  readonly micro: Quantity;
};

function earlyOf(row: EarlyRow, book: BuyingBook, today: string): Early | null {
  const buying = book.bySource.get(row.sourceId);
  if (!buying?.source.supplierActive) return null;
  const pack = unwrap(contentMicro(buying.content, buying.packName ?? undefined));
  const micro = pack * buying.source.multiplePacks;
  const step = packsIn(micro, buying.content);
  const price = buying.priceAt(step, today);
  const perDay = fromDecimal(row.perDay);
  if (!price || perDay <= 0) return null;
  const position = fromDecimal(row.position);
  const level = fromDecimal(row.level ?? '0');
  const neededInDays = Math.max(0, (position - level) / perDay);
  const packLastsDays = micro / perDay;
  // Not beyond the maximum, and not further than one looks ahead.
  const room = row.max === null ? Number.POSITIVE_INFINITY : Math.floor((fromDecimal(row.max) - position) / micro);
  const soon = Math.floor((AHEAD_DAYS - neededInDays) / packLastsDays) + 1;
  const mostPacks = Math.max(0, Math.min(room, soon));
  if (neededInDays > AHEAD_DAYS || mostPacks === 0 || fromDecimal(buying.source.minimum) > micro) return null;
  const packAmount = lineNet(micro, price, buying.source.currency);
  const key = `${row.itemId}/${row.locationId}`;
  return { row, buying, step, micro, buy: { key, packAmount, mostPacks, neededInDays, packLastsDays } };
}

/** What freight would cost for what lies in the tray. */
async function freightOf(
  tx: Tx,
  currency: string,
  terms: { readonly fixed: string | null; readonly perKg: string | null } | undefined,
  lines: readonly { readonly itemId: number; readonly baseQuantity: string }[],
): Promise<Minor> {
  const fixed = terms?.fixed ? minorOf(terms.fixed, currency) : 0;
  if (!terms?.perKg) return fixed;
  const goods = new Map((await readGoods(tx, [...new Set(lines.map((l) => l.itemId))])).map((g) => [g.id, g]));
  const kg = lines.reduce(
    (a, l) => a + Number(goods.get(l.itemId)?.weightKg ?? 0) * (fromDecimal(l.baseQuantity) / MICRO),
    0,
  );
  return fixed + Math.round(minorOf(terms.perKg, currency) * kg);
}
