import {
  backDatedEffect,
  issue,
  type LedgerEntry,
  type LevelValue,
  type Posting,
  receive,
  removeAtValue,
  replayByDate,
} from '@/core/ledger';
import type { Taken } from '@/core/lots';
import { checked, fromDecimal, type Quantity, toDecimal } from '@/core/quantity';
import { err, ok, type Result } from '@/core/result';
import { holdBooksClosedTo } from '@/data/repositories/company';
import {
  insertMovements,
  type LevelRow,
  lockLevels,
  type MovementKind,
  type PostedRow,
  readLastCostElsewhere,
  readPostingsSince,
  updateLevel,
} from '@/data/repositories/levels';
import { readTracked } from '@/data/repositories/lots';
import { markDirty } from '@/data/repositories/marks';
import type { SqlValue, Tx } from '@/data/sql';
import { groupBy, pairKey } from '../grouping';
import { moveLots, type PostedChange, serialsOut, type Tracked } from './moveLots';
import { onlyMoves, type StockChange } from './stockChange';

export type { StockChange };
export type Posted = { readonly valueChange: number; readonly variance: number };
export type BooksClosed = { readonly kind: 'books_closed'; readonly to: string };

type Here = { level: LevelValue; posting: number; lastCost: LevelValue | null };

/** The only writer of on hand, inspection, blocked, value and lots: appends movements and keeps the levels equal to their sum,
 *  in the caller's transaction, levels locked in key order. Marks the pairs for recomputation. A receipt dated before
 *  `today` also posts its effect on the issues since. Returns what each change did, in the order given.
 *  Errors: books_closed when a change is dated on or before the last closed day. */
export async function postMovements(
  tx: Tx,
  userId: number | null,
  now: string,
  today: string,
  changes: readonly StockChange[],
): Promise<Result<Posted[], BooksClosed>> {
  const closedTo = await holdBooksClosedTo(tx);
  if (closedTo !== null && changes.some((c) => c.businessDate <= closedTo))
    return err({ kind: 'books_closed', to: closedTo });
  const byPair = groupBy(changes, (c) => pairKey(c.itemId, c.locationId));
  const pairs = [...byPair.values()].map((own) => own[0] as StockChange);
  const rows: SqlValue[][] = [];
  const posted = new Map<StockChange, Posted>();
  const moved: PostedChange[] = [];
  const tracked: Tracked = await readTracked(tx, [...new Set(changes.map((c) => c.itemId))]);
  for (const row of await lockLevels(tx, pairs)) {
    const here: Here = {
      level: { quantity: fromDecimal(row.onHand), value: row.value },
      posting: row.lastPosting,
      lastCost:
        row.lastCostQuantity === null
          ? null
          : { quantity: fromDecimal(row.lastCostQuantity), value: row.lastCost ?? 0 },
    };
    const append = (c: StockChange, quantity: Quantity, p: Posted) => {
      here.posting += 1;
      const { kind, id, line } = c.document;
      const moved = [toDecimal(quantity), '0', '0', p.valueChange, p.variance];
      rows.push([c.itemId, c.locationId, here.posting, c.kind, c.businessDate, ...moved, kind, id, line, userId, now]);
    };
    const serial = tracked.get(row.itemId) === 'serial';
    const taken: Taken[] = [];
    const own = byPair.get(pairKey(row.itemId, row.locationId)) ?? [];
    const named = new Set(own.flatMap((c) => c.lots?.map((l) => l.lotId) ?? []));
    for (const c of own) {
      // A serial number goes out at its own cost.
      const out =
        serial && c.quantity < 0 && c.value === null ? await serialsOut(tx, c, here.level, taken, named) : null;
      if (out) taken.push(...out.taken);
      const value = out === null || out.cost === null ? c.value : -out.cost;
      const result = await post(tx, here, { ...c, value });
      const change = out ? { ...c, lots: out.taken } : c;
      moved.push({ change, posting: here.posting + 1, onHandBefore: here.level.quantity });
      posted.set(c, { valueChange: result.valueChange, variance: result.variance });
      append(c, c.quantity, result);
      here.level = result.level;
      if (c.quantity > 0 && c.value !== null) here.lastCost = { quantity: c.quantity, value: c.value };
      // What left by serial number keeps its cost, whatever came later.
      if (c.kind !== 'receipt' || c.businessDate >= today || serial) continue;
      const effect = await effectOf(tx, here, c, rows);
      if (effect.valueChange === 0 && effect.variance === 0) continue;
      append({ ...c, kind: 'cost_adjustment', businessDate: today }, 0, effect);
      here.level = { ...here.level, value: here.level.value + effect.valueChange };
    }
    await updateLevel(tx, levelAfter(row, here));
  }
  await insertMovements(tx, rows);
  await moveLots(tx, tracked, moved);
  const more = changes.filter((c) => !onlyMoves.has(c.kind));
  markDirty(tx, pairs, 'stock');
  markDirty(tx, more);
  return ok(changes.map((c) => posted.get(c) as Posted));
}

