import type { CustomerOrderState, PromiseRule } from '@/core/promise';
import { atLocations, list, type Tx } from '../sql';
import { type CustomerLineRow, type CustomerOrderRow, lineColumns } from './customerOrders';
import type { Pair } from './levels';
import { BACKORDERED } from './needInputs/waits';

const OPEN = "o.state = 'open' AND l.base_quantity > l.handed_over + l.cancelled";

/** Open orders that wait for one of these pairs and may be given stock by themselves: to go out by a day, and not kept for a
 *  hand. */
export async function findOrdersWaiting(tx: Tx, pairs: readonly Pair[], until: string): Promise<number[]> {
  const items = list('id', [...new Set(pairs.map((p) => p.itemId))]);
  if (!items) return [];
  const wanted = new Set(pairs.map((p) => `${p.itemId}/${p.locationId}`));
  const rows = await tx.rows<Pair & { orderId: number }>(
    `SELECT d.item_id AS itemId, l.location_id AS locationId, o.id AS orderId
       FROM customer_demand d JOIN customer_line l ON l.id = d.line_id JOIN customer_order o ON o.id = l.order_id
       LEFT JOIN allocation a ON a.id = d.allocation_id
      WHERE d.item_id IN (${items.sql}) AND ${OPEN} AND l.by_hand = 0 AND l.way <> 'straight' AND l.ship_by <= :until AND ${BACKORDERED} > 0`,
    { ...items.values, until },
  );
  return [...new Set(rows.filter((r) => wanted.has(`${r.itemId}/${r.locationId}`)).map((r) => r.orderId))];
}

/** Those of these orders that are still open and nobody else is at, locked in id order. */
export const lockOrdersAtHand = (tx: Tx, ids: readonly number[]) =>
  tx.rowsOf<{ id: number; priority: number; number: string; customer: string; createdBy: number }>(
    `SELECT o.id, o.priority, o.number, o.created_by AS createdBy, (SELECT c.name FROM customer c WHERE c.id = o.customer_id) AS customer
       FROM customer_order o FORCE INDEX (PRIMARY) WHERE o.id IN (?) AND o.state = 'open' ORDER BY o.id FOR UPDATE SKIP LOCKED`,
    ids,
  );

/** Pairs that somebody waits for although some of their stock is free. */
export const readGivable = (tx: Tx, until: string, after: Pair, limit: number) =>
  tx.rows<Pair>(
    `SELECT DISTINCT d.item_id AS itemId, l.location_id AS locationId
       FROM customer_order o JOIN customer_line l ON l.order_id = o.id JOIN customer_demand d ON d.line_id = l.id
       JOIN level v ON v.item_id = d.item_id AND v.location_id = l.location_id
       LEFT JOIN allocation a ON a.id = d.allocation_id
      WHERE ${OPEN} AND l.by_hand = 0 AND l.way <> 'straight' AND l.ship_by <= :until AND v.on_hand - v.blocked - v.inspection - v.allocated > 0
        AND ${BACKORDERED} > 0 AND (d.item_id, l.location_id) > (:itemId, :locationId)
      ORDER BY 1, 2 LIMIT ${Math.trunc(limit)}`,
    { until, itemId: after.itemId, locationId: after.locationId },
  );

/** Orders with a line whose reservation has run out. */
export const findExpired = async (tx: Tx, now: string): Promise<number[]> =>
  (
    await tx.rows<{ id: number }>(
      `SELECT DISTINCT l.order_id AS id FROM customer_line l JOIN customer_order o ON o.id = l.order_id
        WHERE l.hold_until <= :now AND ${OPEN} ORDER BY 1 LIMIT 50`,
      { now },
    )
  ).map((r) => r.id);

export type WaitingRow = Pair & {
  readonly demandId: number;
  readonly lineId: number;
  readonly orderId: number;
  readonly waits: string;
  readonly wanted: string;
  readonly priority: number;
  /** It waits for what its supplier sends it, not for stock. */
  readonly straight: number;
};

/** Everybody who waits for one of these items, and for how much that nothing lies ready for. */
export async function readWaiting(tx: Tx, itemIds: readonly number[]): Promise<WaitingRow[]> {
  const ids = list('id', itemIds);
  if (!ids) return [];
  return tx.rows<WaitingRow>(
    `SELECT d.id AS demandId, d.item_id AS itemId, l.location_id AS locationId, l.id AS lineId, o.id AS orderId,
            l.wanted_date AS wanted, o.priority, ${BACKORDERED} AS waits, l.way = 'straight' AS straight
       FROM customer_demand d JOIN customer_line l ON l.id = d.line_id JOIN customer_order o ON o.id = l.order_id
       LEFT JOIN allocation a ON a.id = d.allocation_id
      WHERE d.item_id IN (${ids.sql}) AND ${OPEN}
     HAVING waits > 0 ORDER BY l.wanted_date, o.priority, d.id`,
    ids.values,
  );
}

export type PromiseRules = { readonly days: number; readonly rule: PromiseRule };
/** How many days ahead orders are given stock, and how much of an item may be promised where the item says nothing. */
export const readPromiseRules = async (tx: Tx): Promise<PromiseRules> =>
  (await tx.row<PromiseRules>('SELECT promise_days AS days, promise_rule AS rule FROM company WHERE id = 1')) ?? {
    days: 14,
    rule: 'on_the_way',
  };

