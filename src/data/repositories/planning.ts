import type { Asking } from '../asking';
import { atLocations, insertStatements, list, type SqlValue, type Statement, type Tx } from '../sql';
import { type Pair, THESE, theseOf } from './levels';
import type { PegOf } from './needInputs';

export type StateRow = Pair & {
  readonly onHand: string;
  readonly blocked: string;
  readonly onTheWay: string;
  readonly inTrays: string;
  readonly owed: string;
  /** Of what is owed, what customers wait for and nothing lies ready for. */
  readonly backordered: string;
  /** Asked for by other places and suggested to those supplied from here. */
  readonly planned: string;
  /** Coming one to one for lines that other places ask for; in no position. */
  readonly pegged: string;
  readonly position: string;
  /** The level that raises a need, and the one above which there is too much; null where the policy has none. */
  readonly level: string | null;
  readonly max: string | null;
  readonly shortage: string;
  readonly suggested: string;
  /** Days that the stock lasts at its use per day, one decimal; null without use. */
  readonly coverDays: string | null;
  /** Beyond the maximum and a pack. */
  readonly excess: string;
  /** 1 = what lies there unpromised has come to the level. */
  readonly belowMin: number;
  readonly sourceId: number | null;
  /** The place that sends it here; null = bought. */
  readonly supplyLocationId: number | null;
  readonly needState: 'none' | 'open' | 'decided' | 'aside';
  /** When time alone changes this, UTC; null = never. */
  readonly nextDueAt: string | null;
  readonly fingerprint: number;
};

/** A state with the plan it was computed by (SlotPlan as JSON), null where the pair can't be run by itself. */
export type PlannedState = StateRow & { readonly plan: string | null };

const stateColumns = [
  'on_hand',
  'blocked',
  'on_the_way',
  'in_trays',
  'owed',
  'backordered',
  'planned',
  'pegged',
  'position_quantity',
  'level_quantity',
  'max_quantity',
  'shortage',
  'suggested',
  'cover_days',
  'excess',
  'below_min',
  'source_id',
  'supply_location_id',
  'need_state',
  'next_due_at',
  'fingerprint',
  'plan',
];

const cellsOf = (r: PlannedState): SqlValue[] => [
  ...[r.onHand, r.blocked, r.onTheWay, r.inTrays, r.owed, r.backordered, r.planned, r.pegged, r.position, r.level],
  ...[r.max, r.shortage, r.suggested, r.coverDays, r.excess, r.belowMin, r.sourceId, r.supplyLocationId],
  ...[r.needState, r.nextDueAt, r.fingerprint, r.plan],
];

/** A state that is there already, as it is now. */
export const stateUpdated = (r: PlannedState): Statement => ({
  sql: `UPDATE item_location_state SET ${stateColumns.map((c) => `${c} = ?`).join(', ')} WHERE item_id = ? AND location_id = ?`,
  values: [...cellsOf(r), r.itemId, r.locationId],
});

/** States as they are now. */
export const statesPut = (rows: readonly PlannedState[]): Statement[] =>
  insertStatements(
    `INSERT INTO item_location_state (item_id, location_id, ${stateColumns.join(', ')})`,
    rows.map((r) => [r.itemId, r.locationId, ...cellsOf(r)]),
    `ON DUPLICATE KEY UPDATE ${stateColumns.map((c) => `${c} = VALUES(${c})`).join(', ')}`,
  );

export async function readStates(
  tx: Tx,
  itemIds: readonly number[],
  locationIds: readonly number[] | null = null,
): Promise<StateRow[]> {
  const ids = list('id', itemIds);
  if (!ids) return [];
  const at = atLocations('s.location_id', locationIds);
  return tx.rows<StateRow>(
    `SELECT ${readColumns} FROM item_location_state s WHERE s.item_id IN (${ids.sql}) ${at.sql}`,
    { ...ids.values, ...at.values },
  );
}

const readColumns = `s.item_id AS itemId, s.location_id AS locationId, s.on_hand AS onHand, s.blocked, s.on_the_way AS onTheWay,
            s.in_trays AS inTrays, s.owed, s.backordered, s.planned, s.pegged, s.position_quantity AS position, s.level_quantity AS level,
            s.max_quantity AS max, s.shortage, s.suggested, s.cover_days AS coverDays, s.excess, s.below_min AS belowMin,
            s.source_id AS sourceId, s.supply_location_id AS supplyLocationId, s.need_state AS needState, s.next_due_at AS nextDueAt,
            s.fingerprint`;

