import type { BusinessDate } from '@/core/calendar';
import { byHandOfPlan, itemDigest, planRules, ruleOfPlan, type SlotPlan } from '@/core/netting';
import { ok } from '@/core/result';
import { Asking } from '@/data/asking';
import { deleteOldAlerts } from '@/data/repositories/alerts';
import { deleteOldKeys } from '@/data/repositories/bookkeeping';
import { readCompany, setNeedsAsOf } from '@/data/repositories/company';
import { askCompanyRules, type CompanyRules } from '@/data/repositories/companyRules';
import { deleteOldImports } from '@/data/repositories/imports';
import { deleteOldJobs } from '@/data/repositories/jobs';
import { byPair, type Pair } from '@/data/repositories/levels';
import { anyDue, askDirtyLocked, dirtyCleared, markDirty, markDue, peekDirty } from '@/data/repositories/marks';
import { askMovedStates, type MovedState } from '@/data/repositories/movedStates';
import { type NeedInputs, readNeedInputs } from '@/data/repositories/needInputs';
import { deleteOldAttempts } from '@/data/repositories/people';
import {
  askNeedsLocked,
  type FreshNeed,
  findNeedIds,
  type NeedRow,
  needsPut,
  type PlannedState,
  statesPut,
} from '@/data/repositories/planning';
import { deleteOldSplits } from '@/data/repositories/splits';
import { askStateFingerprints, readItemDigests, readStateFingerprints } from '@/data/repositories/stateFingerprints';
import { deleteOldUndoSteps } from '@/data/repositories/undo';
import type { Tx } from '@/data/sql';
import { readSnapshot, write } from '@/data/transaction';
import { measureAllDemand } from '../demand/measureDemand';
import { type Deps, stamp, todayOf } from '../deps';
import { pairKey, pairMap } from '../grouping';
import { changedNeeds, ordinaryNeed, peggedNeeds } from './freshNeeds';
import { type Run, runOf, stateOfMoved, statesOf } from './freshStates';

/** So many pairs are recomputed before a command answers; more are left to the worker. */
export const BEFORE_ANSWER = 200;

/** Recomputes marked pairs in one transaction: these, or up to a number of them. The marks are locked while the inputs
 *  are read, and every change sets its mark in its own transaction, so nothing can change underneath. A changed suggestion
 *  changes what is planned where it would be sent from: those places are marked, and recomputed next. Returns how many were
 *  done. */
export async function recomputeDirty(deps: Deps, which: number | readonly Pair[]): Promise<number> {
  const first = await recomputeMarked(deps, which);
  let done = first.done;
  // Up the network: at most as many steps as it has places.
  for (let sources = first.sources; sources.length > 0; ) {
    const next = await recomputeMarked(deps, sources);
    done += next.done;
    sources = next.sources;
  }
  return done;
}

type Recomputed = { readonly done: number; readonly sources: readonly Pair[] };
/** Pairs as a fresh run has them, as far as they are not stored so already, their needs, and the places that send to them and
 *  are no longer as they are stored. */
type Fresh = {
  readonly states: readonly PlannedState[];
  readonly needs: readonly FreshNeed[];
  readonly sources: readonly Pair[];
};

async function recomputeMarked(deps: Deps, which: number | readonly Pair[]): Promise<Recomputed> {
  const now = stamp(deps.clock());
  const nothing: Recomputed = { done: 0, sources: [] };
  const done = await write<Recomputed, never>(deps.pool, async (tx) => {
    const marked = typeof which === 'number' ? await peekDirty(tx, which) : which;
    if (marked.length === 0) return ok(nothing);
    // In this order, as everywhere: needs, then marks; and what is read is read under both.
    const ask = new Asking(tx, 'together');
    const lockNeeds = askNeedsLocked(ask, await findNeedIds(tx, marked));
    const lockMarks = askDirtyLocked(ask, marked, typeof which === 'number' ? 'skip' : 'wait');
    const readMoved = askMovedStates(ask, marked, now);
    const rules = askCompanyRules(ask);
    const needs = await lockNeeds();
    const pairs = (await lockMarks()).sort(byPair);
    if (pairs.length === 0) return ok(nothing);
    const locked = new Set(pairs.map((p) => pairKey(p.itemId, p.locationId)));
    const moved = pairMap((await readMoved()).filter((m) => locked.has(pairKey(m.itemId, m.locationId))));
    const others = pairs.filter((p) => !moved.has(pairKey(p.itemId, p.locationId)));
    const fresh = [freshOfMoved([...moved.values()])];
    if (others.length > 0) fresh.push(await freshOf(tx, ask, todayOf(deps, await rules()), rules, others, needs));
    const changes = changedNeeds(
      fresh.flatMap((f) => f.needs),
      needs,
      now,
    );
    await tx.tell([...statesPut(fresh.flatMap((f) => f.states)), ...needsPut(changes), ...dirtyCleared(pairs)]);
    const sources = fresh.flatMap((f) => f.sources);
    markDirty(tx, sources);
    return ok({ done: pairs.length, sources });
  });
  return done.ok ? done.value : nothing;
}

