import { addDays, startOfDay } from '@/core/calendar';
import { lineNet } from '@/core/money';
import { type NeedCause, type NeedWarning, needCauses, needWarnings } from '@/core/netting';
import { packsIn } from '@/core/packs';
import { type Actor, responsibleBuyer } from '@/core/people';
import { fromDecimal } from '@/core/quantity';
import { plainWords } from '@/core/search';
import { readCalendars } from '@/data/repositories/calendars';
import { readCategoryTree, readNamedBuyers } from '@/data/repositories/catalogue';
import { readLevels } from '@/data/repositories/levels';
import { readPeopleNames } from '@/data/repositories/people';
import type { OpenNeed } from '@/data/repositories/planning';
import type { Tx } from '@/data/sql';
import type { BuyingBook } from '../catalogue/buying';
import { buyersUp, pathOf } from '../catalogue/findItems';
import type { Exchange } from '../cost/exchange';
import { stamp } from '../deps';
import { pairKey, pairMap } from '../grouping';
import { freeOf } from '../stock/gauge';
import { readUrgency } from './urgency';

/** Which needs: all, those that came since the last day began, those that come too late, those with a warning. */
export const needShows = ['open', 'new', 'late', 'warned'] as const;
export type NeedShow = (typeof needShows)[number];
/** In groups of these, or all of them with the most urgent first. */
export const needOrders = ['supplier', 'place', 'category', 'buyer', 'cause', 'urgent'] as const;
export type NeedOrder = (typeof needOrders)[number];
export type NeedsAsked = {
  readonly locationId: number | null;
  readonly show: NeedShow;
  readonly cause: NeedCause | null;
  /** Only items that the person is responsible for. */
  readonly mine: boolean;
  /** Words that have to stand in a row, in any column. */
  readonly search: string;
  readonly order: NeedOrder;
};
export const allNeeds = (locationId: number | null = null): NeedsAsked => ({
  ...{ locationId, show: 'open', cause: null, mine: false, search: '', order: 'supplier' },
});

export type At = { readonly today: string; readonly time: string; readonly timeZone: string };
type Ground = {
  readonly tx: Tx;
  readonly at: At;
  readonly book: BuyingBook;
  readonly exchange: Exchange;
};

/** A group of needs in the order of the list; `key` of a supplier or of a place that sends (below 0), 0 for neither. */
export type GroupOfNeeds = { readonly key: number; readonly name: string | null; readonly needs: readonly OpenNeed[] };

/** Open needs as they are asked for: narrowed, in groups, in order. */
export async function needsAskedFor(
  ground: Ground,
  actor: Actor,
  open: readonly OpenNeed[],
  asked: NeedsAsked,
): Promise<GroupOfNeeds[]> {
  const { tx, at, book } = ground;
  const people = asked.mine || asked.order === 'buyer' ? await buyersOf(tx) : null;
  const words = plainWords(asked.search);
  const since = stamp(startOfDay(addDays(at.today, -1), at.timeZone));
  let kept = open.filter(
    (n) =>
      (asked.cause === null || n.cause.split(',').includes(asked.cause)) &&
      (!asked.mine || people?.get(n.itemId) === actor.userId) &&
      (asked.show !== 'new' || n.firstSeen >= since) &&
      (words.length === 0 || fits(n, words)),
  );
  if (asked.show === 'warned') {
    const warned = await warningsOf(ground, kept);
    kept = kept.filter((n) => warned(n).length > 0);
  }
  if (asked.show === 'late' || asked.order === 'urgent') {
    const urgency = await readUrgency(tx, at, kept, { book, calendars: await readCalendars(tx, at.today) });
    const slack = new Map(kept.map((n) => [n.id, urgency(n).slackDays]));
    if (asked.show === 'late') kept = kept.filter((n) => (slack.get(n.id) ?? 0) < 0);
    if (asked.order === 'urgent') {
      const of = (n: OpenNeed) => slack.get(n.id) ?? Number.MAX_SAFE_INTEGER;
      // What is as urgent stays in the order of suppliers and items.
      const sorted = [...kept].sort((a, b) => of(a) - of(b));
      return sorted.length === 0 ? [] : [{ key: 0, name: null, needs: sorted }];
    }
  }
  return grouped(kept, await groupOf(tx, asked.order, people));
}

/** Words that a row is found by. */
const fits = (n: OpenNeed, words: readonly string[]): boolean => {
  const text = plainWords(
    [n.itemNumber, n.itemName, n.location, n.supplier ?? '', n.sender ?? '', n.cause.replaceAll('_', ' ')].join(' '),
  );
  return words.every((w) => text.some((t) => t.startsWith(w)) || n.itemNumber.toLowerCase().includes(w));
};