/** States of these pairs alone. */
export const readStatesAt = async (tx: Tx, pairs: readonly Pair[]): Promise<StateRow[]> =>
  pairs.length === 0
    ? []
    : tx.rowsOf<StateRow>(
        `SELECT ${readColumns} FROM ${THESE} STRAIGHT_JOIN item_location_state s ON s.item_id = x.i AND s.location_id = x.l`,
        [theseOf(pairs)],
      );

/** Whose need it is: the ordinary demand of its pair (0), or one line, of a place or a customer, that is bought for one to one. */
export type Peg = { readonly pegOf: 'pair' | PegOf; readonly peg: number };

/** A need as a run finds it. */
export type FreshNeed = Pair &
  Peg & {
    readonly state: 'none' | 'open' | 'decided' | 'aside';
    readonly shortage: string;
    readonly suggested: string;
    readonly sourceId: number | null;
    readonly supplyLocationId: number | null;
    /** Its causes, parted by commas, in their fixed order. */
    readonly cause: string;
  };

export type NeedRow = FreshNeed & {
  readonly id: number;
  readonly fingerprint: string;
  readonly lastDecisionId: number | null;
  readonly firstSeen: string;
};

const needColumns = `id, item_id AS itemId, location_id AS locationId, peg_of AS pegOf, peg, state, shortage, suggested, source_id AS sourceId,
                     supply_location_id AS supplyLocationId, cause, fingerprint, last_decision_id AS lastDecisionId, first_seen AS firstSeen`;

/** Ids of the needs of these pairs, ordinary and pegged. */
export async function findNeedIds(tx: Tx, pairs: readonly Pair[]): Promise<number[]> {
  const items = list('id', [...new Set(pairs.map((p) => p.itemId))]);
  if (!items) return [];
  const wanted = new Set(pairs.map((p) => `${p.itemId}/${p.locationId}`));
  const found = await tx.rows<Pair & { id: number }>(
    `SELECT id, item_id AS itemId, location_id AS locationId FROM need WHERE item_id IN (${items.sql})`,
    items.values,
  );
  return found.filter((f) => wanted.has(`${f.itemId}/${f.locationId}`)).map((f) => f.id);
}

/** Open needs of these pairs: of their ordinary demand, and of customers' lines that are bought for one to one. */
export async function readOpenNeedsAt(tx: Tx, pairs: readonly Pair[]): Promise<(Pair & Peg & { id: number })[]> {
  const items = list('id', [...new Set(pairs.map((p) => p.itemId))]);
  if (!items) return [];
  const wanted = new Set(pairs.map((p) => `${p.itemId}/${p.locationId}`));
  const found = await tx.rows<Pair & Peg & { id: number }>(
    `SELECT id, item_id AS itemId, location_id AS locationId, peg_of AS pegOf, peg FROM need
      WHERE item_id IN (${items.sql}) AND state = 'open' AND peg_of <> 'transfer_line'`,
    items.values,
  );
  return found.filter((f) => wanted.has(`${f.itemId}/${f.locationId}`));
}

/** These needs, locked in id order when it is answered. */
export const askNeedsLocked = (ask: Asking, ids: readonly number[]): (() => Promise<NeedRow[]>) =>
  ids.length === 0
    ? async () => []
    : ask.rows<NeedRow>(
        `SELECT ${needColumns} FROM need FORCE INDEX (PRIMARY) WHERE id IN (?) ORDER BY id FOR UPDATE`,
        [ids],
      );

/** The need that a decision was made on, locked. */
export async function lockNeedOfDecision(tx: Tx, decisionId: number): Promise<NeedRow | null> {
  const made = await tx.row<{ needId: number }>('SELECT need_id AS needId FROM decision WHERE id = :decisionId', {
    decisionId,
  });
  return made && lockNeed(tx, made.needId);
}

/** What of a customer's line these decisions bought for one to one, by decision. */
export async function readDemandsOfDecisions(tx: Tx, decisionIds: readonly number[]): Promise<Map<number, number>> {
  const rows = await tx.rowsOf<{ id: number; peg: number }>(
    `SELECT d.id, n.peg FROM decision d JOIN need n ON n.id = d.need_id AND n.peg_of = 'customer_demand' WHERE d.id IN (?)`,
    decisionIds,
  );
  return new Map(rows.map((r) => [r.id, r.peg]));
}

