import { baseQuantity } from '@/core/packs';
import { type Actor, may } from '@/core/people';
import { checkLineQuantity } from '@/core/purchase';
import { type Quantity, toDecimal } from '@/core/quantity';
import { err, ok, type Result } from '@/core/result';
import { fraction } from '@/core/units';
import { recordChanges } from '@/data/repositories/bookkeeping';
import { readItemsByIds, readPacks } from '@/data/repositories/catalogue';
import { readCompany, readLocations } from '@/data/repositories/company';
import { markDirty } from '@/data/repositories/marks';
import {
  decideNeed,
  insertDecision,
  lockNeed,
  type NeedRow,
  readLastDecision,
  readStates,
} from '@/data/repositories/planning';
import { readReserves } from '@/data/repositories/reserves';
import { insertTransfer, insertTransferLines, lockOpenTransfer } from '@/data/repositories/transfers';
import { insertTrayLine } from '@/data/repositories/trays';
import type { Tx } from '@/data/sql';
import { readBuying } from '../catalogue/buying';
import { command, type Request } from '../command';
import { type Deps, todayOf } from '../deps';
import { type Failure, invalidField } from '../failure';
import { reserve } from '../stock/reserve';
import { nextTransferNumber } from '../stock/transferNumber';
import { recordUndo } from '../undo/recordUndo';
import { fingerprintOf } from './freshNeeds';
import { readPairPlans } from './pairPlans';
import { sendingPack } from './readNeeds';

export type AcceptNeed = {
  readonly needId: number;
  readonly fingerprint: string;
  /** In the pack of whoever supplies it; of a place chosen besides in base units. */
  readonly packs: string;
  /** Another supplier, or another place, than the need says. */
  readonly way?: { readonly sourceId: number } | { readonly locationId: number };
};
/** In the tray of a supplier; or, where another place supplies it, on a transfer from there. */
export type AcceptedNeed = {
  readonly trayLineId: number | null;
  /** Who supplies it: the supplier, or the place. */
  readonly supplier: string;
  readonly transfer: { readonly id: number; readonly number: string } | null;
};

/** Takes a need as decided and puts it into its supplier's tray, with the reckoning kept as it was. Conditional on the
 *  fingerprint the person saw: of two buyers one wins and the other is told who decided what. What another place sends goes
 *  onto the transfer from there that is still being put together, and is promised there at once.
 *  Errors: not_free (of what the other place has); forbidden, not_found, invalid_field packs, already_decided, changed_meanwhile, no_supplier. */
export async function acceptNeed(
  deps: Deps,
  actor: Actor,
  request: Request<AcceptNeed>,
): Promise<Result<AcceptedNeed, Failure>> {
  const allowed = may(actor, 'needs.decide');
  if (!allowed.ok) return allowed;
  const { needId, fingerprint } = request.input;
  const packs = checkLineQuantity(request.input.packs);
  if (!packs.ok) return err(invalidField('packs', packs.error));
  return command(deps, actor, 'accept-need', request, async (tx, now) => {
    const need = await lockNeed(tx, needId);
    if (!need) return err({ kind: 'not_found', what: 'need' });
    if (need.state !== 'open' || need.fingerprint !== fingerprint) {
      const last = await readLastDecision(tx, needId);
      if (need.state === 'decided' && last) {
        return err({ kind: 'already_decided', who: last.who, packs: last.packQuantity, supplier: last.supplier });
      }
      return err({ kind: 'changed_meanwhile', what: 'need', who: null, now: null });
    }
    const { itemId, locationId } = need;
    const place = may(actor, 'needs.decide', { locationIds: [locationId] });
    if (!place.ok) return place;
    const { way } = request.input;
    const from = way && 'locationId' in way ? way.locationId : way ? null : need.supplyLocationId;
    if (from !== null) return sendIt(deps, tx, actor, now, request, need, packs.value, from);
    const sourceId = way && 'sourceId' in way ? way.sourceId : need.sourceId;
    const buying = (await readBuying(tx, [itemId])).bySource.get(sourceId ?? 0);
    if (!buying) return err({ kind: 'no_supplier' });
    const reckoning = await reckoningNow(deps, tx, need);
    const base = toDecimal(baseQuantity(packs.value, buying.content));
    if (base === '0') return err(invalidField('packs', { kind: 'zero_quantity' }));
    const quantities = { packQuantity: toDecimal(packs.value), baseQuantity: base };
    const decisionId = await insertDecision(tx, {
      needId,
      kind: 'accept',
      fingerprint,
      shortage: need.shortage,
      sourceId: buying.source.id,
      packId: buying.source.packId,
      ...quantities,
      reckoning: JSON.stringify(reckoning),
      userId: actor.userId,
      at: now,
    });
    const trayLineId = await insertTrayLine(tx, {
      supplierId: buying.source.supplierId,
      decisionId,
      itemId,
      locationId,
      sourceId: buying.source.id,
      packId: buying.source.packId,
      ...quantities,
      userId: actor.userId,
      at: now,
    });
    const decided = fingerprintOf({ ...need, lastDecisionId: decisionId });
    await decideNeed(tx, needId, 'decided', decisionId, decided, now);
    await recordChanges(tx, actor.userId, now, [
      {
        entity: 'need',
        entityId: needId,
        action: 'accepted',
        before: { suggested: need.suggested },
        after: quantities,
      },
    ]);
    await recordUndo(tx, actor, request.key, 'accept-need', now, { kind: 'accepted', needId, trayLineId });
    markDirty(tx, [{ itemId, locationId }]);
    return ok({ trayLineId, supplier: buying.source.supplierName, transfer: null });
  });
}

