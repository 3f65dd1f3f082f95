import { addDays, arrivesIfOrdered, type BusinessDate, daysBetween, orderBy } from '@/core/calendar';
import { adviceFor } from '@/core/netting';
import { type Actor, may } from '@/core/people';
import { adviseOrders, firstBelow, type OpenReceipt, type OrderAdvice, project } from '@/core/projection';
import { fromDecimal, type Quantity } from '@/core/quantity';
import { err, ok, type Result } from '@/core/result';
import { findItem } from '@/data/repositories/catalogue';
import { readCompany, readLocations } from '@/data/repositories/company';
import { readLevels } from '@/data/repositories/levels';
import { readDatedSupply } from '@/data/repositories/openSupply';
import { readStates } from '@/data/repositories/planning';
import { readSnapshot } from '@/data/transaction';
import { type Deps, timeOf, todayOf } from '../deps';
import type { Failure } from '../failure';
import { readPairPlans } from './pairPlans';
import { whenItComes } from './whenItComes';

/** Days looked ahead. */
export const AHEAD = 63;

/** A receipt or a demand with the document it belongs to. */
export type DatedDocument = {
  readonly date: BusinessDate;
  readonly quantity: Quantity;
  /** Number, or what it is where it has none yet. */
  readonly ref: string;
  readonly kind: 'order' | 'draft' | 'tray' | 'transfer' | 'to_be_sent' | 'asked' | 'planned';
  readonly href: string | null;
  /** Days that it is late; counted as coming on the next receiving day. */
  readonly lateDays: number;
};

export type OutlookDay = {
  readonly date: BusinessDate;
  readonly receipts: Quantity;
  readonly demand: Quantity;
  readonly closing: Quantity;
};

export type Outlook = {
  readonly item: { readonly id: number; readonly number: string; readonly name: string; readonly unit: string };
  readonly location: string;
  readonly places: readonly { readonly id: number; readonly name: string }[];
  readonly today: BusinessDate;
  readonly stock: Quantity;
  readonly owed: Quantity;
  readonly perDay: Quantity;
  readonly days: readonly OutlookDay[];
  readonly receipts: readonly DatedDocument[];
  readonly demands: readonly DatedDocument[];
  readonly min: Quantity | null;
  readonly max: Quantity | null;
  readonly safety: Quantity;
  /** The first day that closes below 0; null in the days looked ahead. */
  readonly runOut: BusinessDate | null;
  readonly belowSafety: BusinessDate | null;
  /** Last order days: to stay above safety stock, and above zero. Null where nothing runs out, or it is too late. */
  readonly orderBySafety: BusinessDate | null;
  readonly orderByZero: BusinessDate | null;
  readonly tooLate: boolean;
  readonly arrives: BusinessDate | null;
  readonly supplier: string | null;
  readonly advice: readonly (OrderAdvice & { readonly date: BusinessDate; readonly wantedOn: BusinessDate | null })[];
};

/** Stock of an item at a place day by day: what is expected when, what is asked for when, use of the last 91 days for the rest.
 *  Receipts count at the start of a day, by confirmed date, else promised, else wanted, else arrival by calendar; what is
 *  overdue stands on the next receiving day. Errors: forbidden, not_found. */