export const lockNeed = (tx: Tx, id: number) =>
  tx.row<NeedRow>(`SELECT ${needColumns} FROM need WHERE id = :id FOR UPDATE`, { id });

export type OpenNeed = Pick<
  NeedRow,
  'id' | 'itemId' | 'locationId' | 'suggested' | 'sourceId' | 'supplyLocationId' | 'cause' | 'fingerprint' | 'firstSeen'
> & {
  readonly supplierId: number | null;
  readonly supplier: string | null;
  /** The place that sends it. */
  readonly sender: string | null;
  readonly itemNumber: string;
  readonly itemName: string;
  readonly itemStatus: 'active' | 'phase_out' | 'stopped';
  readonly categoryId: number;
  readonly location: string;
  readonly placeRank: number;
};

/** Open needs in the order of the list: by supplier, then by the place that sends, those with neither last; then by item and
 *  place. */
export function readOpenNeeds(tx: Tx, locationIds: readonly number[] | null): Promise<OpenNeed[]> {
  const at = atLocations('n.location_id', locationIds);
  return tx.rows<OpenNeed>(
    `SELECT n.id, n.item_id AS itemId, n.location_id AS locationId, n.suggested, n.source_id AS sourceId,
            n.supply_location_id AS supplyLocationId, n.cause, n.fingerprint, n.first_seen AS firstSeen, s.id AS supplierId,
            s.name AS supplier, p.name AS sender, i.number AS itemNumber, i.name AS itemName, i.status AS itemStatus,
            i.category_id AS categoryId, l.name AS location, l.sort_order AS placeRank
       FROM need n JOIN item i ON i.id = n.item_id JOIN location l ON l.id = n.location_id
       LEFT JOIN source f ON f.id = n.source_id LEFT JOIN supplier s ON s.id = f.supplier_id
       LEFT JOIN location p ON p.id = n.supply_location_id
      WHERE n.state = 'open' ${at.sql}
      ORDER BY s.id IS NULL AND p.id IS NULL, s.id IS NULL, p.sort_order, p.id, s.name, s.id, i.name, i.id, l.sort_order, l.id, n.peg`,
    at.values,
  );
}

export const readNeedsByIds = (tx: Tx, needIds: readonly number[]): Promise<NeedRow[]> =>
  tx.rowsOf<NeedRow>(`SELECT ${needColumns} FROM need WHERE id IN (?)`, needIds);

export const findNeed = (tx: Tx, id: number) =>
  tx.row<NeedRow>(`SELECT ${needColumns} FROM need WHERE id = :id`, { id });

export type NeedChange = FreshNeed & {
  readonly fingerprint: string;
  readonly firstSeen: string;
  readonly at: string;
};

/** Needs as they are now. */
export const needsPut = (rows: readonly NeedChange[]): Statement[] =>
  insertStatements(
    `INSERT INTO need (item_id, location_id, peg_of, peg, state, cause, shortage, suggested, source_id, supply_location_id,
       fingerprint, first_seen, changed_at)`,
    rows.map((r) => [
      r.itemId,
      r.locationId,
      r.pegOf,
      r.peg,
      r.state,
      r.cause,
      r.shortage,
      r.suggested,
      r.sourceId,
      r.supplyLocationId,
      r.fingerprint,
      r.firstSeen,
      r.at,
    ]),
    `ON DUPLICATE KEY UPDATE state = VALUES(state), cause = VALUES(cause), shortage = VALUES(shortage),
       suggested = VALUES(suggested), source_id = VALUES(source_id), supply_location_id = VALUES(supply_location_id),
       fingerprint = VALUES(fingerprint),
       first_seen = VALUES(first_seen), changed_at = VALUES(changed_at)`,
  );

export type DecidedNeed = Pick<NeedChange, 'state' | 'fingerprint' | 'at'> & {
  readonly id: number;
  readonly decisionId: number | null;
  /** What else is different of it already; left out = it is recomputed. */
  readonly found?: Pick<NeedChange, 'cause' | 'shortage' | 'suggested'> | undefined;
};

