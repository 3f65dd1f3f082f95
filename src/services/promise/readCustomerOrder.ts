import { type Actor, may } from '@/core/people';
import { type CustomerOrderAction, type CustomerOrderState, customerOrderAllows, handOverNow } from '@/core/promise';
import { fromDecimal, type Quantity } from '@/core/quantity';
import { err, ok, type Result } from '@/core/result';
import { readChanges } from '@/data/repositories/bookkeeping';
import { readCompany, readLocations } from '@/data/repositories/company';
import {
  type CustomerOrderRow,
  findCustomerById,
  findCustomerOrder,
  readCustomerLines,
  readHandOvers,
} from '@/data/repositories/customerOrders';
import { readSnapshot } from '@/data/transaction';
import { type Deps, todayOf } from '../deps';
import type { Failure } from '../failure';
import { stockLinesOf } from '../stock/readStock';
import { promiseText } from './promiseText';
import { type PromiseLine, promiseLinesOf } from './readPromises';
import { readShortNeeds, type ShortNeed } from './shortNeeds';

/** A place that could send what a line lacks, and when it would be there. */
export type CouldSend = {
  readonly locationId: number;
  readonly location: string;
  readonly surplus: Quantity;
  readonly arrives: string;
};

export type CustomerOrderView = CustomerOrderRow & {
  readonly phone: string;
  readonly address: string;
  readonly lines: readonly (PromiseLine & {
    readonly couldSend: readonly CouldSend[];
    readonly goesNow: Quantity;
    readonly need: ShortNeed | null;
  })[];
  readonly may: Readonly<Record<CustomerOrderAction, boolean>>;
  /** Places with something that can be handed over now. */
  readonly ready: readonly { readonly locationId: number; readonly location: string; readonly lines: number }[];
  readonly handOvers: readonly {
    readonly lineNo: number;
    readonly sale: string;
    readonly day: string;
    readonly quantity: Quantity;
  }[];
  readonly history: readonly { readonly at: string; readonly who: string; readonly action: string }[];
  /** What the customer could be told now. */
  readonly text: { readonly subject: string; readonly body: string };
  readonly today: string;
  readonly timeZone: string;
  readonly places: readonly { readonly id: number; readonly name: string }[];
};

/** One look at a customer's order: what lies ready, what covers the rest, who could send it. Errors: forbidden, not_found. */
export async function readCustomerOrder(
  deps: Deps,
  actor: Actor,
  id: number,
): Promise<Result<CustomerOrderView, Failure>> {
  const allowed = may(actor, 'promises.read');
  if (!allowed.ok) return allowed;
  return readSnapshot<Result<CustomerOrderView, Failure>>(deps.pool, async (tx) => {
    const head = await findCustomerOrder(tx, id);
    const rows = await readCustomerLines(tx, [id]);
    const here = (locationId: number) => actor.locations?.includes(locationId) ?? true;
    if (!head || !rows.some((l) => here(l.locationId))) return err({ kind: 'not_found', what: 'order' });
    const customer = await findCustomerById(tx, head.customerId);
    const company = await readCompany(tx);
    const today = todayOf(deps, company);
    const lines = await promiseLinesOf(
      deps,
      tx,
      rows.map((l) => l.id),
    );
    const places = (await readLocations(tx)).filter((l) => l.closed === 0);
    const short = [...new Set(lines.filter((l) => l.missing > 0 && l.about === null).map((l) => l.itemId))];
    const stock = await stockLinesOf(
      deps,
      tx,
      short,
      places.map((l) => l.id),
    );
    const couldSend = (l: PromiseLine): CouldSend[] =>
      (l.way === 'straight' ? [] : (stock.find((s) => s.itemId === l.itemId && l.missing > 0)?.places ?? []))
        .filter((p) => p.locationId !== l.locationId && p.surplus > 0)
        .map((p) => ({
          ...{ locationId: p.locationId, location: p.location, surplus: p.surplus },
          arrives: stock[0]?.sentArrives.find((a) => a.locationId === l.locationId)?.date ?? today,
        }));
    const needOf = may(actor, 'needs.decide').ok ? await readShortNeeds(deps, tx, lines) : () => null;
    const now = handOverNow(
      lines.map((l) => (l.way === 'straight' ? { ...l, ordered: 0, handedOver: 0, cancelled: 0 } : l)),
      head.delivers,
    );
    const all = rows.every((l) => here(l.locationId));
    const can = (action: CustomerOrderAction, right: 'promises.edit' | 'stock.sell') =>
      customerOrderAllows(head.state as CustomerOrderState, action) && all && may(actor, right).ok;
    return ok({
      ...head,
      ...{ phone: customer?.phone ?? '', address: customer?.address ?? '' },
      lines: lines.map((l, i) => ({ ...l, couldSend: couldSend(l), goesNow: now[i] as Quantity, need: needOf(l) })),
      may: {
        change: can('change', 'promises.edit'),
        allocate: can('allocate', 'promises.edit'),
        hand_over: can('hand_over', 'stock.sell'),
        cancel: can('cancel', 'promises.edit'),
        tell: can('tell', 'promises.edit'),
      },
      ready: places
        .map((p) => ({
          ...{ locationId: p.id, location: p.name },
          lines: lines.filter((l, i) => l.locationId === p.id && (now[i] as Quantity) > 0).length,
        }))
        .filter((p) => p.lines > 0),
      handOvers: (await readHandOvers(tx, id)).map((h) => ({ ...h, quantity: fromDecimal(h.quantity) })),
      history: (await readChanges(tx, 'customer_order', id)).map(({ at, who, action }) => ({ at, who, action })),
      text: promiseText(head, lines, company.name),
      today,
      timeZone: company.timeZone,
      places: places.filter((l) => here(l.id)).map(({ id: placeId, name }) => ({ id: placeId, name })),
    });
  });
}
