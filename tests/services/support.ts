import { randomBytes } from 'node:crypto';
import type { Pool } from 'mysql2/promise';
import type { Actor } from '@/core/people';
import type { Result } from '@/core/result';
import { checkInvariants } from '@/data/repositories/invariants';
import { readSnapshot } from '@/data/transaction';
import type { Deps } from '@/services/deps';
import { acceptNeed } from '@/services/planning/acceptNeed';
import { openNeeds, readNeedRows } from '@/services/planning/readNeeds';
import { readReckonings } from '@/services/planning/readReckonings';
import { savePolicies } from '@/services/planning/savePolicies';
import { giveSchemaBack, MONDAY, openAsApplication, openAsOwner, takeSchema } from './schemas';

export { MONDAY, migrations } from './schemas';

export type Books = {
  readonly deps: Deps & { setClock: (iso: string) => void };
  /** The owner's account, for looking at rows. */
  readonly owner: Pool;
  readonly name: string;
  readonly rows: <T = Record<string, unknown>>(sql: string, values?: unknown[]) => Promise<T[]>;
  readonly one: <T = Record<string, unknown>>(sql: string, values?: unknown[]) => Promise<T>;
  readonly close: () => Promise<void>;
};

/** A schema of its own with the demo company (what it began with, or the whole of it), used with the application's own rights. */
export async function freshBooks({ seed = true, whole = false } = {}): Promise<Books> {
  const name = await takeSchema(whole ? 'whole' : seed ? 'small' : 'empty');
  const owner = openAsOwner(name);
  const pool = openAsApplication(name);
  let now = Date.parse(MONDAY);
  const rows = async <T>(sql: string, values: unknown[] = []) => (await owner.query(sql, values))[0] as T[];
  return {
    deps: {
      pool,
      clock: () => new Date(now),
      setClock: (iso) => {
        now = Date.parse(iso);
      },
    },
    owner,
    name,
    rows,
    one: async <T>(sql: string, values: unknown[] = []) => {
      const [row] = await rows<T>(sql, values);
      if (!row) throw new Error(`no row: ${sql}`);
      return row;
    },
    close: async () => {
      await pool.end();
      await giveSchemaBack(owner, name);
      await owner.end();
    },
  };
}

export const mira: Actor = {
  userId: 1,
  name: 'Mira Rook',
  initials: 'MR',
  role: 'buyer',
  locations: null,
  approvalLimit: 250_000,
  locale: '',
};
export const otto: Actor = {
  userId: 2,
  name: 'Otto Quillon',
  initials: 'OQ',
  role: 'owner',
  locations: null,
  approvalLimit: null,
  locale: '',
};
export const jun: Actor = {
  userId: 3,
  name: 'Jun Abara',
  initials: 'JA',
  role: 'shop',
  locations: [3],
  approvalLimit: 0,
  locale: '',
};
export const edda: Actor = {
  userId: 4,
  name: 'Edda Lind',
  initials: 'EL',
  role: 'bookkeeper',
  locations: null,
  approvalLimit: 0,
  locale: '',
};

/** A command with a key of its own. */
export const req = <I>(input: I) => ({ key: randomBytes(15).toString('base64url'), input });

export function must<T, E>(result: Result<T, E>): T {
  if (!result.ok) throw new Error(JSON.stringify(result.error));
  return result.value;
}

/** Violated invariants of the books, by name; empty in sound books. */
export const violations = async (books: Books) =>
  (await readSnapshot(books.owner, checkInvariants)).filter((f) => f.violations > 0);

export type NeedRow = {
  id: number;
  fingerprint: string;
  state: string;
  suggested: string;
  shortage: string;
  cause: string;
  itemId: number;
  locationId: number;
};

/** The need of an item at a place, by number and code. */
export const needOf = (books: Books, number: string, code: string) =>
  books.one<NeedRow>(
    `SELECT n.id, n.fingerprint, n.state, n.suggested, n.shortage, n.cause, n.item_id AS itemId, n.location_id AS locationId
       FROM need n JOIN item i ON i.id = n.item_id JOIN location l ON l.id = n.location_id WHERE i.number = ? AND l.code = ?`,
    [number, code],
  );

/** What is set for an item at a place (null = everywhere), as its cells show it; null when nothing is. */
export async function cellsOf(books: Books, itemId: number, locationId: number | null) {
  const [row] = await books.rows<{ min: string | null; max: string | null }>(
    'SELECT min_quantity AS min, max_quantity AS max FROM policy WHERE item_id = ? AND scope = ?',
    [itemId, locationId ?? 0],
  );
  const text = (q: string | null) => (q === null ? '' : String(Number(q)));
  return row ? { min: text(row.min), max: text(row.max) } : null;
}

/** Accepts some open need into its tray. */
export async function acceptSome(books: Books, packs: string) {
  const need = await books.one<{ id: number; fingerprint: string }>(
    "SELECT id, fingerprint FROM need WHERE state = 'open' AND source_id IS NOT NULL ORDER BY id LIMIT 1",
  );
  return must(await acceptNeed(books.deps, mira, req({ needId: need.id, fingerprint: need.fingerprint, packs })));
}

/** The open list of needs with all of its entries. */
export async function needsOf(books: Books, actor: Actor, locationId: number | null = null) {
  const head = must(await openNeeds(books.deps, actor, { locationId }));
  const { rows } = must(await readNeedRows(books.deps, actor, { list: head.list, from: 0 }));
  const needs = rows.flatMap((r) => (r.kind === 'need' ? [r] : []));
  const sums = must(
    await readReckonings(
      books.deps,
      actor,
      needs.map((n) => n.id),
    ),
  );
  const reckonings = new Map(sums.map((s) => [s.needId, s.reckoning]));
  return {
    head,
    groups: rows.flatMap((r) => (r.kind === 'group' ? [r.group] : [])),
    needs: needs.map((n) => ({ ...n, reckoning: reckonings.get(n.id) ?? null })),
  };
}

type MinMax = {
  readonly itemId: number;
  readonly locationId: number | null;
  readonly min: string;
  readonly max: string;
  readonly was: { readonly min: string; readonly max: string } | null;
};

/** Minimum and maximum of one line of the policy sheet, as somebody who saw `was` (null = nothing set) types them; without a
 *  minimum the line follows what is wider again. */
export const setMinMax = (deps: Deps, actor: Actor, { key, input }: { key: string; input: MinMax }) => {
  const { itemId, locationId, min, max, was } = input;
  const gone = min === '' && was !== null;
  const seen: Record<string, string> = {
    min: was?.min ?? '',
    max: was?.max ?? '',
    ...(gone ? { kind: 'min_max' } : {}),
  };
  const now: Record<string, string> = gone ? { kind: '', min: '', max: '' } : { min, max };
  return savePolicies(deps, actor, { key, input: { edits: [{ itemId, locationId, was: seen, now }] } });
};