/** A need as it was decided. */
export const needDecided = ({ id, state, decisionId, fingerprint, at, found }: DecidedNeed): Statement => ({
  sql: `UPDATE need SET state = ?, last_decision_id = ?, fingerprint = ?, changed_at = ?
        ${found ? ', cause = ?, shortage = ?, suggested = ?' : ''} WHERE id = ?`,
  values: [
    ...[state, decisionId, fingerprint, at],
    ...(found ? [found.cause, found.shortage, found.suggested] : []),
    id,
  ],
});

export type DecisionInsert = {
  needId: number;
  kind: 'accept' | 'take_back' | 'put_off' | 'leave_out';
  fingerprint: string;
  shortage: string;
  sourceId: SqlValue;
  packId: SqlValue;
  packQuantity: string;
  baseQuantity: string;
  reckoning: string;
  userId: number;
  at: string;
  /** The last decision of the need until now. */
  previousId: number | null;
  /** What customers waited for; what was asked for by hand of it. */
  waited?: string;
  byHand?: string;
  until?: string | null;
  reason?: string;
};

export const decisionPut = (d: DecisionInsert): Statement => ({
  sql: `INSERT INTO decision (need_id, kind, fingerprint, shortage, source_id, pack_id, pack_quantity, base_quantity, reckoning,
                              user_id, decided_at, waited, by_hand, until, reason, previous_id)
        VALUES (?)`,
  values: [
    [
      ...[d.needId, d.kind, d.fingerprint, d.shortage, d.sourceId, d.packId, d.packQuantity, d.baseQuantity],
      ...[d.reckoning, d.userId, d.at, d.waited ?? '0', d.byHand ?? '0', d.until ?? null, d.reason ?? '', d.previousId],
    ],
  ],
});

export const insertDecision = async (tx: Tx, d: DecisionInsert): Promise<number> =>
  (await tx.tell([decisionPut(d)]))[0] as number;

/** These needs, locked in id order. */
export async function lockNeeds(tx: Tx, needIds: readonly number[]): Promise<NeedRow[]> {
  const ids = list('id', needIds);
  return ids
    ? tx.rows<NeedRow>(
        `SELECT ${needColumns} FROM need FORCE INDEX (PRIMARY) WHERE id IN (${ids.sql}) ORDER BY id FOR UPDATE`,
        ids.values,
      )
    : [];
}

/** What a decision took up of what was asked for by hand, as decimal text. */
export const readByHand = async (tx: Tx, decisionId: number): Promise<string> =>
  (await tx.row<{ byHand: string }>('SELECT by_hand AS byHand FROM decision WHERE id = :decisionId', { decisionId }))
    ?.byHand ?? '0';

/** Pairs of these whose position, drafts and trays included, is beyond their maximum, and by how much. */
export const readBeyondMaximum = (tx: Tx, pairs: readonly { readonly itemId: number; readonly locationId: number }[]) =>
  tx.rowsOf<{ itemId: number; locationId: number; over: string }>(
    `SELECT item_id AS itemId, location_id AS locationId, position_quantity - max_quantity AS \`over\` FROM item_location_state
      WHERE (item_id, location_id) IN (?) AND max_quantity IS NOT NULL AND position_quantity > max_quantity`,
    pairs.map((p) => [p.itemId, p.locationId]) as never,
  );

/** The decision that was the last of a need when one was made on it; null where there was none. */
export const findDecisionBefore = async (tx: Tx, decisionId: number): Promise<number | null> =>
  (
    await tx.row<{ id: number | null }>('SELECT previous_id AS id FROM decision WHERE id = :decisionId', {
      decisionId,
    })
  )?.id ?? null;

/** Who decided a need last, when and how. */
export const readLastDecision = (tx: Tx, needId: number) =>
  tx.row<{ who: string; at: string; kind: string; packQuantity: string; supplier: string | null }>(
    `SELECT u.name AS who, d.decided_at AS at, d.kind, d.pack_quantity AS packQuantity, s.name AS supplier
       FROM decision d JOIN app_user u ON u.id = d.user_id
       LEFT JOIN source q ON q.id = d.source_id LEFT JOIN supplier s ON s.id = q.supplier_id
      WHERE d.need_id = :needId ORDER BY d.id DESC LIMIT 1`,
    { needId },
  );
