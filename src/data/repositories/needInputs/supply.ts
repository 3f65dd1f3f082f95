import { addDays, arrivesIfOrdered, daysBetween, rollTo, slotAfter } from '@/core/calendar';
import { balancePeg, type PeggedDemand } from '@/core/netting';
import type { Flow } from '@/core/projection';
import type { Asking } from '../../asking';
import { HELD } from '../allocations';
import { DRAFTED, EXPECTED, LIVE } from '../orderStates';
import { among, type Ground, micro } from './ground';
import type { Context, Horizons } from './horizons';
import { askWaits, type WaitCells } from './waits';

/** Whose line it is: another place's, on a transfer, or a customer's, by what it takes of the item. */
export type PegOf = 'transfer_line' | 'customer_demand';
/** A line of either kind as one number. */
export const pegKey = (of: PegOf, line: number): number => 2 * line + (of === 'customer_demand' ? 1 : 0);
const PEG_KEY = "2 * n.peg + (n.peg_of = 'customer_demand')";

/** A line that another place or a customer asks for and that is bought for one to one. */
export type PegLine = PeggedDemand & {
  readonly of: PegOf;
  readonly line: number;
  readonly key: number;
  /** It goes from the supplier straight to the customer. */
  readonly straight: boolean;
  /** Of the unfilled rest of the line: what its own supply covers, and what nothing does. */
  readonly pegged: number;
  readonly rest: number;
  /** What was decided for it is not all there any more: an order was cut or cancelled. */
  readonly cut: boolean;
};

type PartCells = [
  itemId: number,
  locationId: number,
  draft: number,
  wanted: string | null,
  comes: string | null,
  open: number,
  decisionId: number | null,
  straight: number,
];
type TransferCells = [
  itemId: number,
  from: number,
  to: number,
  state: 'requested' | 'approved' | 'shipped',
  quantity: number,
  decisionId: number | null,
  lineId: number,
  held: number,
];
type TrayCells = [itemId: number, locationId: number, quantity: number, decisionId: number, straight: number];
/** line (a key) 0 = of the ordinary need of its pair; `ordered` = what a decision on a line put into a tray that it was not taken out of. */
type DecisionCells = [
  id: number,
  line: number,
  shortage: number,
  itemId: number,
  locationId: number,
  at: string,
  ordered: number,
  kind: 'accept' | 'put_off' | 'leave_out',
  until: string | null,
  waited: number,
];
type HandCells = [itemId: number, locationId: number, quantity: number];
type Cells = {
  readonly byHand: readonly HandCells[];
  readonly parts: readonly PartCells[];
  readonly transfers: readonly TransferCells[];
  readonly trays: readonly TrayCells[];
  readonly decisions: readonly DecisionCells[];
  readonly waits: readonly WaitCells[];
};

/** Open supply and what has been decided: parts of approved and sent orders are on the way (unless wanted after the horizon),
 *  drafts and tray lines are in trays, transfers on the way once approved and in trays while only asked for. What a decision
 *  itself brought is kept apart, to tell whether its need comes back. What is bought one to one for a line that another place
 *  or a customer asks for is in no position, nor is that line: both are returned by slot. What other customers wait for and nothing
 *  lies ready for is owed as far as it is to go out by the cover horizon, dated where a slot is looked at day by day; without a
 *  policy it raises a need by itself. To be counted once plans are there. */
