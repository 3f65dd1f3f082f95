import { arrivesIfOrdered } from '@/core/calendar';
import { type Actor, may } from '@/core/people';
import { err, ok, type Result } from '@/core/result';
import { readCalendars } from '@/data/repositories/calendars';
import { countItems, readSuppliers } from '@/data/repositories/catalogue';
import { readCompany } from '@/data/repositories/company';
import { countAside } from '@/data/repositories/decisions';
import { readList } from '@/data/repositories/lists';
import { type OpenNeed, readOpenNeeds } from '@/data/repositories/planning';
import { readTrayLines, type TrayLineRow } from '@/data/repositories/trays';
import type { Tx } from '@/data/sql';
import { readSnapshot } from '@/data/transaction';
import { type BuyingBook, readBuying } from '../catalogue/buying';
import { type Exchange, readExchange } from '../cost/exchange';
import { type Deps, timeOf, todayOf } from '../deps';
import type { Failure } from '../failure';
import { type AskedRows, GROUP, keepList, type Page, printOf, readRows } from '../lists/keptList';
import {
  type At,
  allNeeds,
  type GroupOfNeeds,
  type NeedOrder,
  type NeedsAsked,
  needsAskedFor,
  netOfNeeds,
} from './needList';
import { type NeedView, needViewsOf } from './needViews';
import { bringUpToDate } from './recompute';
import { comingLines, trayTotals } from './trayTotals';

/** The head of a group of needs. */
export type NeedGroup = {
  readonly by: NeedOrder;
  /** Of what the needs have in common: a place, a category, a buyer, a cause; null where there is none. */
  readonly title: string | null;
  readonly supplierId: number | null;
  readonly supplier: string | null;
  /** The place that sends these; null = bought. */
  readonly sentFrom: string | null;
  readonly arrives: string | null;
  readonly orderMinimum: number;
  /** Of the minimum and the tray; '' without a supplier. */
  readonly currency: string;
  /** Where in the list its head stands; its needs follow. */
  readonly start: number;
  readonly count: number;
};

export type NeedEntry = { readonly kind: 'group'; readonly group: NeedGroup } | ({ readonly kind: 'need' } & NeedView);

/** Figures over all open needs and trays, which change while a list is worked in. */
export type NeedsStatus = {
  readonly needs: number;
  readonly items: number;
  readonly itemsOfAll: number;
  readonly net: number;
  readonly unpriced: number;
  /** What lies in each supplier's tray. */
  readonly trays: readonly { readonly supplierId: number; readonly net: number }[];
};

export type NeedsHead = {
  readonly list: string;
  /** Entries: needs and heads of groups. */
  readonly count: number;
  /** Needs in the list, of all that are open. */
  readonly shown: number;
  readonly status: NeedsStatus;
  /** Needs that are put off and left out at these places. */
  readonly aside: { readonly putOff: number; readonly leftOut: number };
  readonly currency: string;
  readonly today: string;
};

export type NeedsAbout = {
  readonly locationId: number | null;
  readonly asked: NeedsAsked;
  readonly groups: readonly NeedGroup[];
};

/** Opens the list of needs as it is asked for, in groups; with a location, only that one's. Errors: forbidden. */
export async function openNeeds(
  deps: Deps,
  actor: Actor,
  question: Partial<NeedsAsked> & { readonly locationId: number | null },
): Promise<Result<NeedsHead, Failure>> {
  const asked = { ...allNeeds(), ...question };
  const { locationId } = asked;
  const allowed = may(actor, 'needs.read', locationId === null ? {} : { locationIds: [locationId] });
  if (!allowed.ok) return allowed;
  await bringUpToDate(deps);
  const { places, groups, ...head } = await readSnapshot(deps.pool, async (tx) => {
    const { at, currency, open, book, exchange, trays } = await groundOf(deps, tx, actor, locationId);
    const groups = await needsAskedFor({ tx, at, book, exchange }, actor, open, asked);
    const heads = asked.order === 'urgent' ? [] : await headsOf(tx, groups, asked.order, at);
    // Needs come group by group; each head stands before its own.
    const places = groups.flatMap((g) => [...(heads.length > 0 ? [null] : []), ...g.needs]);
    return {
      ...{ places, groups: heads, currency, today: at.today },
      status: await statusOf(tx, open, book, exchange, trays, at.today),
      aside: await countAside(tx, locationId === null ? actor.locations : [locationId]),
      shown: groups.reduce((n, g) => n + g.needs.length, 0),
    };
  });
  const about: NeedsAbout = { locationId, asked, groups };
  const list = await keepList(deps, actor, 'needs', {
    ids: places.map((n) => n?.id ?? GROUP),
    prints: places.map((n) => (n ? printOf(n.fingerprint) : 0)),
    about,
  });
  return ok({ list, count: places.length, ...head });
}

/** What has changed since a list of needs was opened: the ids of needs that came, went or are no longer as they were, and
 *  the figures over all. Errors: forbidden, list_gone. */
