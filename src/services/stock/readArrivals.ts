import { type Actor, may } from '@/core/people';
import { openOf } from '@/core/purchase';
import type { Quantity } from '@/core/quantity';
import { err, ok, type Result } from '@/core/result';
import { fraction } from '@/core/units';
import { readCompany, readLocations } from '@/data/repositories/company';
import { partFigures } from '@/data/repositories/orders';
import { type ExpectedRow, readExpected } from '@/data/repositories/receipts';
import { readSnapshot } from '@/data/transaction';
import { type Deps, todayOf } from '../deps';
import type { Failure } from '../failure';

export type ExpectedLine = {
  readonly partId: number;
  readonly itemId: number | null;
  readonly itemNumber: string | null;
  readonly description: string;
  readonly packName: string;
  readonly unit: string;
  readonly content: { readonly num: string; readonly den: string };
  readonly orderedPacks: Quantity;
  readonly openPacks: Quantity;
  readonly openBase: Quantity;
  readonly received: Quantity;
  readonly receivedPacks: Quantity;
  /** Whether its lots or serial numbers are entered when it comes. */
  readonly tracking: 'none' | 'lot' | 'serial';
  /** What the buyer noted for whoever books it in, and whether it is to be inspected. */
  readonly note: string;
  readonly inspect: boolean;
};

export type Arrival = {
  readonly orderId: number;
  readonly number: string;
  readonly supplier: string;
  readonly currency: string;
  readonly locationId: number;
  readonly location: string;
  readonly expectedDate: string | null;
  readonly sent: boolean;
  readonly lines: readonly ExpectedLine[];
};

const lineOf = (r: ExpectedRow): ExpectedLine => {
  const content = fraction(r.contentNum, r.contentDen);
  const figures = partFigures(r);
  const open = openOf(figures, content);
  return {
    partId: r.partId,
    itemId: r.itemId,
    itemNumber: r.itemNumber,
    description: r.description,
    packName: r.packName,
    unit: r.unitName ?? '',
    content: { num: String(content.num), den: String(content.den) },
    orderedPacks: figures.packs,
    openPacks: open.packs,
    openBase: open.base,
    received: figures.received,
    receivedPacks: figures.receivedPacks,
    tracking: r.tracking ?? 'none',
    ...{ note: r.internalNote, inspect: r.inspect === 1 },
  };
};

/** What is expected, one arrival per order and place, earliest first; at the person's places, or at one of them, or of one
 *  order. Errors: forbidden. */
export async function readArrivals(
  deps: Deps,
  actor: Actor,
  filter: { readonly locationId: number | null; readonly orderId?: number },
): Promise<Result<{ arrivals: Arrival[]; today: string }, Failure>> {
  const allowed = may(actor, 'goods.receive', filter.locationId === null ? {} : { locationIds: [filter.locationId] });
  if (!allowed.ok) return allowed;
  return readSnapshot<Result<{ arrivals: Arrival[]; today: string }, Failure>>(deps.pool, async (tx) => {
    const at = filter.locationId === null ? actor.locations : [filter.locationId];
    const rows = await readExpected(tx, at, filter.orderId === undefined ? {} : { orderId: filter.orderId });
    const names = new Map((await readLocations(tx)).map((l) => [l.id, l.name]));
    const arrivals = new Map<string, Arrival & { lines: ExpectedLine[] }>();
    for (const r of rows) {
      const key = `${r.orderId}/${r.locationId}`;
      const arrival = arrivals.get(key) ?? {
        orderId: r.orderId,
        number: r.orderNumber,
        supplier: r.supplier,
        currency: r.currency,
        locationId: r.locationId,
        location: names.get(r.locationId) ?? '',
        expectedDate: r.expectedDate,
        sent: r.everSent === 1,
        lines: [],
      };
      arrival.lines.push(lineOf(r));
      arrivals.set(key, arrival);
    }
    return ok({ arrivals: [...arrivals.values()], today: todayOf(deps, await readCompany(tx)) });
  });
}

/** What is expected of one order at one place. Errors: forbidden, not_found when nothing is. */
export async function readArrival(
  deps: Deps,
  actor: Actor,
  key: { readonly orderId: number; readonly locationId: number },
): Promise<Result<{ arrival: Arrival; today: string }, Failure>> {
  const found = await readArrivals(deps, actor, key);
  if (!found.ok) return found;
  const [arrival] = found.value.arrivals;
  return arrival ? ok({ arrival, today: found.value.today }) : err({ kind: 'not_found', what: 'order' });
}