export function askSupply(
  ask: Asking,
  only: readonly number[] | null,
): (g: Ground, context: Context, horizons: Horizons) => Promise<ReadonlyMap<number, readonly PegLine[]>> {
  const where = among(only);
  const parts = ask.arrays<PartCells>(
    `SELECT l.item_id, d.location_id, o.state IN ${DRAFTED}, d.wanted_date, ${EXPECTED},
            ${micro('d.base_quantity - d.received_quantity - d.cancelled_quantity')}, t.decision_id,
            d.customer_line_id IS NOT NULL
       FROM purchase_order o
       JOIN order_line l ON l.order_id = o.id AND l.kind = 'stock'
       JOIN delivery_part d ON d.order_line_id = l.id
       LEFT JOIN tray_line t ON t.id = d.tray_line_id
      WHERE o.state IN ${LIVE} AND d.location_id IS NOT NULL
        AND d.base_quantity > d.received_quantity + d.cancelled_quantity ${where('l.item_id', 'AND')}`,
  );
  const transfers = ask.arrays<TransferCells>(
    `SELECT l.item_id, t.from_location_id, t.to_location_id, t.state,
            ${micro("CASE t.state WHEN 'requested' THEN l.asked WHEN 'approved' THEN l.approved ELSE l.shipped - l.received - l.lost END")},
            l.decision_id, l.id, ${micro(HELD)}
       FROM transfer t JOIN transfer_line l ON l.transfer_id = t.id LEFT JOIN allocation a ON a.id = l.allocation_id
      WHERE t.state IN ('requested', 'approved', 'shipped') ${where('l.item_id', 'AND')}`,
  );
  const trays = ask.arrays<TrayCells>(
    `SELECT item_id, location_id, ${micro('base_quantity')}, decision_id, customer_line_id IS NOT NULL FROM tray_line
      WHERE state = 'in_tray' ${where('item_id', 'AND')}`,
  );
  // The last decision of an ordinary need; every one of a line that is bought for one to one.
  const decisions = ask.arrays<DecisionCells>(
    `SELECT d.id, ${PEG_KEY}, ${micro('d.shortage')}, n.item_id, n.location_id, d.decided_at, ${micro('COALESCE(t.base_quantity, 0)')},
            d.kind, d.until, ${micro('d.waited')}
       FROM need n JOIN decision d ON d.need_id = n.id AND (n.peg > 0 OR d.id = n.last_decision_id)
       LEFT JOIN tray_line t ON n.peg > 0 AND t.decision_id = d.id AND t.state <> 'taken_back'
      WHERE (d.kind = 'accept' OR (n.peg = 0 AND d.kind IN ('put_off', 'leave_out'))) ${where('n.item_id', 'AND')}`,
  );
  const byHand = ask.arrays<HandCells>(
    `SELECT item_id, location_id, ${micro('quantity')} FROM hand_need ${where('item_id', 'WHERE')}`,
  );
  const waits = askWaits(ask, only);
  return async (g, context, horizons) =>
    countSupply(g, context, horizons, {
      parts: await parts(),
      transfers: await transfers(),
      trays: await trays(),
      decisions: await decisions(),
      byHand: await byHand(),
      waits: await waits(),
    });
}

/** Something expected at a slot: how it counts once nothing of it is promised one to one. */
type Expected = {
  readonly at: number;
  readonly open: number;
  readonly into: 'onTheWay' | 'inTrays';
  /** On which day; null = when an order of today would come. */
  readonly comes: string | null;
  /** When it is wanted; only what is wanted by the horizon counts. */
  readonly wanted: string | null;
  readonly decision: number | null;
  /** It goes straight to a customer: it is no supply of this place. */
  readonly straight?: boolean;
};