/** Pairs of which anything may have changed: everything a need depends on is read again. */
async function freshOf(
  tx: Tx,
  ask: Asking,
  today: BusinessDate,
  rules: () => Promise<CompanyRules>,
  pairs: readonly Pair[],
  needs: readonly NeedRow[],
): Promise<Fresh> {
  const itemIds = [...new Set(pairs.map((p) => p.itemId))];
  const prints = askStateFingerprints(ask, itemIds);
  const inputs = await readNeedInputs(tx, itemIds, today, { ask, rules });
  const run = runOf(inputs);
  const states = statesOf(inputs, run, pairs);
  // A mark often changes nothing: what is stored already is not written again.
  const stored = await prints();
  return {
    states: states.filter((s) => stored.get(pairKey(s.itemId, s.locationId)) !== s.fingerprint),
    needs: [
      ...states.map((s) => ordinaryNeed(s, ruleOf(inputs, s), byHandOf(inputs, s))),
      ...peggedNeeds(inputs, pairs, needs),
    ],
    sources: changedSources(inputs, run, pairs, stored),
  };
}

/** Pairs of which only the stock has moved. */
function freshOfMoved(moved: readonly MovedState[]): Fresh {
  const all = moved.map((m) => ({ had: m, state: stateOfMoved(m) }));
  return {
    states: all.filter(({ had, state }) => had.fingerprint !== state.fingerprint).map(({ state }) => state),
    needs: all.map(({ had, state }) => {
      const plan = JSON.parse(had.plan) as SlotPlan;
      return ordinaryNeed(state, ruleOfPlan(plan), byHandOfPlan(plan));
    }),
    sources: all.flatMap(({ had, state: { itemId, supplyLocationId, suggested, needState } }) =>
      supplyLocationId !== null && (had.suggested !== suggested || had.needState !== needState)
        ? [{ itemId, locationId: supplyLocationId }]
        : [],
    ),
  };
}

const ruleOf = ({ arrays, slotOf }: NeedInputs, { itemId, locationId }: Pair) =>
  planRules[arrays.rule[slotOf(itemId, locationId) as number] as number] as (typeof planRules)[number];

const byHandOf = ({ arrays, slotOf }: NeedInputs, { itemId, locationId }: Pair) =>
  arrays.beside.get(slotOf(itemId, locationId) as number)?.byHand ?? 0;

/** Places that send to one of these pairs and are no longer as they are stored. */
function changedSources(
  inputs: NeedInputs,
  run: Run,
  pairs: readonly Pair[],
  stored: ReadonlyMap<string, number>,
): Pair[] {
  const done = new Set(pairs.map((p) => pairKey(p.itemId, p.locationId)));
  const found = new Map<string, Pair>();
  for (const { itemId, locationId } of pairs) {
    const at = inputs.slotOf(itemId, locationId);
    const from = at === null ? 0 : (inputs.arrays.suppliedBy[at] as number);
    const sender = inputs.locationIds[from - 1];
    if (from === 0 || sender === undefined) continue;
    const key = pairKey(itemId, sender);
    const slot = inputs.slotOf(itemId, sender) as number;
    if (!done.has(key) && stored.get(key) !== run.fingerprints[slot]) found.set(key, { itemId, locationId: sender });
  }
  return [...found.values()];
}

