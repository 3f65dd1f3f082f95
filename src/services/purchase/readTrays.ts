import { arrivalDate } from '@/core/calendar';
import { lineNet, pricePerBaseUnit } from '@/core/money';
import { type Actor, may } from '@/core/people';
import { fromDecimal, type Quantity } from '@/core/quantity';
import { ok, type Result } from '@/core/result';
import { readItemsByIds, readSuppliers } from '@/data/repositories/catalogue';
import { readCompany, readLocations } from '@/data/repositories/company';
import { readTrayLines } from '@/data/repositories/trays';
import { readSnapshot } from '@/data/transaction';
import { readBuying } from '../catalogue/buying';
import { type Deps, todayOf } from '../deps';
import type { Failure } from '../failure';
import { lineKey, trayTotals } from '../planning/trayTotals';

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
};

export type TrayView = {
  readonly supplierId: number;
  readonly supplier: string;
  readonly blocked: boolean;
  readonly arrives: string;
  readonly net: number;
  readonly orderMinimum: number;
  readonly paymentTerms: string;
  readonly deliveryTerms: string;
  readonly lines: readonly TrayLineView[];
};

/** One tray per supplier that has something in it, with its total against the supplier's minimum. Errors: forbidden. */
export async function readTrays(
  deps: Deps,
  actor: Actor,
): Promise<Result<{ trays: TrayView[]; currency: string }, Failure>> {
  const allowed = may(actor, 'orders.read');
  if (!allowed.ok) return allowed;
  return readSnapshot(deps.pool, async (tx) => {
    const company = await readCompany(tx);
    const today = todayOf(deps, company);
    const lines = await readTrayLines(tx);
    const itemIds = lines.map((l) => l.itemId);
    const book = await readBuying(tx, itemIds);
    const { items } = await readItemsByIds(tx, [...new Set(itemIds)]);
    const places = new Map((await readLocations(tx)).map((l) => [l.id, l.name]));
    const totals = trayTotals(lines, book, today, company.currency);
    const packsOfLine = new Map<string, number>();
    for (const l of lines)
      packsOfLine.set(lineKey(l), (packsOfLine.get(lineKey(l)) ?? 0) + fromDecimal(l.packQuantity));
    const trays = (await readSuppliers(tx)).map((s): TrayView => {
      const own = lines.filter((l) => l.supplierId === s.id);
      return {
        supplierId: s.id,
        supplier: s.name,
        blocked: s.status === 'blocked',
        arrives: arrivalDate(today, { days: s.leadTimeDays, kind: s.leadTimeKind }),
        net: totals.get(s.id) ?? 0,
        orderMinimum: s.orderMinimum,
        paymentTerms: s.paymentTerms,
        deliveryTerms: s.deliveryTerms,
        lines: own.map((l) => {
          const item = items.get(l.itemId);
          const buying = book.bySource.get(l.sourceId);
          const price = buying?.priceAt(packsOfLine.get(lineKey(l)) ?? 0, today) ?? null;
          const base = fromDecimal(l.baseQuantity);
          return {
            id: l.id,
            itemId: l.itemId,
            itemName: item?.name ?? '',
            itemNumber: item?.number ?? '',
            location: places.get(l.locationId) ?? '',
            packs: fromDecimal(l.packQuantity),
            packName: buying?.packName ?? item?.unitName ?? '',
            base,
            unit: item?.unitName ?? '',
            net: price && lineNet(base, price, company.currency),
            each: price && pricePerBaseUnit(price, 2),
          };
        }),
      };
    });
    return ok({ trays: trays.filter((t) => t.lines.length > 0), currency: company.currency });
  });
}