const levelAfter = (row: LevelRow, here: Here) => ({
  itemId: row.itemId,
  locationId: row.locationId,
  inspection: row.inspection,
  blocked: row.blocked,
  onHand: toDecimal(here.level.quantity),
  value: here.level.value,
  posting: here.posting,
  lastCostQuantity: here.lastCost && toDecimal(here.lastCost.quantity),
  lastCost: here.lastCost?.value ?? null,
});

async function post(tx: Tx, here: Here, c: StockChange): Promise<Posting> {
  const { level } = here;
  if (c.quantity >= 0) return receive(level, c.quantity, c.value ?? 0);
  const out = checked(-c.quantity);
  if (c.value !== null) return removeAtValue(level, out, -c.value);
  const known = here.lastCost ?? c.lastCost;
  const lastCost = known ?? (out > level.quantity ? await costElsewhere(tx, c.itemId) : NO_COST);
  return issue(level, out, lastCost);
}

const NO_COST: LevelValue = { quantity: 0, value: 0 };

async function costElsewhere(tx: Tx, itemId: number): Promise<LevelValue> {
  const found = await readLastCostElsewhere(tx, itemId);
  return found ? { quantity: fromDecimal(found.quantity), value: found.value } : NO_COST;
}

/** What a back-dated receipt that has just been posted does to the cost of the issues since its day. */
async function effectOf(tx: Tx, here: Here, c: StockChange, unwritten: readonly SqlValue[][]): Promise<Posted> {
  const { before, since } = await readPostingsSince(tx, c, c.businessDate);
  const own = unwritten.filter((r) => r[0] === c.itemId && r[1] === c.locationId).map(entryOfCells);
  const entries = [...since.map(entryOf), ...own];
  if (!entries.some((e) => e.valued === 'average')) return { valueChange: 0, variance: 0 };
  const opening = { quantity: fromDecimal(before.quantity), value: before.value };
  // What is not there when the replay begins costs what came last before it.
  const lastCost = opening.quantity > 0 ? opening : { quantity: c.quantity, value: c.value ?? 0 };
  return backDatedEffect(here.level, replayByDate(opening, entries, lastCost));
}

const averaged = new Set<MovementKind>(['sale', 'count', 'use', 'correction']);

function entryOf(r: PostedRow): LedgerEntry {
  const quantity = fromDecimal(r.quantity);
  const valued =
    r.kind === 'cost_adjustment' ? 'adjustment' : averaged.has(r.kind) && quantity < 0 ? 'average' : 'given';
  const value = quantity === 0 ? r.value : r.value + r.variance;
  return { businessDate: r.businessDate, posting: r.posting, quantity, valued, value };
}

/** An entry from a row that is not written yet (columns as in MOVEMENT_COLUMNS). */
function entryOfCells(r: SqlValue[]): LedgerEntry {
  const [, , posting, kind, businessDate, quantity, , , value, variance] = r;
  return entryOf({
    posting: Number(posting),
    kind: kind as MovementKind,
    businessDate: String(businessDate),
    quantity: String(quantity),
    value: Number(value),
    variance: Number(variance),
  });
}
