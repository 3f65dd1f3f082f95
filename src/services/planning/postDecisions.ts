import {
  byHandOfPlan,
  planWithAccepted,
  type Reckoning,
  reckoningOfPlan,
  ruleOfPlan,
  type SlotPlan,
} from '@/core/netting';
import { baseQuantity } from '@/core/packs';
import type { Actor } from '@/core/people';
import { fromDecimal, type Quantity, toDecimal } from '@/core/quantity';
import { err, ok, type Result } from '@/core/result';
import { fraction } from '@/core/units';
import { Asking } from '@/data/asking';
import { type Change, changesRecorded } from '@/data/repositories/bookkeeping';
import { type ItemRow, readItemsByIds, readPacks } from '@/data/repositories/catalogue';
import { readCompany, readLocations } from '@/data/repositories/company';
import { readCustomerOfDemands } from '@/data/repositories/customerOrders';
import { takeHandNeed } from '@/data/repositories/handNeeds';
import { markDirty } from '@/data/repositories/marks';
import { askKeptStates, type KeptState } from '@/data/repositories/movedStates';
import {
  insertDecision,
  type NeedRow,
  needDecided,
  readStatesAt,
  type StateRow,
  stateUpdated,
} from '@/data/repositories/planning';
import { readReserves } from '@/data/repositories/reserves';
import { insertTransfer, insertTransferLines, lockOpenTransfer } from '@/data/repositories/transfers';
import { insertDecisionInTray } from '@/data/repositories/trays';
import type { Statement, Tx } from '@/data/sql';
import { type BuyingBook, readBuying } from '../catalogue/buying';
import { type Deps, todayOf } from '../deps';
import { type Failure, invalidField } from '../failure';
import { pairKey, pairMap } from '../grouping';
import { reserve } from '../stock/reserve';
import { nextTransferNumber } from '../stock/transferNumber';
import type { Decided } from '../undo/recordUndo';
import { changedNeeds, fingerprintOf, ordinaryNeed } from './freshNeeds';
import { stateOnPlan } from './freshStates';
import { sendingPack } from './needViews';
import { type PairPlans, partsOf, readPairPlans, reckoningOf } from './pairPlans';

/** A supplier, or a place, other than the need says. */
export type Way = { readonly sourceId: number } | { readonly locationId: number };
/** In the pack of whoever supplies it; of a place chosen besides in base units. */
export type Chosen = { readonly packs: Quantity; readonly way?: Way | undefined };

/** In the tray of a supplier; or, where another place supplies it, on a transfer from there. */
export type AcceptedPart = {
  readonly trayLineId: number | null;
  /** Who supplies it: the supplier, or the place. */
  readonly supplier: string;
  readonly transfer: { readonly id: number; readonly number: string } | null;
};

/** What decisions on needs are made from, read once for all of them. */
export type DecisionGround = {
  readonly tx: Tx;
  readonly actor: Actor;
  readonly now: string;
  /** How the items of these needs are bought. */
  readonly book: () => Promise<BuyingBook>;
  /** States that stand as a run would find them, by pair, each with its plan: a need of theirs is reckoned from that alone. Gone once
   *  something was decided there. */
  readonly kept: Map<string, KeptState>;
  /** What the needs of other pairs are reckoned from, and those that are bought one to one: all that a need depends on. */
  readonly plans: () => Promise<PairPlans>;
  readonly states: () => Promise<ReadonlyMap<string, StateRow>>;
  /** What sending from another place is decided by. */
  readonly sending: () => Promise<Sending>;
};
type Sending = {
  readonly today: string;
  readonly items: ReadonlyMap<number, ItemRow>;
  readonly places: ReadonlyMap<number, { readonly name: string; readonly closed: number }>;
};

