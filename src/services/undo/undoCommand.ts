import { type Actor, may, type Right } from '@/core/people';
import { policyFields } from '@/core/policy';
import { fromDecimal } from '@/core/quantity';
import { err, ok, type Result } from '@/core/result';
import type { Values } from '@/core/sheets';
import { readChanges, recordChanges } from '@/data/repositories/bookkeeping';
import { readCompany } from '@/data/repositories/company';
import { lockCustomerOrder } from '@/data/repositories/customerOrders';
import { lockHandNeed, putHandNeed, takeHandNeed } from '@/data/repositories/handNeeds';
import { markDirty } from '@/data/repositories/marks';
import { putOrderCharges, removeOrderCharge } from '@/data/repositories/orderCharges';
import { setCancelled, setEnded } from '@/data/repositories/orderLife';
import { bumpOrder, lockOrder, readOrderLines, readParts, setOrderState } from '@/data/repositories/orders';
import { findDecisionBefore, lockNeed, lockNeedOfDecision, lockNeeds, readByHand } from '@/data/repositories/planning';
import { lockSettings } from '@/data/repositories/policies';
import { scopeKey } from '@/data/repositories/policySettings';
import { findLineOfDecision, lockTransfer } from '@/data/repositories/transfers';
import { lockTrayLines, updateTrayLine } from '@/data/repositories/trays';
import { type Affected, findTouchedSince, lockUndoStep, markUndone, type UndoRow } from '@/data/repositories/undo';
import type { Tx } from '@/data/sql';
import { command, type Request } from '../command';
import { type Deps, todayOf } from '../deps';
import type { Failure } from '../failure';
import { postDecided } from '../planning/decidedNeed';
import { cellsOf, editedSettings, type SettingCells } from '../planning/policyEdits';
import type { Reopened } from '../planning/reopenNeed';
import { withdraw } from '../planning/withdraw';
import { writePolicies } from '../planning/writePolicies';
import { openAgain } from '../promise/openAgain';
import { loadOrder, pairsOf } from '../purchase/loadOrder';
import { changeCell } from '../purchase/orderCell';
import { dropChange, putBack, reopen } from '../purchase/orderSteps';
import { postLeave } from '../purchase/postJoin';
import { toldOtherwise } from '../purchase/said';
import { sheetKindOf } from '../sheets/kinds';
import { maySheet } from '../sheets/lockOwn';
import { areAsLeft, removeValues, writeValues } from '../sheets/recordSteps';
import { renameOne } from '../sheets/renameSaid';
import { settingFor } from '../sheets/sheetKind';
import { reversal } from '../stock/reversal';
import { withdrawSent } from '../stock/withdrawSent';
import type { Decided, Effect } from './recordUndo';

type Of<K extends Effect['kind']> = Extract<Effect, { kind: K }>;
type At = {
  readonly tx: Tx;
  readonly actor: Actor;
  readonly now: string;
  readonly today: string;
  readonly step: UndoRow;
  readonly deps: Deps;
};
type Undone = Result<unknown, Failure>;
type Undoer<K extends Effect['kind']> = {
  readonly right: Right;
  readonly undo: (at: At, effect: Of<K>) => Promise<Undone>;
};

/** Undoes what one of the person's own commands did, named by its key, as one command: all of it or nothing.
 *  Errors: forbidden, not_undoable (unknown, already undone, gone too far), touched_since (what somebody else did to an
 *  affected row since, and who), and those of what it does. */