function countSupply(
  g: Ground,
  context: Context,
  horizons: Horizons,
  cells: Cells,
): ReadonlyMap<number, readonly PegLine[]> {
  const { arrays, slot } = g;
  const ordinary = cells.decisions.filter(([, line]) => line === 0);
  setBeside(g, context, ordinary, cells.byHand);
  const count = counter(
    g,
    context,
    horizons,
    ordinary.filter(([, , , , , , , kind]) => kind === 'accept'),
  );
  const add = (array: Float64Array, at: number, q: number) => {
    array[at] = (array[at] as number) + q;
  };
  const pegged = cells.decisions.filter(([, line]) => line > 0);
  const lineOf = new Map(pegged.map(([decision, line]) => [decision, line]));
  const decided = new Map<number, number>();
  for (const [, line, , , , , q] of pegged) decided.set(line, (decided.get(line) ?? 0) + q);
  const bought = new Map<number, Expected[]>();
  const countHere = (e: Expected) => {
    if (e.straight !== true) count(e);
  };
  const expect = (e: Expected) => {
    const line = e.decision === null ? undefined : lineOf.get(e.decision);
    if (line === undefined) countHere(e);
    else bought.set(line, [...(bought.get(line) ?? []), e]);
  };
  for (const [item, location, draft, wanted, comes, open, decision, straight] of cells.parts) {
    const at = slot(item, location);
    const into = draft === 1 ? 'inTrays' : 'onTheWay';
    expect({ at, open, into, comes, wanted, decision, straight: straight === 1 });
  }
  for (const [item, , to, state, open, decision] of cells.transfers) {
    if (open <= 0) continue;
    const into = state === 'requested' ? 'inTrays' : 'onTheWay';
    expect({ at: slot(item, to), open, into, comes: null, wanted: null, decision });
  }
  for (const [item, location, open, decision, straight] of cells.trays) {
    const at = slot(item, location);
    expect({ at, open, into: 'inTrays', comes: null, wanted: null, decision, straight: straight === 1 });
  }

  const found = new Map<number, PegLine[]>();
  const perDemand = (at: number) =>
    g.refilled[Math.floor(at / g.width)] === 1 &&
    g.closed[at % g.width] === false &&
    context.plans.policy(at).kind === 'per_demand';
  type Asked = { readonly at: number; readonly asked: number; readonly held: number } & Pick<
    PegLine,
    'of' | 'line' | 'straight'
  > & {
      /** Bought for one to one, not only what was bought so before. */
      readonly oneToOne: boolean;
    };
  /** Pegs a line; `ordinary`: where what nothing was bought for one to one counts. */
  const peg = (
    { at, asked, held, of, line, straight, oneToOne: asksForIt }: Asked,
    ordinary: (quantity: number) => void,
  ) => {
    const key = pegKey(of, line);
    // In the order in which it was decided, however the rows came: which of it is promised must not depend on that.
    const own = (bought.get(key) ?? []).sort((a, b) => (a.decision ?? 0) - (b.decision ?? 0));
    const supply = own.reduce((a, e) => a + e.open, 0);
    const demand = { asked, held, supply };
    const balance = balancePeg(demand);
    // What its own supply goes beyond the line is for everybody.
    let left = balance.pegged;
    for (const e of own) {
      const promised = Math.min(left, e.open);
      left -= promised;
      if (e.open > promised) countHere({ ...e, open: e.open - promised });
    }
    bought.delete(key);
    const oneToOne = straight || asksForIt;
    if (!oneToOne) ordinary(balance.rest);
    if (!oneToOne && supply === 0) return;
    const sender = straight ? 0 : (arrays.suppliedBy[at] as number);
    const open = oneToOne ? balance.rest : 0;
    if (sender > 0) add(arrays.asked, at - (at % g.width) + sender - 1, open);
    const cut = held + supply < Math.min(asked, decided.get(key) ?? 0);
    const own1: PegLine = { ...demand, of, line, key, straight, pegged: balance.pegged, rest: open, cut };
    found.set(at, [...(found.get(at) ?? []), own1]);
  };
  for (const [item, from, , state, asked, , line, held] of cells.transfers) {
    if (state !== 'requested' || asked <= 0) continue;
    const at = slot(item, from);
    // What is only asked for is demand where it is asked for, like a suggestion that nobody has decided.
    peg({ at, asked, held, of: 'transfer_line', line, straight: false, oneToOne: perDemand(at) }, (q) =>
      add(arrays.asked, at, q),
    );
  }
  const owe = ower(g, context, horizons);
  for (const [item, location, shipBy, asked, held, line, straight, plain] of cells.waits) {
    const at = slot(item, location);
    const asking = { at, asked, held, of: 'customer_demand' as const, line };
    peg({ ...asking, straight: straight === 1, oneToOne: plain === 1 && perDemand(at) }, (q) => owe(at, shipBy, q));
  }
  // Bought for a line that nobody asks for any more.
  for (const own of bought.values()) for (const e of own) countHere(e);
  return found;
}