export async function decisionGround(
  deps: Deps,
  tx: Tx,
  actor: Actor,
  now: string,
  needs: readonly NeedRow[],
  /** The states they stand on, where those were asked for already, behind the locks on the needs. */
  readKept: () => Promise<KeptState[]> = askKeptStates(
    new Asking(tx, 'together'),
    needs.map((n) => n.id),
    now,
  ),
): Promise<DecisionGround> {
  const itemIds = [...new Set(needs.map((n) => n.itemId))];
  const kept = pairMap(await readKept());
  const others = needs.filter((n) => n.pegOf !== 'pair' || !kept.has(pairKey(n.itemId, n.locationId)));
  const today = once(async () => todayOf(deps, await readCompany(tx)));
  return {
    ...{ tx, actor, now, kept },
    book: once(() => readBuying(tx, itemIds)),
    plans: once(async () =>
      readPairPlans(
        tx,
        others.map((n) => n.itemId),
        await today(),
      ),
    ),
    states: once(async () => pairMap(await readStatesAt(tx, others))),
    sending: once(async () => ({
      today: await today(),
      items: await readItemsByIds(tx, itemIds),
      places: new Map((await readLocations(tx)).map((l) => [l.id, l])),
    })),
  };
}

/** Reads when it is first asked for, and no more. */
function once<T>(read: () => Promise<T>): () => Promise<T> {
  let had: Promise<T> | null = null;
  return () => {
    had ??= read();
    return had;
  };
}

const keptOf = ({ kept }: DecisionGround, need: NeedRow) =>
  need.pegOf === 'pair' ? kept.get(pairKey(need.itemId, need.locationId)) : undefined;

/** The reckoning of a need as it is now, to be kept with a decision. */
export async function reckoningNow(g: DecisionGround, need: NeedRow): Promise<Reckoning | null> {
  const kept = keptOf(g, need);
  return kept
    ? reckoningOfPlan(JSON.parse(kept.plan) as SlotPlan, partsOf(kept))
    : reckoningOf(await g.plans(), await g.states(), need);
}

/** What customers wait for at a need's place, as decimal text: when more of them wait, what was decided comes back. */
export async function waitedOf(g: DecisionGround, need: NeedRow): Promise<string> {
  if (need.pegOf !== 'pair') return '0';
  const kept = keptOf(g, need);
  if (kept) return kept.backordered;
  return (await g.states()).get(pairKey(need.itemId, need.locationId))?.backordered ?? '0';
}

export type Accepted = { readonly parts: readonly AcceptedPart[]; readonly decided: readonly Decided[] };

/** Takes an open need, locked, as decided: each part goes into a supplier's tray, or onto the transfer from another place that is
 *  still being put together, where it is promised at once; each is a decision of its own that keeps the reckoning as it was.
 *  Later parts are decided on what earlier ones left. What was asked for by hand is taken up with the last.
 *  Errors: invalid_field packs, no_supplier, not_found, not_free (of what a place has). */