export async function undoCommand(
  deps: Deps,
  actor: Actor,
  request: Request<{ readonly undoKey: string }>,
): Promise<Result<{ readonly undone: string }, Failure>> {
  const allowed = may(actor, 'undo');
  if (!allowed.ok) return allowed;
  return command(deps, actor, 'undo', request, async (tx, now) => {
    const { undoKey } = request.input;
    const step = await lockUndoStep(tx, actor.userId, undoKey);
    if (!step) return err({ kind: 'not_undoable', because: 'unknown' });
    if (step.state === 'undone') return err({ kind: 'not_undoable', because: 'already_undone' });
    const effect = JSON.parse(step.effect) as Effect;
    const undoer = undoers[effect.kind] as Undoer<Effect['kind']>;
    const still = may(actor, undoer.right);
    if (!still.ok) return still;
    const today = todayOf(deps, await readCompany(tx));
    const undone = await undoer.undo({ tx, actor, now, today, step, deps }, effect as never);
    if (!undone.ok) return undone;
    await markUndone(tx, actor.userId, undoKey);
    return ok({ undone: step.command });
  });
}

/** Refuses when somebody else has touched one of these, locked, rows since. */
async function untouched({ tx, actor, step }: At, affected: readonly Affected[]): Promise<Result<void, Failure>> {
  const touched = await findTouchedSince(tx, affected, step.seenChange, actor.userId);
  return touched ? err({ kind: 'touched_since', ...touched }) : ok(undefined);
}

const tooFar: Undone = err({ kind: 'not_undoable', because: 'gone_on' });

/** Locks an order for undoing; what somebody else did since is said before what state forbids. */
async function orderOf(at: At, orderId: number, action: 'put_back' | 'reopen' | 'edit') {
  const loaded = await loadOrder(at.tx, orderId, action);
  const clean = await untouched(at, [{ entity: 'order', entityId: orderId }]);
  return clean.ok ? loaded : clean;
}

/** What a tray does to an order, in its history. */
const OF_TRAYS: readonly string[] = ['joined from tray', 'taken off again'];

/** A change that was opened and says nothing any more is no change; one in which something else was done, and be it a note that its
 *  supplier is not told, stays. */
async function dropEmptyChange({ tx, actor, now }: At, orderId: number): Promise<Undone> {
  const loaded = await loadOrder(tx, orderId, 'drop_amendment');
  if (!loaded.ok) return loaded;
  const { lines, parts } = loaded.value;
  const differs = await toldOtherwise(tx, orderId, lines, parts);
  const history = (await readChanges(tx, 'order', orderId)).map((c) => c.action);
  const since = history.slice(history.lastIndexOf('change begun') + 1);
  const empty = differs.length === 0 && since.every((action) => OF_TRAYS.includes(action));
  return empty ? dropChange(tx, actor, now, loaded.value) : ok(null);
}

/** All cells of a setting, those empty where it says nothing. */
const allCells = (cells: SettingCells) => Object.fromEntries(policyFields.map((f) => [f, cells[f] ?? '']));
const sameCells = (a: SettingCells, b: SettingCells) => policyFields.every((f) => (a[f] ?? '') === (b[f] ?? ''));

/** One part of a need that was accepted is taken back. */
async function undoDecided(at: At, d: Decided): Promise<Undone> {
  const { tx, actor, now } = at;
  const needed = { entity: 'need' as const, entityId: d.needId };
  if (d.kind === 'accepted') {
    const [line] = await lockTrayLines(tx, [d.trayLineId]);
    if (!line) return tooFar;
    const clean = await untouched(at, [{ entity: 'tray_line', entityId: d.trayLineId }, needed]);
    if (!clean.ok) return clean;
    if (line.state !== 'in_tray') return tooFar;
    await asBefore(at, await withdraw(tx, actor, now, line), line.decisionId);
    return ok(null);
  }
  const transfer = await lockTransfer(tx, d.transferId);
  const line = await findLineOfDecision(tx, d.decisionId);
  if (!transfer || !line) return tooFar;
  const clean = await untouched(at, [{ entity: 'transfer', entityId: d.transferId }, needed]);
  if (!clean.ok) return clean;
  if (transfer.state !== 'approved' || line.approved === '0.000000') return tooFar;
  await asBefore(at, await withdrawSent(tx, actor, now, transfer, line), d.decisionId);
  return ok(null);
}

