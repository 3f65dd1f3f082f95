import { randomBytes } from 'node:crypto';
import type { Asking } from '../asking';
import { insertStatements, type MarkedSet, type SqlValue, type Statement, type Tx } from '../sql';
import { byPair, type Pair, THESE, theseOf } from './levels';

/** Marks pairs for recomputation, in the transaction of the change: written by `flushMarks` as the last thing before its
 *  commit, in key order, so that nobody waits for anything while holding a mark. `what`: only their stock has moved, or
 *  anything of them. */
export function markDirty(tx: Tx, pairs: readonly Pair[], what: 'stock' | 'all' = 'all'): void {
  for (const { itemId, locationId } of pairs) tx.marked.pairs.push({ itemId, locationId, what });
}

/** Marks all pairs of the items that a supplier is a source of; of one source's item; of everything. Too many to
 *  recompute before an answer: the worker takes them. */
export function markSet(tx: Tx, set: MarkedSet): void {
  tx.marked.sets.push(set);
}

/** Writes the marks of a transaction, those of pairs with its commit. A mark is a fresh random number each time. */
export async function flushMarks(tx: Tx): Promise<void> {
  for (const set of tx.marked.sets) await writeSet(tx, set);
  if (tx.marked.pairs.length === 0) return;
  // Of what is marked twice in a transaction, the mark that says more.
  const ordered = [...tx.marked.pairs].sort((a, b) => Number(a.what === 'all') - Number(b.what === 'all'));
  const unique = new Map(ordered.map((p) => [`${p.itemId}/${p.locationId}`, p]));
  const rows = [...unique.values()]
    .sort(byPair)
    .map((p): SqlValue[] => [p.itemId, p.locationId, randomBytes(6).readUIntBE(0, 6), p.what]);
  await tx.later(
    insertStatements(
      'INSERT INTO dirty_pair (item_id, location_id, mark, what)',
      rows,
      "ON DUPLICATE KEY UPDATE mark = VALUES(mark), what = IF(what = 'all', 'all', VALUES(what))",
    ),
  );
}

const FRESH_MARK = 'FLOOR(RAND() * 281474976710656)';

async function writeSet(tx: Tx, set: MarkedSet): Promise<void> {
  const items =
    set === 'everything'
      ? 'SELECT id AS item_id FROM item'
      : 'supplierId' in set
        ? 'SELECT DISTINCT item_id FROM source WHERE supplier_id = :supplierId'
        : 'SELECT item_id FROM source WHERE id = :sourceId';
  await tx.run(
    `INSERT INTO dirty_pair (item_id, location_id, mark)
     SELECT i.item_id, p.id, ${FRESH_MARK} FROM (${items}) i JOIN location p ON p.kind <> 'transit'
      ORDER BY i.item_id, p.id
     ON DUPLICATE KEY UPDATE mark = VALUES(mark), what = 'all'`,
    set === 'everything' ? {} : set,
  );
}

/** Marks what time alone has changed. Returns how many pairs. */
export const markDue = async (tx: Tx, now: string): Promise<number> =>
  (
    await tx.run(
      `INSERT INTO dirty_pair (item_id, location_id, mark)
       SELECT item_id, location_id, ${FRESH_MARK} FROM item_location_state WHERE next_due_at <= :now
        ORDER BY item_id, location_id
       ON DUPLICATE KEY UPDATE mark = VALUES(mark), what = 'all'`,
      { now },
    )
  ).affected;

export const anyDue = async (tx: Tx, now: string): Promise<boolean> =>
  (await tx.row('SELECT 1 AS due FROM item_location_state WHERE next_due_at <= :now LIMIT 1', { now })) !== null;

export const countDirty = async (tx: Tx): Promise<number> =>
  Number((await tx.row<{ n: number }>('SELECT COUNT(*) AS n FROM dirty_pair'))?.n ?? 0);

export const peekDirty = (tx: Tx, limit: number) =>
  tx.rows<Pair>(`SELECT item_id AS itemId, location_id AS locationId FROM dirty_pair
                  ORDER BY item_id, location_id LIMIT ${Math.trunc(limit)}`);

/** Locks the marks of these pairs, when it is answered; those that somebody else is holding are skipped or waited for. While they
 *  are held no change to these pairs can commit, because every change sets its mark in its own transaction. */
export function askDirtyLocked(ask: Asking, pairs: readonly Pair[], others: 'skip' | 'wait'): () => Promise<Pair[]> {
  return ask.rows<Pair>(
    `SELECT d.item_id AS itemId, d.location_id AS locationId FROM ${THESE} STRAIGHT_JOIN dirty_pair d FORCE INDEX (PRIMARY)
         ON d.item_id = x.i AND d.location_id = x.l
      FOR UPDATE ${others === 'skip' ? 'SKIP LOCKED' : ''}`,
    [theseOf([...pairs].sort(byPair))],
  );
}

/** Takes marks away. */
export function dirtyCleared(pairs: readonly Pair[]): Statement[] {
  const statements: Statement[] = [];
  for (let i = 0; i < pairs.length; i += 500)
    statements.push({
      sql: `DELETE d FROM ${THESE} STRAIGHT_JOIN dirty_pair d FORCE INDEX (PRIMARY)
                ON d.item_id = x.i AND d.location_id = x.l`,
      values: [theseOf(pairs.slice(i, i + 500))],
    });
  return statements;
}

export const anyDirty = async (tx: Tx): Promise<boolean> =>
  (await tx.row('SELECT 1 AS dirty FROM dirty_pair LIMIT 1')) !== null;
