import type { Tx } from '../sql';
import { HELD } from './allocations';
import type { PegOf } from './needInputs/supply';
import { OPEN_DEMAND } from './needInputs/waits';

/** A customer's line, by what it takes of one item, or a line of a place's request: what of it nothing lies ready for, and nothing
 *  is bought for one to one. */
export type Peggable = {
  readonly of: PegOf;
  readonly id: number;
  readonly itemId: number;
  readonly itemNumber: string;
  readonly itemName: string;
  readonly unitName: string;
  readonly locationId: number;
  readonly location: string;
  readonly who: string;
  readonly by: string | null;
  /** What is asked for, and what lies ready for it, in base units. */
  readonly asked: string;
  readonly held: string;
};

const FREE = (of: string, id: string) => `NOT EXISTS (
  SELECT 1 FROM need n WHERE n.peg_of = '${of}' AND n.peg = ${id} AND (n.state = 'open' OR EXISTS (
    SELECT 1 FROM decision e JOIN tray_line y ON y.decision_id = e.id AND y.state IN ('in_tray', 'ordered') WHERE e.need_id = n.id)))`;

/** Whatever of these items can be bought one to one for whoever asks for it by name; soonest first. */
export async function readPeggable(tx: Tx, itemIds: readonly number[]): Promise<Peggable[]> {
  const customers = await tx.rowsOf<Peggable>(
    `SELECT 'customer_demand' AS \`of\`, d.id, i.id AS itemId, i.number AS itemNumber, i.name AS itemName, i.unit_name AS unitName,
            l.location_id AS locationId, p.name AS location, CONCAT(o.number, ', ', c.name) AS who, l.ship_by AS \`by\`,
            ${OPEN_DEMAND} AS asked, ${HELD} AS held
       FROM customer_order o JOIN customer c ON c.id = o.customer_id JOIN customer_line l ON l.order_id = o.id
       JOIN customer_demand d ON d.line_id = l.id JOIN item i ON i.id = d.item_id JOIN location p ON p.id = l.location_id
       LEFT JOIN allocation a ON a.id = d.allocation_id
      WHERE o.state = 'open' AND l.way <> 'straight' AND l.whole_sets = 0 AND l.by_hand = 0 AND d.item_id IN (?)
        AND ${OPEN_DEMAND} > ${HELD} AND ${FREE('customer_demand', 'd.id')} ORDER BY l.ship_by, d.id`,
    itemIds,
  );
  const requests = await tx.rowsOf<Peggable>(
    `SELECT 'transfer_line' AS \`of\`, l.id, i.id AS itemId, i.number AS itemNumber, i.name AS itemName, i.unit_name AS unitName,
            t.from_location_id AS locationId, p.name AS location, CONCAT(t.number, ', ', q.name) AS who, t.wanted_date AS \`by\`,
            l.asked, ${HELD} AS held
       FROM transfer t JOIN transfer_line l ON l.transfer_id = t.id JOIN item i ON i.id = l.item_id
       JOIN location p ON p.id = t.from_location_id JOIN location q ON q.id = t.to_location_id
       LEFT JOIN allocation a ON a.id = l.allocation_id
      WHERE t.state = 'requested' AND l.item_id IN (?) AND l.asked > ${HELD} AND ${FREE('transfer_line', 'l.id')}
      ORDER BY t.wanted_date, l.id`,
    itemIds,
  );
  return [...customers, ...requests];
}

/** The need of a line that is bought for it one to one by hand, open; its id. */
export async function openPegNeed(
  tx: Tx,
  p: Pick<Peggable, 'of' | 'id' | 'itemId' | 'locationId'>,
  n: { readonly shortage: string; readonly sourceId: number; readonly at: string },
): Promise<number> {
  const cause = p.of === 'customer_demand' ? 'customer_waits' : 'shop_asks';
  await tx.run(
    `INSERT INTO need (item_id, location_id, peg_of, peg, state, cause, shortage, suggested, source_id, fingerprint, first_seen, changed_at)
     VALUES (:itemId, :locationId, :of, :id, 'open', :cause, :shortage, :shortage, :sourceId, '', :at, :at)
     ON DUPLICATE KEY UPDATE state = 'open', cause = :cause, shortage = :shortage, suggested = :shortage, source_id = :sourceId,
       supply_location_id = NULL, changed_at = :at`,
    { ...{ of: p.of, id: p.id, itemId: p.itemId, locationId: p.locationId }, ...n, cause },
  );
  const row = await tx.row<{ id: number }>(
    'SELECT id FROM need WHERE item_id = :itemId AND location_id = :locationId AND peg_of = :of AND peg = :id',
    { of: p.of, id: p.id, itemId: p.itemId, locationId: p.locationId },
  );
  if (!row) throw new Error('a need that was made is not there');
  return row.id;
}

/** Whether something is bought for a need, locked, that is still in a tray or on an order: as it is now, not as it was when this
 *  transaction began. */
export const isBought = async (tx: Tx, needId: number): Promise<boolean> =>
  (await tx.row(
    `SELECT y.id FROM decision e JOIN tray_line y ON y.decision_id = e.id
      WHERE e.need_id = :needId AND y.state IN ('in_tray', 'ordered') LIMIT 1 FOR UPDATE`,
    { needId },
  )) !== null;