/** Which lines: those that wait for something, lie ready in part or whole, all that are open, or ended. */
export type LineShow = 'open' | 'waiting' | 'ready' | 'ended';
export const lineSorts = ['ship_by', 'customer', 'item', 'order'] as const;
export type LineSort = (typeof lineSorts)[number];

const sortColumns: Readonly<Record<LineSort, string>> = {
  ship_by: 'l.ship_by, l.wanted_date, o.priority, l.id',
  customer: 'c.name, o.id, l.line_no',
  item: 'i.name, l.ship_by, l.id',
  order: 'o.id, l.line_no',
};
const READY_ANY = `EXISTS (SELECT 1 FROM customer_demand d JOIN allocation a ON a.id = d.allocation_id AND a.state = 'held' WHERE d.line_id = l.id)`;
const WAITS_ANY = `EXISTS (SELECT 1 FROM customer_demand d LEFT JOIN allocation a ON a.id = d.allocation_id
                            WHERE d.line_id = l.id AND ${BACKORDERED} > 0)`;

const shows: Readonly<Record<LineShow, string>> = {
  open: OPEN,
  waiting: `${OPEN} AND ${WAITS_ANY}`,
  ready: `${OPEN} AND (${READY_ANY} OR NOT EXISTS (SELECT 1 FROM customer_demand d WHERE d.line_id = l.id))`,
  ended: 'l.base_quantity = l.handed_over + l.cancelled',
};

/** Lines in order; `search` looks at order, customer, reference and item. */
export async function findCustomerLines(
  tx: Tx,
  asked: {
    readonly show: LineShow;
    readonly sort: LineSort;
    readonly search: string;
    readonly locationIds: readonly number[] | null;
    readonly itemId: number | null;
  },
  most: number,
): Promise<number[]> {
  const at = atLocations('l.location_id', asked.locationIds);
  const search = asked.search.trim();
  const like = search.replace(/[!%_]/g, '!$&');
  const ended = asked.show === 'ended';
  const rows = await tx.rows<{ id: number }>(
    `SELECT l.id FROM customer_line l JOIN customer_order o ON o.id = l.order_id JOIN customer c ON c.id = o.customer_id
       JOIN item i ON i.id = l.item_id
      WHERE ${shows[asked.show]} ${at.sql}
        ${asked.itemId === null ? '' : 'AND (l.item_id = :itemId OR EXISTS (SELECT 1 FROM customer_demand d WHERE d.line_id = l.id AND d.item_id = :itemId))'}
        ${
          search === ''
            ? ''
            : `AND (o.number LIKE :like ESCAPE '!' OR c.name LIKE :like ESCAPE '!' OR c.mail LIKE :like ESCAPE '!'
               OR o.reference LIKE :like ESCAPE '!' OR i.name LIKE :like ESCAPE '!' OR i.number LIKE :like ESCAPE '!')`
        }
      ORDER BY ${ended ? 'o.id DESC, l.line_no' : sortColumns[asked.sort]} LIMIT ${Math.trunc(most)}`,
    {
      ...at.values,
      ...(asked.itemId === null ? {} : { itemId: asked.itemId }),
      ...(search === '' ? {} : { like: `%${like}%` }),
    },
  );
  return rows.map((r) => r.id);
}

export type LineWithOrder = CustomerLineRow &
  Pick<CustomerOrderRow, 'number' | 'customer' | 'mail' | 'channel' | 'reference' | 'priority' | 'delivers'> & {
    readonly orderState: CustomerOrderState;
  };

export const readLinesWithOrders = (tx: Tx, lineIds: readonly number[]) =>
  tx.rowsOf<LineWithOrder>(
    `SELECT ${lineColumns}, o.number, c.name AS customer, c.mail, o.channel, o.reference, o.priority, o.delivers, o.state AS orderState
       FROM customer_line l JOIN customer_order o ON o.id = l.order_id JOIN customer c ON c.id = o.customer_id WHERE l.id IN (?)`,
    lineIds,
  );

/** What items say themselves about how much of them may be promised. */
export async function readItemPromiseRules(tx: Tx, itemIds: readonly number[]): Promise<Map<number, PromiseRule>> {
  const rows = await tx.rowsOf<{ id: number; rule: PromiseRule }>(
    'SELECT id, promise_rule AS rule FROM item WHERE id IN (?) AND promise_rule IS NOT NULL',
    itemIds.length > 0 ? itemIds : [0],
  );
  return new Map(rows.map((r) => [r.id, r.rule]));
}

export const updatePromiseRules = (tx: Tx, r: PromiseRules) =>
  tx.run('UPDATE company SET promise_days = :days, promise_rule = :rule WHERE id = 1', r);

/** What can be sold elsewhere: active items with a price whose use is recorded. */
export const readOffered = (tx: Tx) =>
  tx.rows<{ id: number; number: string; decimals: number }>(
    `SELECT id, number, sale_decimals AS decimals FROM item
      WHERE status = 'active' AND sale_price IS NOT NULL AND use_recorded = 1 AND stock_kept = 1 ORDER BY id`,
  );