export async function postAccepted(
  g: DecisionGround,
  need: NeedRow,
  chosen: readonly Chosen[],
  /** Of a need that is not in the plans yet. */
  reckoned: Reckoning | null = null,
): Promise<Result<Accepted, Failure>> {
  const { tx, now } = g;
  const kept = keptOf(g, need);
  const plan = kept && (JSON.parse(kept.plan) as SlotPlan);
  const reckoning = JSON.stringify(reckoned ?? (await reckoningNow(g, need)));
  // A plan that stands says whether anything is asked for by hand.
  const mayBeByHand = need.pegOf === 'pair' && (!plan || byHandOfPlan(plan) > 0);
  const hand = mayBeByHand ? await takeHandNeed(tx, need) : '0';
  const waited = await waitedOf(g, need);
  const later: Statement[] = [];
  const parts: AcceptedPart[] = [];
  const decided: Decided[] = [];
  let short = fromDecimal(need.shortage);
  let all = 0;
  let last: { readonly decisionId: number; readonly base: Quantity; readonly shortage: Quantity } | null = null;
  for (const [i, { packs, way }] of chosen.entries()) {
    const from = way && 'locationId' in way ? way.locationId : way ? null : need.supplyLocationId;
    const head = {
      ...{ needId: need.id, kind: 'accept' as const, fingerprint: need.fingerprint, shortage: toDecimal(short) },
      ...{ reckoning, userId: g.actor.userId, at: now, waited, previousId: need.lastDecisionId },
      byHand: i === chosen.length - 1 ? hand : '0',
    };
    const sourceId = way && 'sourceId' in way ? way.sourceId : need.sourceId;
    const bought = from === null ? await boughtFrom(g, kept, sourceId ?? 0) : null;
    const posted: Result<Posted, Failure> =
      from !== null
        ? await sendIt(g, need, packs, { from, inPacks: way === undefined }, head)
        : bought
          ? await trayIt(g, need, packs, bought, head)
          : err({ kind: 'no_supplier' });
    if (!posted.ok) return posted;
    const { decisionId, base, part, undo, changes } = posted.value;
    later.push(...changesRecorded(g.actor.userId, now, changes));
    parts.push(part);
    decided.push(undo);
    last = { decisionId, base, shortage: short };
    short = Math.max(0, short - base);
    all += base;
  }
  if (last === null) return err(invalidField('packs', { kind: 'zero_quantity' }));
  const { decisionId } = last;
  const after = { ...need, state: 'decided' as const, lastDecisionId: decisionId };
  const asDecided = { id: need.id, state: after.state, decisionId, fingerprint: fingerprintOf(after), at: now };
  g.kept.delete(pairKey(need.itemId, need.locationId));
  const inTrays = decided.every((d) => d.kind === 'accepted') && need.supplyLocationId === null;
  const accepted = { ...last, last: last.base, all, waited: fromDecimal(waited) };
  const next = plan && inTrays ? planWithAccepted(plan, accepted) : null;
  if (kept && next) {
    // Nothing else has changed: what a run would find is worked out from the plan that is kept.
    const state = stateOnPlan({ ...kept, plan: JSON.stringify(next) }, kept.stock);
    const fresh = ordinaryNeed(state, ruleOfPlan(next), byHandOfPlan(next));
    const [found] = changedNeeds([fresh], [{ ...after, fingerprint: asDecided.fingerprint }], now);
    later.push(stateUpdated(state));
    later.push(
      needDecided(found ? { ...asDecided, state: found.state, fingerprint: found.fingerprint, found } : asDecided),
    );
  } else {
    later.push(needDecided(asDecided));
    markDirty(tx, [need]);
  }
  await tx.later(later);
  return ok({ parts, decided });
}

type Head = Pick<
  Parameters<typeof insertDecision>[1],
  'needId' | 'kind' | 'fingerprint' | 'shortage' | 'reckoning' | 'userId' | 'at' | 'waited' | 'byHand' | 'previousId'
>;
type Posted = {
  readonly decisionId: number;
  readonly base: Quantity;
  readonly part: AcceptedPart;
  readonly undo: Decided;
  /** What is to be noted of it. */
  readonly changes: readonly Change[];
};

const customerOf = async (tx: Tx, demandId: number) => (await readCustomerOfDemands(tx, [demandId])).get(demandId);

type Bought = NonNullable<KeptState['bought']>;
/** How it is bought from a source: as the state says, or as all its sources do. */
async function boughtFrom(g: DecisionGround, kept: KeptState | undefined, sourceId: number): Promise<Bought | null> {
  if (kept?.bought?.sourceId === sourceId) return kept.bought;
  const buying = (await g.book()).bySource.get(sourceId);
  if (!buying) return null;
  const { supplierId, supplierName, packId } = buying.source;
  return { sourceId, supplierId, supplierName, packId, content: buying.content };
}