/** Marks every pair whose stored state differs from a fresh run over these items, or over everything. Returns pairs looked
 *  at and marked, and the business day of the run. */
export async function markChanged(
  deps: Deps,
  itemIds: readonly number[] | null = null,
): Promise<{ pairs: number; changed: number; today: BusinessDate }> {
  const found = await readSnapshot(deps.pool, async (tx) => {
    const today = todayOf(deps, await readCompany(tx));
    const inputs = await readNeedInputs(tx, itemIds, today);
    return { changed: await changedPairs(tx, inputs, itemIds), pairs: inputs.arrays.count, today };
  });
  await write<void, never>(deps.pool, async (tx) => ok(markDirty(tx, found.changed)));
  return { ...found, changed: found.changed.length };
}

/** Pairs whose stored fingerprint is not that of a fresh run: first by item, then by place within the items that differ. */
async function changedPairs(tx: Tx, inputs: NeedInputs, only: readonly number[] | null): Promise<Pair[]> {
  const { itemIds, locationIds } = inputs;
  const width = locationIds.length;
  // Asked for first: the database sums up while this computes.
  const digests = readItemDigests(tx, only);
  const fresh = runOf(inputs).fingerprints;
  const stored = new Map((await digests).map((d) => [d.itemId, d]));
  const differing: number[] = [];
  for (const [i, itemId] of itemIds.entries()) {
    const digest = stored.get(itemId);
    if (digest?.pairs === width && digest.digest === itemDigest(fresh.subarray(i * width, (i + 1) * width))) continue;
    differing.push(i);
  }
  const fingerprints = await readStateFingerprints(
    tx,
    differing.map((i) => itemIds[i] as number),
  );
  return differing.flatMap((i) =>
    locationIds
      .map((locationId) => ({ itemId: itemIds[i] as number, locationId }))
      .filter((p, l) => fingerprints.get(`${p.itemId}/${p.locationId}`) !== fresh[i * width + l]),
  );
}

/** A full need run: compares everything, recomputes what differs, and notes the day the needs are of. */
export async function fullNeedRun(deps: Deps): Promise<{ pairs: number; changed: number }> {
  const looked = await markChanged(deps);
  while ((await recomputeDirty(deps, 2000)) > 0);
  await write<void, never>(deps.pool, async (tx) => {
    await setNeedsAsOf(tx, looked.today);
    return ok(undefined);
  });
  return looked;
}

/** How long the result of a command is kept for a repetition, and attempts to sign in for the books. */
const KEPT_DAYS = 30;

/** What a new business day and a start of the application bring: use per day measured, a full run (horizons move with the date); keys of
 *  commands, ended jobs, imports and attempts to sign in that are past their time go. */
export async function beginDay(deps: Deps): Promise<void> {
  await measureAllDemand(deps);
  await fullNeedRun(deps);
  const before = stamp(new Date(deps.clock().getTime() - KEPT_DAYS * 86_400_000));
  await write<void, never>(deps.pool, async (tx) => {
    await deleteOldKeys(tx, before);
    await deleteOldAttempts(tx, before);
    await deleteOldJobs(tx, before);
    await deleteOldUndoSteps(tx, before);
    await deleteOldAlerts(tx, before);
    await deleteOldSplits(tx, before);
    return ok(undefined);
  });
  // Their rows are many: one import in a transaction.
  for (let left = 1; left > 0; ) {
    const gone = await write<number, never>(deps.pool, async (tx) => ok(await deleteOldImports(tx, before, 1)));
    left = gone.ok ? gone.value : 0;
  }
}

/** Marks what time alone has changed since (a part comes within the horizon). Returns how many pairs. */
export async function takeDue(deps: Deps): Promise<number> {
  const now = stamp(deps.clock());
  if (!(await readSnapshot(deps.pool, (tx) => anyDue(tx, now)))) return 0;
  const marked = await write<number, never>(deps.pool, async (tx) => ok(await markDue(tx, now)));
  return marked.ok ? marked.value : 0;
}

/** Before needs are shown: what has become due, and marks that a crash left behind, as far as a person can wait for it.
 *  The worker does the rest. */
export async function bringUpToDate(deps: Deps): Promise<void> {
  await takeDue(deps);
  await recomputeDirty(deps, BEFORE_ANSWER);
}
