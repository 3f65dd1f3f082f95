import { type NeedCause, needCauses } from '@/core/netting';
import { atLocations, list, type Tx } from '../sql';
import type { Pair } from './levels';

export type DecisionKind = 'accept' | 'take_back' | 'put_off' | 'leave_out';
export type DecisionShow = 'put_off' | 'left_out' | 'all';

export type DecisionRow = Pair & {
  readonly id: number;
  readonly needId: number;
  readonly kind: DecisionKind;
  /** 1 = the last of its need, which is still put off or left out. */
  readonly stands: number;
  readonly at: string;
  readonly who: string;
  readonly shortage: string;
  readonly packQuantity: string;
  readonly baseQuantity: string;
  readonly packName: string | null;
  /** The supplier of its source. */
  readonly supplier: string | null;
  /** The place that sends it, with its transfer. */
  readonly sender: string | null;
  readonly transferId: number | null;
  readonly transfer: string | null;
  readonly orderId: number | null;
  readonly order: string | null;
  readonly until: string | null;
  readonly reason: string;
  readonly reckoning: string;
  /** What the need is short of now, and what it suggests. */
  readonly shortNow: string;
  readonly suggestedNow: string;
  readonly cause: string;
};

/** Decisions, newest first: those by which needs are put off or left out now, or all. `items` narrows them to some. */
export async function findDecisions(
  tx: Tx,
  asked: {
    readonly show: DecisionShow;
    readonly locationIds: readonly number[] | null;
    readonly itemIds: readonly number[] | null;
  },
  most: number,
): Promise<number[]> {
  const at = atLocations('n.location_id', asked.locationIds);
  const items = asked.itemIds === null ? null : list('item', asked.itemIds);
  if (asked.itemIds !== null && !items) return [];
  const standing = "n.state = 'aside' AND d.id = n.last_decision_id AND d.kind";
  const which = {
    put_off: `${standing} = 'put_off'`,
    left_out: `${standing} = 'leave_out'`,
    all: 'TRUE',
  }[asked.show];
  const rows = await tx.rows<{ id: number }>(
    `SELECT d.id FROM decision d JOIN need n ON n.id = d.need_id
      WHERE ${which} ${at.sql} ${items ? `AND n.item_id IN (${items.sql})` : ''}
      ORDER BY d.id DESC LIMIT ${Math.trunc(most)}`,
    { ...at.values, ...items?.values },
  );
  return rows.map((r) => r.id);
}

export const readDecisions = (tx: Tx, ids: readonly number[]) =>
  tx.rowsOf<DecisionRow>(
    `SELECT d.id, d.need_id AS needId, n.item_id AS itemId, n.location_id AS locationId, d.kind,
            n.state = 'aside' AND n.last_decision_id = d.id AS stands, d.decided_at AS at, u.name AS who, d.shortage,
            d.pack_quantity AS packQuantity, d.base_quantity AS baseQuantity, p.name AS packName, s.name AS supplier,
            f.name AS sender, t.id AS transferId, t.number AS transfer, o.id AS orderId, o.number AS \`order\`,
            d.until, d.reason, d.reckoning, n.shortage AS shortNow, n.suggested AS suggestedNow, n.cause
       FROM decision d JOIN need n ON n.id = d.need_id JOIN app_user u ON u.id = d.user_id
       LEFT JOIN pack p ON p.id = d.pack_id
       LEFT JOIN source q ON q.id = d.source_id LEFT JOIN supplier s ON s.id = q.supplier_id
       LEFT JOIN transfer_line tl ON tl.decision_id = d.id LEFT JOIN transfer t ON t.id = tl.transfer_id
       LEFT JOIN location f ON f.id = t.from_location_id
       LEFT JOIN purchase_order o ON o.id = (
         SELECT MAX(l2.order_id) FROM tray_line y JOIN delivery_part d2 ON d2.tray_line_id = y.id
           JOIN order_line l2 ON l2.id = d2.order_line_id JOIN purchase_order o2 ON o2.id = l2.order_id
          WHERE y.decision_id = d.id AND y.state = 'ordered' AND o2.state <> 'put_back')
      WHERE d.id IN (?)`,
    ids,
  );

/** How many needs are put off and left out at these places. */
export async function countAside(
  tx: Tx,
  locationIds: readonly number[] | null,
): Promise<{ readonly putOff: number; readonly leftOut: number }> {
  const at = atLocations('n.location_id', locationIds);
  const row = await tx.row<{ putOff: number; leftOut: number }>(
    `SELECT CAST(COALESCE(SUM(d.kind = 'put_off'), 0) AS SIGNED) AS putOff,
            CAST(COALESCE(SUM(d.kind = 'leave_out'), 0) AS SIGNED) AS leftOut
       FROM need n JOIN decision d ON d.id = n.last_decision_id WHERE n.state = 'aside' ${at.sql}`,
    at.values,
  );
  return row ?? { putOff: 0, leftOut: 0 };
}

/** Why these decisions were made, as their needs were seen then; nothing for what was brought forward. */
export async function readCausesOf(tx: Tx, decisionIds: readonly number[]): Promise<Map<number, NeedCause[]>> {
  const rows = await tx.rowsOf<{ id: number; fingerprint: string }>(
    'SELECT id, fingerprint FROM decision WHERE id IN (?)',
    [...new Set(decisionIds)],
  );
  // What makes two sightings of a need the same begins with its quantity and its causes.
  return new Map(
    rows.map((r) => [r.id, needCauses.filter((c) => r.fingerprint.split('|')[1]?.split(',').includes(c))]),
  );
}