/** Puts a part into the tray of its supplier. */
async function trayIt(
  { tx }: DecisionGround,
  need: NeedRow,
  packs: Quantity,
  { sourceId, supplierId, supplierName, packId, content }: Bought,
  head: Head,
): Promise<Result<Posted, Failure>> {
  const { id: needId, itemId, locationId, suggested } = need;
  const base = baseQuantity(packs, content);
  if (base === 0) return err(invalidField('packs', { kind: 'zero_quantity' }));
  const quantities = { packQuantity: toDecimal(packs), baseQuantity: toDecimal(base) };
  const customer = need.pegOf === 'customer_demand' ? await customerOf(tx, need.peg) : null;
  const { decisionId, trayLineId } = await insertDecisionInTray(
    tx,
    { ...head, sourceId, packId, ...quantities },
    {
      ...{ supplierId, itemId, locationId, sourceId, packId, ...quantities },
      customerLineId: customer?.straight === 1 ? customer.lineId : null,
    },
  );
  return ok({
    ...{ decisionId, base },
    changes: [{ entity: 'need', entityId: needId, action: 'accepted', before: { suggested }, after: quantities }],
    part: { trayLineId, supplier: supplierName, transfer: null },
    undo: { kind: 'accepted', needId, trayLineId },
  });
}

/** Puts a part onto the transfer from another place. */
async function sendIt(
  g: DecisionGround,
  need: NeedRow,
  packs: Quantity,
  /** `inPacks`: as the need says, in packs for sending; a place that was chosen sends single units. */
  { from, inPacks }: { readonly from: number; readonly inPacks: boolean },
  head: Head,
): Promise<Result<Posted, Failure>> {
  const { tx, actor, now } = g;
  const { today, places, items } = await g.sending();
  const { id: needId, itemId, locationId } = need;
  const item = items.get(itemId);
  if (!item) return err({ kind: 'not_found', what: 'item' });
  const pack = inPacks
    ? sendingPack(item, new Map((await readPacks(tx, [itemId])).map((p) => [p.id, p])))
    : { content: fraction(1n) };
  const base = baseQuantity(packs, pack.content);
  if (base === 0) return err(invalidField('packs', { kind: 'zero_quantity' }));
  const sender = places.get(from);
  if (need.pegOf === 'customer_demand' && (await customerOf(tx, need.peg))?.straight === 1)
    return err({ kind: 'goes_straight' });
  if (from === locationId || !sender || sender.closed === 1) return err({ kind: 'not_found', what: 'location' });
  const open = await lockOpenTransfer(tx, from, locationId);
  const number = open?.number ?? (await nextTransferNumber(tx, today));
  const transferId =
    open?.id ??
    (await insertTransfer(tx, {
      ...{ number, fromLocationId: from, toLocationId: locationId, state: 'approved', businessDate: today },
      ...{ wantedDate: null, note: '', userId: actor.userId, at: now },
    }));
  const keep = (await readReserves(tx, [{ itemId, locationId: from }], today))({ itemId, locationId: from });
  const promisedTo = `${number} to ${places.get(locationId)?.name ?? ''}`;
  const promise = { itemId, locationId: from, quantity: base, promisedTo, userId: actor.userId, at: now, keep };
  const reserved = await reserve(tx, promise);
  if (!reserved.ok) return reserved;
  const quantities = { packQuantity: toDecimal(packs), baseQuantity: toDecimal(base) };
  const decisionId = await insertDecision(tx, { ...head, sourceId: null, packId: null, ...quantities });
  await insertTransferLines(tx, transferId, [
    {
      ...{ itemId, asked: quantities.baseQuantity, approved: quantities.baseQuantity, shipped: '0', shippedValue: 0 },
      ...{ allocationId: reserved.value, decisionId },
    },
  ]);
  const before = { suggested: need.suggested };
  markDirty(tx, [{ itemId, locationId: from }]);
  return ok({
    ...{ decisionId, base },
    changes: [
      { entity: 'need', entityId: needId, action: 'to be sent', before, after: quantities },
      {
        ...{ entity: 'transfer', entityId: transferId, action: open ? 'line added' : 'approved' },
        after: { transfer: number, ...quantities },
      },
    ],
    part: { trayLineId: null, supplier: sender.name, transfer: { id: transferId, number } },
    undo: { kind: 'to_be_sent', needId, transferId, decisionId },
  });
}
