import { addDays, arrivesIfOrdered, daysBetween, daysFrom } from '@/core/calendar';
import { closings } from '@/core/ledger';
import { type Actor, may } from '@/core/people';
import { openOf } from '@/core/purchase';
import { fromDecimal, type Quantity } from '@/core/quantity';
import { ok, type Result } from '@/core/result';
import { fraction } from '@/core/units';
import { readCompany } from '@/data/repositories/company';
import { readRates } from '@/data/repositories/demand';
import { readChangesByDay, readLevels } from '@/data/repositories/levels';
import { partFigures } from '@/data/repositories/orders';
import { readStates } from '@/data/repositories/planning';
import { readExpected } from '@/data/repositories/receipts';
import { readSnapshot } from '@/data/transaction';
import { type Deps, timeOf, todayOf } from '../deps';
import type { Failure } from '../failure';
import { coverDaysOf } from '../stock/gauge';
import { readPairPlans } from './pairPlans';

/** Days looked back: eight weeks. */
const BACK = 56;

/** How the stock of a pair came to where it is, and what is on its way. Quantities in millionths of the base unit. */
export type StockCourse = {
  readonly from: string;
  readonly today: string;
  /** Stock on hand at the close of each day from `from` to today. */
  readonly days: readonly Quantity[];
  readonly min: Quantity | null;
  readonly max: Quantity | null;
  /** Open quantities of approved and sent orders by their wanted day. */
  readonly expected: readonly { readonly date: string; readonly quantity: Quantity }[];
  /** Mean use per day over 91 days, stock-out days left out; 0 without sales. */
  readonly perDay: Quantity;
  /** Days that what is here lasts at that; null without use. */
  readonly coverDays: number | null;
  /** When what is ordered now would arrive; null without a supplier. */
  readonly arrives: string | null;
};

/** Eight weeks of stock of an item at a place, for the chart beside it. Errors: forbidden. */
export async function readStockCourse(
  deps: Deps,
  actor: Actor,
  { itemId, locationId }: { readonly itemId: number; readonly locationId: number },
): Promise<Result<StockCourse, Failure>> {
  const allowed = may(actor, 'stock.read', { locationIds: [locationId] });
  if (!allowed.ok) return allowed;
  return readSnapshot(deps.pool, async (tx) => {
    const company = await readCompany(tx);
    const today = todayOf(deps, company);
    const from = addDays(today, -BACK);
    const [level] = await readLevels(tx, [itemId], [locationId]);
    const changes = await readChangesByDay(tx, { itemId, locationId }, from);
    const planned = (await readPairPlans(tx, [itemId], today)).at(itemId, locationId);
    const rate = (await readRates(tx, [itemId])).find((r) => r.locationId === locationId);
    const [state] = await readStates(tx, [itemId], [locationId]);
    const expected = await readExpected(tx, [locationId], { itemId });
    return ok({
      from,
      today,
      days: closings(
        fromDecimal(level?.onHand ?? '0'),
        new Map(changes.map((c) => [c.date, fromDecimal(c.quantity)])),
        daysFrom(from, daysBetween(from, today) + 1),
      ),
      min: planned?.plan.rule === 'level' ? planned.plan.level : null,
      max: planned?.plan.rule === 'level' ? planned.plan.max : null,
      expected: expected.flatMap((e) =>
        e.expectedDate === null
          ? []
          : [{ date: e.expectedDate, quantity: openOf(partFigures(e), fraction(e.contentNum, e.contentDen)).base }],
      ),
      perDay: fromDecimal(rate?.perDay ?? '0'),
      coverDays: coverDaysOf(state),
      arrives: planned?.calendar ? arrivesIfOrdered(planned.calendar, today, timeOf(deps, company)) : null,
    });
  });
}