/** Who is responsible for each item. */
async function buyersOf(tx: Tx): Promise<ReadonlyMap<number, number>> {
  const tree = new Map((await readCategoryTree(tx)).map((c) => [c.id, c]));
  const found = new Map<number, number>();
  for (const { itemId, categoryId, own, supplier } of await readNamedBuyers(tx)) {
    const named = responsibleBuyer({ item: own, categories: buyersUp(tree, categoryId), supplier });
    if (named) found.set(itemId, named.buyer);
  }
  return found;
}

/** `rank`: where the group stands; groups of the same rank as their first needs do. */
type Group = { readonly key: number; readonly name: string | null; readonly rank: string };

async function groupOf(
  tx: Tx,
  order: NeedOrder,
  people: ReadonlyMap<number, number> | null,
): Promise<(n: OpenNeed) => Group> {
  switch (order) {
    case 'place':
      return (n) => ({ key: n.locationId, name: n.location, rank: String(n.placeRank).padStart(6, '0') });
    case 'category': {
      const tree = new Map((await readCategoryTree(tx)).map((c) => [c.id, c]));
      return (n) => {
        const path = pathOf(tree, n.categoryId);
        return { key: n.categoryId, name: path, rank: path };
      };
    }
    case 'buyer': {
      const names = new Map((await readPeopleNames(tx)).map((p) => [p.id, p.name]));
      return (n) => {
        const buyer = people?.get(n.itemId) ?? 0;
        const name = names.get(buyer) ?? null;
        return { key: buyer, name, rank: name ?? '\uffff' };
      };
    }
    case 'cause':
      return (n) => {
        const [first = ''] = n.cause.split(',');
        const at = (needCauses as readonly string[]).indexOf(first);
        return { key: at + 1, name: first, rank: String(at) };
      };
    default:
      return (n) =>
        n.supplyLocationId === null
          ? { key: n.supplierId ?? 0, name: n.supplier, rank: '' }
          : { key: -n.supplyLocationId, name: n.sender, rank: '' };
  }
}

/** In groups by their rank. */
function grouped(needs: readonly OpenNeed[], of: (n: OpenNeed) => Group): GroupOfNeeds[] {
  const found = new Map<number, { group: Group; needs: OpenNeed[] }>();
  for (const n of needs) {
    const group = of(n);
    const had = found.get(group.key);
    if (had) had.needs.push(n);
    else found.set(group.key, { group, needs: [n] });
  }
  const all = [...found.values()].sort((a, b) =>
    a.group.rank < b.group.rank ? -1 : a.group.rank > b.group.rank ? 1 : 0,
  );
  return all.map(({ group, needs }) => ({ key: group.key, name: group.name, needs }));
}

/** What has to be mended or looked at, for each of these needs. */
export async function warningsOf(
  { tx, at, book, exchange }: Ground,
  needs: readonly OpenNeed[],
): Promise<(n: OpenNeed) => NeedWarning[]> {
  const sent = needs.filter((n) => n.supplyLocationId !== null);
  const levels = pairMap(await readLevels(tx, [...new Set(sent.map((n) => n.itemId))]));
  return (n) => {
    const buying = book.bySource.get(n.sourceId ?? 0);
    const base = fromDecimal(n.suggested);
    const level = n.supplyLocationId === null ? null : levels.get(pairKey(n.itemId, n.supplyLocationId));
    return needWarnings({
      ...{ hasSource: buying !== undefined, supplierActive: buying?.source.supplierActive ?? true },
      itemActive: n.itemStatus === 'active',
      priced: (buying?.priceAt(packsIn(base, buying.content), at.today) ?? null) !== null,
      rated: buying ? exchange.perUnit(buying.source.currency) !== null : true,
      sentFree: n.supplyLocationId === null ? null : Math.max(0, level ? freeOf(level) : 0),
      quantity: base,
    });
  };
}

/** What needs come to as they are suggested, in minor units of the company's currency; those without a price or a rate are counted.
 *  What another place sends costs nothing here. */
export function netOfNeeds(
  needs: readonly OpenNeed[],
  book: BuyingBook,
  exchange: Exchange,
  today: string,
): { readonly net: number; readonly unpriced: number } {
  let [net, unpriced] = [0, 0];
  for (const n of needs) {
    if (n.supplyLocationId !== null) continue;
    const buying = book.bySource.get(n.sourceId ?? 0);
    const base = fromDecimal(n.suggested);
    const price = buying?.priceAt(packsIn(base, buying.content), today) ?? null;
    const own = buying && price ? lineNet(base, price, buying.source.currency) : null;
    const inBase = own !== null && buying ? exchange.toBase(own, buying.source.currency) : null;
    if (inBase !== null) net += inBase;
    else unpriced += 1;
  }
  return { net, unpriced };
}