/** Counts what customers wait for and nothing was bought one to one for. */
function ower(
  { arrays, today }: Ground,
  { plans }: Context,
  horizons: Horizons,
): (at: number, shipBy: string, quantity: number) => void {
  return (at, shipBy, quantity) => {
    if (quantity === 0) return;
    const dated = arrays.dated.get(at);
    if (dated) {
      dated.orders.push({ day: Math.max(0, daysBetween(today, shipBy)), quantity });
      return;
    }
    if (!horizons.counts(at, shipBy)) return;
    arrays.backordered[at] = (arrays.backordered[at] as number) + quantity;
    arrays.owed[at] = (arrays.owed[at] as number) + quantity;
    if (arrays.rule[at] === 0 && plans.buysForThoseWhoWait(at)) arrays.rule[at] = 3;
  };
}

/** What was decided last and what is asked for by hand, beside the policies. What is put off, or left out for a time, comes back
 *  on its day. */
function setBeside(
  { arrays, today, slot }: Ground,
  { due }: Context,
  decisions: readonly DecisionCells[],
  byHand: readonly HandCells[],
): void {
  for (const [, , shortage, item, location, , , kind, until, waited] of decisions) {
    const at = slot(item, location);
    const stays = kind !== 'accept' && (until === null || until > today);
    if (stays && until !== null) due(at, until);
    arrays.beside.set(at, { byHand: 0, aside: stays ? shortage : -1, waited });
  }
  for (const [item, location, quantity] of byHand) {
    const at = slot(item, location);
    arrays.beside.set(at, { ...(arrays.beside.get(at) ?? { aside: -1, waited: 0 }), byHand: quantity });
  }
}

/** Puts what is expected into the arrays. */
function counter(
  g: Ground,
  context: Context,
  horizons: Horizons,
  decisions: readonly DecisionCells[],
): (e: Expected) => void {
  const { arrays, today, slot } = g;
  const { plans, due, beginsAt } = context;
  // What is dated of slots that are looked at day by day. Supply that is here before a new order could be counts at once:
  // a shortage before that day is nothing an order could mend.
  const flows = new Map<number, { receipts: Flow[]; arrival: number }>();
  for (const [at, plan] of plans.dated) {
    const calendar = plans.calendar(at);
    const arrival = calendar ? daysBetween(today, arrivesIfOrdered(calendar, today)) : 0;
    const horizon = horizons.of(at);
    const receipts: Flow[] = [];
    flows.set(at, { receipts, arrival });
    arrays.dated.set(at, {
      plan,
      receipts,
      orders: [],
      horizonDay: horizon === null ? 30 : Math.max(0, daysBetween(today, horizon)),
    });
    // Every day may be the first that falls below.
    due(at, addDays(today, 1));
  }
  const lastDecisions = new Map(decisions.map(([id, , shortage]) => [id, shortage]));
  const decidedAt = new Map(decisions.map(([, , , item, location, when]) => [slot(item, location), when]));
  for (const at of plans.periodic) {
    const calendar = plans.calendar(at);
    if (!calendar) continue;
    const opened = rollTo(calendar.slots, today, 'backward');
    due(at, slotAfter(calendar, today));
    const when = decidedAt.get(at);
    if (when === undefined) continue;
    if (Date.parse(`${when.replace(' ', 'T')}Z`) >= beginsAt(opened)) arrays.decidedInWindow[at] = 1;
  }
  return ({ at, open, into, comes, wanted, decision }) => {
    const dated = flows.get(at);
    if (dated) {
      const day = comes === null ? dated.arrival : daysBetween(today, comes);
      dated.receipts.push({ day: day <= dated.arrival ? 0 : day, quantity: open });
    }
    if (!horizons.counts(at, wanted)) return;
    arrays[into][at] = (arrays[into][at] as number) + open;
    const shortage = decision === null ? undefined : lastDecisions.get(decision);
    if (shortage === undefined) return;
    arrays.decidedShortage[at] = shortage;
    arrays.decidedOpen[at] = (arrays.decidedOpen[at] as number) + open;
  };
}
