import { type Fraction, fraction } from '@/core/units';
import type { Asking } from '../asking';
import type { Pair } from './levels';
import { THESE, theseOf } from './levels';
import { micro } from './needInputs/ground';
import type { StateRow } from './planning';

/** A state of which only the stock has moved since: with the plan it was computed by, and the stock as it is now (millionths). */
export type MovedState = Pick<
  StateRow,
  'itemId' | 'locationId' | 'suggested' | 'sourceId' | 'supplyLocationId' | 'needState' | 'nextDueAt' | 'fingerprint'
> & {
  readonly plan: string;
  readonly onHand: number;
  readonly blocked: number;
  readonly allocated: number;
};

/** Those of these pairs that are marked for nothing but moved stock, can be run by themselves, and are not changed by time
 *  alone by now. To be asked behind the locks on their marks. */
export const askMovedStates = (ask: Asking, pairs: readonly Pair[], now: string): (() => Promise<MovedState[]>) =>
  ask.rows<MovedState>(
    `SELECT s.item_id AS itemId, s.location_id AS locationId, s.plan, s.suggested, s.source_id AS sourceId,
            s.supply_location_id AS supplyLocationId, s.need_state AS needState, s.next_due_at AS nextDueAt, s.fingerprint,
            ${micro('v.on_hand')} AS onHand, ${micro('v.blocked')} AS blocked, ${micro('v.allocated')} AS allocated
       FROM ${THESE} STRAIGHT_JOIN dirty_pair d FORCE INDEX (PRIMARY) ON d.item_id = x.i AND d.location_id = x.l
       STRAIGHT_JOIN item_location_state s ON s.item_id = d.item_id AND s.location_id = d.location_id
       STRAIGHT_JOIN level v ON v.item_id = d.item_id AND v.location_id = d.location_id
      WHERE d.what = 'stock' AND s.plan IS NOT NULL AND (s.next_due_at IS NULL OR s.next_due_at > ?)`,
    [theseOf(pairs), now],
  );

/** The state that an ordinary need stands on, as a run would find it: the plan it was computed by, its stock in millionths, and how
 *  it is bought where the need says so. */
export type KeptState = Pick<
  StateRow,
  | 'itemId'
  | 'locationId'
  | 'onHand'
  | 'blocked'
  | 'onTheWay'
  | 'inTrays'
  | 'owed'
  | 'planned'
  | 'backordered'
  | 'sourceId'
  | 'supplyLocationId'
  | 'nextDueAt'
> & {
  readonly plan: string;
  readonly stock: { readonly onHand: number; readonly blocked: number; readonly promised: number };
  /** Null without a supplier, and where its pack is made of another. */
  readonly bought: {
    readonly sourceId: number;
    readonly supplierId: number;
    readonly supplierName: string;
    readonly packId: number | null;
    readonly content: Fraction;
  } | null;
};
type KeptCells = Omit<KeptState, 'stock' | 'bought'> & {
  lies: number;
  barred: number;
  promised: number;
  supplierId: number | null;
  supplierName: string;
  packId: number | null;
  num: number | null;
  den: number | null;
  of: number | null;
};

/** Of these needs the ordinary ones whose pair nobody has marked, that can be run by itself, and that is not changed by time alone by
 *  now. */
export function askKeptStates(ask: Asking, needIds: readonly number[], now: string): () => Promise<KeptState[]> {
  if (needIds.length === 0) return async () => [];
  const rows = ask.rows<KeptCells>(
    `SELECT s.item_id AS itemId, s.location_id AS locationId, s.on_hand AS onHand, s.blocked, s.on_the_way AS onTheWay,
            s.in_trays AS inTrays, s.owed, s.planned, s.backordered, s.source_id AS sourceId,
            s.supply_location_id AS supplyLocationId, s.next_due_at AS nextDueAt, s.plan, ${micro('COALESCE(v.on_hand, 0)')} AS lies,
            ${micro('COALESCE(v.blocked, 0)')} AS barred, ${micro('COALESCE(v.allocated, 0)')} AS promised,
            q.supplier_id AS supplierId, p.name AS supplierName, q.pack_id AS packId, k.count_num AS num, k.count_den AS den,
            k.of_pack_id AS \`of\`
       FROM need n STRAIGHT_JOIN item_location_state s ON s.item_id = n.item_id AND s.location_id = n.location_id
       LEFT JOIN level v ON v.item_id = n.item_id AND v.location_id = n.location_id
       LEFT JOIN dirty_pair d ON d.item_id = n.item_id AND d.location_id = n.location_id
       LEFT JOIN source q ON q.id = s.source_id LEFT JOIN supplier p ON p.id = q.supplier_id
       LEFT JOIN pack k ON k.id = q.pack_id
      WHERE n.id IN (?) AND n.peg_of = 'pair' AND s.plan IS NOT NULL AND d.item_id IS NULL
        AND (s.next_due_at IS NULL OR s.next_due_at > ?)`,
    [needIds, now],
  );
  return async () =>
    (await rows()).map(({ lies, barred, promised, supplierId, supplierName, packId, num, den, of, ...state }) => ({
      ...state,
      stock: { onHand: lies, blocked: barred, promised },
      bought:
        supplierId === null || state.sourceId === null || of !== null
          ? null
          : {
              ...{ sourceId: state.sourceId, supplierId, supplierName, packId },
              content: num === null || den === null ? fraction(1n) : fraction(num, den),
            },
    }));
}