export async function readOutlook(
  deps: Deps,
  actor: Actor,
  { itemId, locationId }: { readonly itemId: number; readonly locationId: number | null },
): Promise<Result<Outlook, Failure>> {
  const allowed = may(actor, 'stock.read', locationId === null ? {} : { locationIds: [locationId] });
  if (!allowed.ok) return allowed;
  return readSnapshot<Result<Outlook, Failure>>(deps.pool, async (tx) => {
    const item = await findItem(tx, itemId);
    if (!item) return err({ kind: 'not_found', what: 'item' });
    const places = (await readLocations(tx)).filter((l) => l.closed === 0 && (actor.locations?.includes(l.id) ?? true));
    const place = places.find((l) => l.id === (locationId ?? places[0]?.id));
    if (!place) return err({ kind: 'not_found', what: 'location' });
    const company = await readCompany(tx);
    const [today, time] = [todayOf(deps, company), timeOf(deps, company)];
    const plans = await readPairPlans(tx, [itemId], today);
    const here = plans.at(itemId, place.id);
    const [level] = await readLevels(tx, [itemId], [place.id]);
    const [state] = await readStates(tx, [itemId], [place.id]);
    const calendar = here?.calendar ?? null;
    const fallback = calendar ? arrivesIfOrdered(calendar, today, time) : today;
    const found = await readDatedSupply(tx, itemId, place.id);
    const when = whenItComes(plans.calendars, calendar, place.id, { today, time });
    const receipts = found.receipts
      .map((r): DatedDocument => {
        const { comes, lateDays, href } = when(r);
        return {
          ...{ date: comes, quantity: fromDecimal(r.quantity), ref: r.number ?? words[r.kind] },
          ...{ kind: r.kind, href, lateDays },
        };
      })
      .sort((a, b) => (a.date < b.date ? -1 : a.date > b.date ? 1 : 0));
    const planned = fromDecimal(state?.planned ?? '0');
    const asked = found.demands.map(
      (d): DatedDocument => ({
        ...{
          date: d.date !== null && d.date > today ? d.date : today,
          quantity: fromDecimal(d.quantity),
          ref: d.number ?? '',
        },
        ...{ kind: 'asked', href: `/stock/transfers/${d.transferId}`, lateDays: 0 },
      }),
    );
    const named = asked.reduce((a, d) => a + d.quantity, 0);
    const demands: DatedDocument[] = [
      ...asked,
      ...(planned > named
        ? [
            {
              date: today,
              quantity: planned - named,
              ref: 'suggested to places sent to from here',
              kind: 'planned' as const,
              href: '/needs',
              lateDays: 0,
            },
          ]
        : []),
    ];
    const stock = fromDecimal(level?.onHand ?? '0') - fromDecimal(level?.blocked ?? '0');
    const owed = fromDecimal(level?.allocated ?? '0');
    const perDay = here?.figures.perDay ?? 0;
    const flow = (d: DatedDocument) => ({ day: Math.max(0, daysBetween(today, d.date)), quantity: d.quantity });
    const days = project({
      ...{ stock, owed, receipts: receipts.map(flow), orders: [], dependent: demands.map(flow), perDay, days: AHEAD },
    });
    const safety = here ? (adviceFor(here.policy, here.figures)?.safety ?? 0) : 0;
    const dateOf = (n: number | null) => (n === null ? null : addDays(today, n));
    const [out, below] = [firstBelow(days, 0), firstBelow(days, safety)];
    // Goods that arrive on the day itself are in time: receipts count at its start.
    const by = (n: number | null) =>
      n === null || !calendar ? null : orderBy(calendar, today, addDays(today, n), time);
    const open: OpenReceipt[] = receipts
      .filter((r) => r.kind === 'order' || r.kind === 'draft')
      .map((r) => ({ ...flow(r), ref: r.ref }));
    return ok({
      item: { id: item.id, number: item.number, name: item.name, unit: item.unitName },
      location: place.name,
      places: places.map((l) => ({ id: l.id, name: l.name })),
      ...{ today, stock, owed, perDay, receipts, demands, safety },
      days: days.map((d, i) => ({
        date: addDays(today, i),
        receipts: d.receipts,
        demand: d.orders + d.dependent + d.forecast,
        closing: d.closing,
      })),
      min: here?.plan.rule === 'level' ? here.plan.level : null,
      max: here?.plan.rule === 'level' ? here.plan.max : null,
      runOut: dateOf(out),
      belowSafety: dateOf(below),
      orderBySafety: by(below),
      orderByZero: by(out),
      tooLate: out !== null && calendar !== null && by(out) === null,
      arrives: calendar ? fallback : null,
      supplier: found.supplier,
      advice: adviseOrders(days, open, safety).map((a) => ({
        ...a,
        date: addDays(today, a.day),
        wantedOn: 'wanted' in a ? addDays(today, a.wanted) : null,
      })),
    });
  });
}

const words: Readonly<Record<DatedDocument['kind'], string>> = {
  order: 'an order',
  draft: 'a draft order',
  tray: 'in the tray',
  transfer: 'a transfer',
  to_be_sent: 'a transfer',
  asked: 'asked for',
  planned: 'planned',
};