/** Of a need whose last decision was withdrawn the one before it is the last again: it may have been decided in part before. */
async function asBefore({ tx, now }: At, { needId, decisionId }: Reopened, undone: number): Promise<void> {
  const need = needId === null || decisionId === null ? null : await lockNeed(tx, needId);
  if (!need) return;
  const before = await findDecisionBefore(tx, undone);
  await postDecided(tx, need, 'open', before, now);
  markDirty(tx, [need]);
}

const undoers: { readonly [K in Effect['kind']]: Undoer<K> } = {
  accepted: { right: 'needs.decide', undo: undoDecided },
  to_be_sent: { right: 'needs.decide', undo: undoDecided },
  decided_many: {
    right: 'needs.decide',
    // The last part of a need first: its decision is the need's last.
    undo: async (at, { decided }) => {
      for (const d of [...decided].reverse()) {
        const undone = await undoDecided(at, d);
        if (!undone.ok) return undone;
      }
      return ok(null);
    },
  },
  set_aside: {
    right: 'needs.decide',
    undo: async (at, { needs }) => {
      const { tx, actor, now } = at;
      const locked = new Map(
        (
          await lockNeeds(
            tx,
            needs.map((n) => n.needId),
          )
        ).map((n) => [n.id, n]),
      );
      const clean = await untouched(
        at,
        needs.map((n) => ({ entity: 'need', entityId: n.needId })),
      );
      if (!clean.ok) return clean;
      for (const { needId, decisionId, before, state } of needs) {
        const need = locked.get(needId);
        if (need?.lastDecisionId !== decisionId) return tooFar;
        await postDecided(tx, need, state, before, now);
      }
      await recordChanges(
        tx,
        actor.userId,
        now,
        needs.map((n) => ({ entity: 'need', entityId: n.needId, action: 'as it was before' })),
      );
      markDirty(tx, [...locked.values()]);
      return ok(null);
    },
  },
  by_hand: {
    right: 'needs.decide',
    undo: async ({ tx, actor, now }, { itemId, locationId, before, after }) => {
      const had = await lockHandNeed(tx, { itemId, locationId });
      if (fromDecimal(had.quantity) !== fromDecimal(after)) return tooFar;
      await putHandNeed(tx, { itemId, locationId, ...before, userId: actor.userId, at: now });
      await recordChanges(tx, actor.userId, now, [
        {
          ...{ entity: 'item', entityId: itemId, action: 'asked for by hand' },
          ...{ before: { byHand: after }, after: { byHand: before.quantity } },
        },
      ]);
      markDirty(tx, [{ itemId, locationId }]);
      return ok(null);
    },
  },
  taken_back: {
    right: 'needs.decide',
    undo: async (at, { needId, trayLineId, decisionId }) => {
      const { tx, actor, now } = at;
      const [line] = await lockTrayLines(tx, [trayLineId]);
      if (!line) return tooFar;
      const need = await lockNeedOfDecision(tx, line.decisionId);
      const clean = await untouched(at, [
        { entity: 'tray_line', entityId: trayLineId },
        ...(needId === null ? [] : [{ entity: 'need' as const, entityId: needId }]),
      ]);
      if (!clean.ok) return clean;
      if (line.state !== 'taken_back' || (decisionId !== null && need?.lastDecisionId !== decisionId)) return tooFar;
      await updateTrayLine(tx, { ...line, state: 'in_tray' });
      if (need && decisionId !== null) {
        // What was asked for by hand is taken up again.
        if (fromDecimal(await readByHand(tx, line.decisionId)) > 0) await takeHandNeed(tx, need);
        await postDecided(tx, need, 'decided', line.decisionId, now);
      }
      await recordChanges(tx, actor.userId, now, [
        { entity: 'tray_line', entityId: line.id, action: 'back in its tray' },
      ]);
      markDirty(tx, [line]);
      return ok(null);
    },
  },
  orders_made: {
    right: 'orders.edit',
    undo: async (at, { orderIds, joined = [], decided = [] }) => {
      const { tx, actor, now, today } = at;
      const all = [...orderIds.map((orderId) => ({ orderId, trayLineIds: null, opened: false })), ...joined];
      for (const { orderId, trayLineIds, opened } of all.sort((a, b) => a.orderId - b.orderId)) {
        const loaded = await orderOf(at, orderId, trayLineIds === null ? 'put_back' : 'edit');
        if (!loaded.ok) return loaded;
        if (trayLineIds === null) {
          await putBack(tx, actor, now, loaded.value);
          continue;
        }
        const lines = await lockTrayLines(tx, trayLineIds);
        if (lines.some((l) => l.state !== 'ordered')) return tooFar;
        await postLeave(tx, orderId, lines, today);
        await recordChanges(tx, actor.userId, now, [
          { entity: 'order', entityId: orderId, action: 'taken off again', after: { lines: lines.length } },
          ...lines.map((l) => ({ entity: 'tray_line' as const, entityId: l.id, action: 'back in its tray' })),
        ]);
        markDirty(tx, lines);
        const dropped = opened ? await dropEmptyChange(at, orderId) : ok(null);
        if (!dropped.ok) return dropped;
      }
      for (const d of [...decided].reverse()) {
        const undone = await undoDecided(at, d);
        if (!undone.ok) return undone;
      }
      return ok(null);
    },
  },
  put_back: {
    right: 'orders.edit',
    undo: async (at, { orderId, before, trayLineIds }) => {
      const { tx, actor, now } = at;
      const locked = await loadOrder(tx, orderId, 'restore');
      if (!locked.ok) return locked;
      const lines = await lockTrayLines(tx, trayLineIds);
      const clean = await untouched(at, [
        { entity: 'order', entityId: orderId },
        ...trayLineIds.map((entityId) => ({ entity: 'tray_line' as const, entityId })),
      ]);
      if (!clean.ok) return clean;
      if (lines.some((l) => l.state !== 'in_tray')) return tooFar;
      for (const l of lines) await updateTrayLine(tx, { ...l, state: 'ordered' });
      await setOrderState(tx, orderId, before);
      await recordChanges(tx, actor.userId, now, [
        { entity: 'order', entityId: orderId, action: 'taken out of the trays again', after: { state: before } },
        ...lines.map((l) => ({ entity: 'tray_line' as const, entityId: l.id, action: 'ordered' })),
      ]);
      markDirty(tx, pairsOf(locked.value.lines, locked.value.parts));
      return ok(null);
    },
  },
  approved: {
    right: 'orders.edit',
    undo: async (at, { orderId }) => {
      const loaded = await orderOf(at, orderId, 'reopen');
      return loaded.ok ? ok(await reopen(at.tx, at.actor, at.now, loaded.value)) : loaded;
    },
  },
  ended: {
    right: 'orders.edit',
    undo: async (at, { orderId, state, before, parts }) => {
      const { tx, actor, now } = at;
      const order = await lockOrder(tx, orderId);
      if (!order) return err({ kind: 'not_found', what: 'order' });
      const clean = await untouched(at, [{ entity: 'order', entityId: orderId }]);
      if (!clean.ok) return clean;
      const lines = await readOrderLines(tx, [orderId]);
      const standing = await readParts(tx, [orderId]);
      // Something else was done with it since.
      const cancelled = new Map(standing.map((x) => [x.id, fromDecimal(x.cancelled)]));
      if (parts.some((p) => cancelled.get(p.id) !== fromDecimal(p.to))) return tooFar;
      if (order.state !== state && order.state !== 'cancelled' && order.state !== 'closed') return tooFar;
      for (const p of parts) await setCancelled(tx, p.id, p.cancelled);
      await setEnded(tx, { id: orderId, state, before });
      await recordChanges(tx, actor.userId, now, [
        { entity: 'order', entityId: orderId, action: 'expected again', after: { state } },
      ]);
      markDirty(tx, pairsOf(lines, standing));
      return ok(null);
    },
  },
  cell: {
    right: 'orders.edit',
    undo: async ({ tx, actor, now, today, step }, { back }) => {
      const loaded = await loadOrder(tx, back.orderId, 'edit');
      if (!loaded.ok) return loaded;
      const changed = await changeCell(tx, actor, now, today, loaded.value, back);
      if (changed.ok || changed.error.kind !== 'changed_meanwhile') return changed;
      const order = [{ entity: 'order' as const, entityId: back.orderId }];
      const touched = await findTouchedSince(tx, order, step.seenChange, actor.userId);
      return touched ? err({ kind: 'touched_since', ...touched }) : tooFar;
    },
  },
  charge: {
    right: 'orders.edit',
    undo: async (at, { orderId, name, before }) => {
      const loaded = await orderOf(at, orderId, 'edit');
      if (!loaded.ok) return loaded;
      await (before ? putOrderCharges(at.tx, orderId, [before]) : removeOrderCharge(at.tx, orderId, name));
      await bumpOrder(at.tx, orderId);
      await recordChanges(at.tx, at.actor.userId, at.now, [
        { entity: 'order', entityId: orderId, action: `charge ${name}`, after: 'as before' },
      ]);
      return ok(null);
    },
  },
  policies: {
    right: 'policies.edit',
    undo: async ({ tx, actor, now, step }, { rows }) => {
      const kept = await lockSettings(tx, rows);
      const edits = rows.map((r) => ({ ...r, was: r.after, now: allCells(r.before) }));
      const same = rows.every((r) => sameCells(cellsOf(kept.get(scopeKey(r.itemId, r.locationId))), r.after));
      if (!same) {
        const policies = rows.map((r) => ({ entity: 'policy' as const, entityId: r.itemId }));
        const touched = await findTouchedSince(tx, policies, step.seenChange, actor.userId);
        return touched ? err({ kind: 'touched_since', ...touched }) : tooFar;
      }
      // Kinds stay as they were: what was said before was said in full.
      const { rows: back, faults } = editedSettings(edits, kept, () => 'min_max');
      if (faults.length > 0) return err({ kind: 'wrong_cells', faults });
      return ok(await writePolicies(tx, actor, now, back));
    },
  },
  records: {
    right: 'catalogue.edit',
    undo: async ({ tx, actor, now, deps }, { sheet, before, after, renamed = [] }) => {
      const kind = sheetKindOf(sheet);
      if (!kind) return tooFar;
      const still = maySheet(actor, kind);
      if (!still.ok) return still;
      const keys = after.map((a, i) => (a ?? before[i]) as Values);
      if (!(await areAsLeft(tx, kind, keys, after)))
        return err({ kind: 'changed_meanwhile', what: 'record', who: null, now: null });
      const setting = await settingFor(deps, tx, actor.userId, now);
      const back = before.filter((b): b is Values => b !== null);
      const made = after.filter((a, i): a is Values => a !== null && before[i] === null);
      if (made.length > 0) {
        if (!kind.remove) return tooFar;
        const gone = await removeValues(tx, kind, made, setting);
        if (!gone.ok) return gone;
      }
      const written = back.length > 0 ? await writeValues(tx, kind, back, setting) : ok(null);
      if (!written.ok) return written;
      for (const { from, to } of renamed) {
        const named = await renameOne(tx, kind, setting, { from: to, to: from }, null);
        if (!named.ok) return named.error === 'taken' ? tooFar : err(named.error);
      }
      return ok(null);
    },
  },
  customer_cancelled: {
    right: 'promises.edit',
    undo: async (at, { orderId, lines }) => {
      const { tx, actor, now, today } = at;
      const order = await lockCustomerOrder(tx, orderId);
      const clean = await untouched(at, [{ entity: 'customer_order', entityId: orderId }]);
      if (!clean.ok) return clean;
      return order ? openAgain(tx, { userId: actor.userId, now, today }, order, lines) : tooFar;
    },
  },
  booked_in: {
    right: 'goods.receive',
    undo: ({ tx, actor, now, today }, { receiptId }) =>
      reversal(tx, actor, now, today, { receiptId, reason: 'undone' }),
  },
};
