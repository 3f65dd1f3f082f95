import { randomBytes } from 'node:crypto';

/** A list as one person opened it: which rows in which order. It stays as it is while it is worked in. */
export type KeptList<D> = { readonly userId: number; readonly kind: string; readonly count: number; readonly data: D };

const MOST = 60;
const KEPT_MS = 30 * 60_000;

type Entry = { readonly list: KeptList<unknown>; usedAt: number };
const kept = new Map<string, Entry>();

/** Keeps a list in this process and names it. The least used go when there are many: a client that asks for one that is
 *  gone opens it again. */
export function keepList<D>(list: KeptList<D>, now: number): string {
  for (const [name, entry] of kept) if (now - entry.usedAt > KEPT_MS) kept.delete(name);
  while (kept.size >= MOST) kept.delete(kept.keys().next().value as string);
  const name = randomBytes(12).toString('base64url');
  kept.set(name, { list, usedAt: now });
  return name;
}

/** A list this person has opened, or null: never there, another's, of another kind, or gone. */
export function keptList<D>(name: string, userId: number, kind: string, now: number): KeptList<D> | null {
  const entry = kept.get(name);
  if (!entry || entry.list.userId !== userId || entry.list.kind !== kind) return null;
  // Used last: at the end of those that go first.
  kept.delete(name);
  kept.set(name, { list: entry.list, usedAt: now });
  return entry.list as KeptList<D>;
}

/** Rows that are sent at once. */
export const PAGE = 200;
