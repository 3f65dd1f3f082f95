import { createHash, randomBytes } from 'node:crypto';
import type { Actor } from '@/core/people';
import { err, ok, type Result } from '@/core/result';
import { deleteOldLists, insertList, type ListKind, type ListRow, readList } from '@/data/repositories/lists';
import type { Tx } from '@/data/sql';
import { readSnapshot, write } from '@/data/transaction';
import { type Deps, stamp } from '../deps';
import type { Failure } from '../failure';

/** Rows that are sent at once. */
export const PAGE = 200;
/** The entry of a group's head; every other entry is the id of a row. */
export const GROUP = 0;
const KEPT_MS = 24 * 3600_000;

/** Rows from one on; at most a page. */
export type Page<R> = { readonly from: number; readonly rows: readonly R[] };
export type AskedRows = { readonly list: string; readonly from: number };

/** What a row was like, as a number: another one means that it changed. */
export const printOf = (text: string): number => createHash('sha1').update(text).digest().readUInt32LE(0);

/** Keeps a list under a name: its entries in their order, and what reading its rows will need to know. */
export async function keepList(
  deps: Deps,
  actor: Actor,
  kind: ListKind,
  content: { readonly ids: readonly number[]; readonly prints?: readonly number[]; readonly about: unknown },
): Promise<string> {
  const name = randomBytes(12).toString('base64url');
  const now = deps.clock();
  const kept = await write(deps.pool, async (tx) => {
    await deleteOldLists(tx, stamp(new Date(now.getTime() - KEPT_MS)));
    await insertList(tx, {
      name,
      userId: actor.userId,
      kind,
      entries: Uint32Array.from(content.ids),
      prints: Uint32Array.from(content.prints ?? []),
      about: content.about,
      at: stamp(now),
    });
    return ok(name);
  });
  if (!kept.ok) throw new Error('a list was not kept');
  return kept.value;
}

/** Rows of an open list, as they are now. Errors: list_gone (never there, another's, or old: open it again). */
export function readRows<R>(
  deps: Deps,
  actor: Actor,
  kind: ListKind,
  { list, from }: AskedRows,
  rowsOf: (tx: Tx, kept: ListRow) => Promise<R[]>,
): Promise<Result<Page<R>, Failure>> {
  return readSnapshot<Result<Page<R>, Failure>>(deps.pool, async (tx) => {
    const kept = await readList(tx, { name: list, userId: actor.userId, kind }, { from, most: PAGE });
    return kept ? ok({ from, rows: await rowsOf(tx, kept) }) : err({ kind: 'list_gone' });
  });
}