export async function readNeedChanges(
  deps: Deps,
  actor: Actor,
  list: string,
): Promise<Result<{ readonly changed: readonly number[]; readonly status: NeedsStatus }, Failure>> {
  const allowed = may(actor, 'needs.read');
  if (!allowed.ok) return allowed;
  await bringUpToDate(deps);
  return readSnapshot<Result<{ changed: number[]; status: NeedsStatus }, Failure>>(deps.pool, async (tx) => {
    const kept = await readList(tx, { name: list, userId: actor.userId, kind: 'needs' }, { prints: true });
    if (!kept) return err({ kind: 'list_gone' });
    const { asked } = kept.about as NeedsAbout;
    const { at, open, book, exchange, trays } = await groundOf(deps, tx, actor, asked.locationId);
    const had = new Map([...kept.entries].map((id, i) => [id, kept.prints[i]]));
    had.delete(GROUP);
    const whole = new Map(open.map((n) => [n.id, printOf(n.fingerprint)]));
    // What came is new to this list when it asks for it.
    const fitting = await needsAskedFor({ tx, at, book, exchange }, actor, open, { ...asked, order: 'supplier' });
    const came = fitting.flatMap((g) => g.needs).filter((n) => !had.has(n.id));
    const changed = [...[...had.keys()].filter((id) => had.get(id) !== whole.get(id)), ...came.map((n) => n.id)];
    return ok({ changed, status: await statusOf(tx, open, book, exchange, trays, at.today) });
  });
}

/** Up to 200 entries of an open list, as they are now. Errors: forbidden, list_gone. */
export async function readNeedRows(
  deps: Deps,
  actor: Actor,
  asked: AskedRows,
): Promise<Result<Page<NeedEntry>, Failure>> {
  const allowed = may(actor, 'needs.read');
  if (!allowed.ok) return allowed;
  return readRows(deps, actor, 'needs', asked, async (tx, { entries, about }) => {
    const { groups } = about as NeedsAbout;
    const views = await needViewsOf(
      deps,
      tx,
      [...entries].filter((id) => id !== GROUP),
    );
    return [...entries].map((id, i): NeedEntry => {
      if (id !== GROUP) {
        const view = views.get(id);
        if (!view) throw new Error(`need ${id} is not there`);
        return { kind: 'need', ...view };
      }
      const group = groups.find((g) => g.start === asked.from + i);
      if (!group) throw new Error(`entry ${asked.from + i} is no head of a group`);
      return { kind: 'group', group };
    });
  });
}

/** Everything that is open at the person's places, and what it is bought by. */
async function groundOf(deps: Deps, tx: Tx, actor: Actor, locationId: number | null) {
  const company = await readCompany(tx);
  const at: At = { today: todayOf(deps, company), time: timeOf(deps, company), timeZone: company.timeZone };
  const open = await readOpenNeeds(tx, locationId === null ? actor.locations : [locationId]);
  const trays = await readTrayLines(tx);
  const book = await readBuying(
    tx,
    [...open, ...trays].map((n) => n.itemId),
  );
  const exchange = await readExchange(tx, company.currency, at.today);
  return { at, currency: company.currency, open, book, exchange, trays };
}

async function statusOf(
  tx: Tx,
  open: readonly OpenNeed[],
  book: BuyingBook,
  exchange: Exchange,
  trayLines: readonly TrayLineRow[],
  today: string,
): Promise<NeedsStatus> {
  const { net, unpriced } = netOfNeeds(open, book, exchange, today);
  const totals = trayTotals(comingLines(trayLines, book, await readSuppliers(tx), today));
  return {
    needs: open.length,
    items: new Set(open.map((n) => n.itemId)).size,
    itemsOfAll: await countItems(tx),
    ...{ net, unpriced },
    trays: [...totals].map(([supplierId, net]) => ({ supplierId, net })),
  };
}

async function headsOf(tx: Tx, groups: readonly GroupOfNeeds[], by: NeedOrder, at: At): Promise<NeedGroup[]> {
  const suppliers = new Map((await readSuppliers(tx)).map((s) => [s.id, s]));
  const calendars = await readCalendars(tx, at.today);
  let start = 0;
  return groups.map(({ key, name, needs }): NeedGroup => {
    const s = by === 'supplier' ? suppliers.get(key) : undefined;
    const head = {
      ...{ by, title: name, supplierId: s?.id ?? null, supplier: s?.name ?? null },
      sentFrom: by === 'supplier' && key < 0 ? name : null,
      arrives: s
        ? arrivesIfOrdered(
            calendars.supply(s.id, { days: s.leadTimeDays, kind: s.leadTimeKind }, null),
            at.today,
            at.time,
          )
        : null,
      ...{ orderMinimum: s?.orderMinimum ?? 0, currency: s?.currency ?? '', start, count: needs.length },
    };
    start += 1 + needs.length;
    return head;
  });
}