/** The reckoning of a need as it is now, to be kept with a decision. */
async function reckoningNow(deps: Deps, tx: Tx, { itemId, locationId, pegOf, peg }: NeedRow) {
  const today = todayOf(deps, await readCompany(tx));
  const [state] = await readStates(tx, [itemId], [locationId]);
  const plans = await readPairPlans(tx, [itemId], today);
  return pegOf === 'pair'
    ? plans.reckoning(itemId, locationId, state)
    : (plans.peg(itemId, locationId, peg)?.reckoning ?? null);
}

/** Puts a need that another place supplies onto the transfer from there. */
async function sendIt(
  deps: Deps,
  tx: Tx,
  actor: Actor,
  now: string,
  request: Request<AcceptNeed>,
  need: NeedRow,
  packs: Quantity,
  from: number,
): Promise<Result<AcceptedNeed, Failure>> {
  const { id: needId, itemId, locationId } = need;
  const item = (await readItemsByIds(tx, [itemId])).get(itemId);
  if (!item) return err({ kind: 'not_found', what: 'item' });
  // A place that was chosen besides sends single units.
  const pack =
    from === need.supplyLocationId
      ? sendingPack(item, new Map((await readPacks(tx, [itemId])).map((p) => [p.id, p])))
      : { content: fraction(1n) };
  const base = baseQuantity(packs, pack.content);
  if (base === 0) return err(invalidField('packs', { kind: 'zero_quantity' }));
  const today = todayOf(deps, await readCompany(tx));
  const places = new Map((await readLocations(tx)).map((l) => [l.id, l.name]));
  if (from === locationId || !places.has(from)) return err({ kind: 'not_found', what: 'location' });
  const open = await lockOpenTransfer(tx, from, locationId);
  const number = open?.number ?? (await nextTransferNumber(tx, today));
  const transferId =
    open?.id ??
    (await insertTransfer(tx, {
      ...{ number, fromLocationId: from, toLocationId: locationId, state: 'approved', businessDate: today },
      ...{ wantedDate: null, note: '', userId: actor.userId, at: now },
    }));
  const keep = (await readReserves(tx, [{ itemId, locationId: from }], today))({ itemId, locationId: from });
  const promisedTo = `${number} to ${places.get(locationId) ?? ''}`;
  const promise = { itemId, locationId: from, quantity: base, promisedTo, userId: actor.userId, at: now, keep };
  const reserved = await reserve(tx, promise);
  if (!reserved.ok) return reserved;
  const quantities = { packQuantity: toDecimal(packs), baseQuantity: toDecimal(base) };
  const decisionId = await insertDecision(tx, {
    ...{ needId, kind: 'accept', fingerprint: need.fingerprint, shortage: need.shortage },
    ...{ sourceId: null, packId: null, ...quantities, userId: actor.userId, at: now },
    reckoning: JSON.stringify(await reckoningNow(deps, tx, need)),
  });
  await insertTransferLines(tx, transferId, [
    {
      ...{ itemId, asked: quantities.baseQuantity, approved: quantities.baseQuantity, shipped: '0', shippedValue: 0 },
      ...{ allocationId: reserved.value, decisionId },
    },
  ]);
  await decideNeed(tx, needId, 'decided', decisionId, fingerprintOf({ ...need, lastDecisionId: decisionId }), now);
  await recordChanges(tx, actor.userId, now, [
    {
      entity: 'need',
      entityId: needId,
      action: 'to be sent',
      before: { suggested: need.suggested },
      after: quantities,
    },
    {
      entity: 'transfer',
      entityId: transferId,
      action: open ? 'line added' : 'approved',
      after: { transfer: number, ...quantities },
    },
  ]);
  await recordUndo(tx, actor, request.key, 'accept-need', now, { kind: 'to_be_sent', needId, transferId, decisionId });
  markDirty(tx, [
    { itemId, locationId },
    { itemId, locationId: from },
  ]);
  return ok({ trayLineId: null, supplier: places.get(from) ?? '', transfer: { id: transferId, number } });
}
