import type { Actor } from '@/core/people';
import { err, ok, type Result } from '@/core/result';
import type { Column, Conventions, Reference, Value, Values } from '@/core/sheets';
import { unitsByCode } from '@/core/units';
import { readLocations } from '@/data/repositories/company';
import { readItemNames, readSupplierCodes, readUserLogins } from '@/data/repositories/sheets/choices';
import type { SheetRecord } from '@/data/repositories/sheets/record';
import { readCategories } from '@/data/repositories/sheets/references';
import { readShippingRecords } from '@/data/repositories/sheets/terms';
import type { Tx } from '@/data/sql';
import { readSnapshot } from '@/data/transaction';
import type { Deps } from '../deps';
import type { Failure } from '../failure';
import { Categories } from './categories';
import { seenOf } from './checkRows';
import { sheetKindOf } from './kinds';
import { maySheet } from './lockOwn';
import { readReferences } from './references';
import { isKeyColumn, type SheetKind, text } from './sheetKind';

/** A field of a form: a column of the template as far as the browser needs it. */
export type Field = Pick<Column, 'key' | 'title' | 'explain' | 'kind' | 'required'> & {
  readonly choices: readonly string[];
  readonly most: number | null;
  /** What the field gets in a new record. */
  readonly otherwise: string;
  /** Part of what identifies a record. */
  readonly isKey: boolean;
  /** What it names of other things on file, to choose from: a handful of kinds have few enough. */
  readonly suggest: readonly (readonly [value: string, label: string])[];
  readonly refers: Reference | null;
};

/** A record as a form shows it: text by column, as typed; `seen` tells whether it has changed since. */
export type FormRecord = {
  readonly id: number;
  readonly cells: Readonly<Record<string, string>>;
  readonly seen: string;
};

export type RecordsView = {
  readonly sheet: string;
  readonly title: string;
  readonly about: string;
  readonly fields: readonly Field[];
  readonly records: readonly FormRecord[];
  /** What the items that stand in the records are called, by number. */
  readonly itemNames: Readonly<Record<string, string>>;
  readonly may: boolean;
  readonly removable: boolean;
  /** Whether what identifies a record can be changed. */
  readonly renamable: boolean;
};

/** How fields are written in forms: numbers with the person's decimal mark, dates as a date field has them. */
export const formConventions = (decimal: Conventions['decimal']): Conventions => ({ decimal, dates: 'ymd' });

const cellsOf = (kind: SheetKind, values: Values, how: Conventions): Record<string, string> =>
  Object.fromEntries(kind.columns.map((c) => [c.key, cellText(c, values[c.key] ?? null, how)]));

const cellText = (column: Column, value: Value, how: Conventions): string =>
  value === null || value === '' ? '' : column.write(value, how);

/** Which records: those of something that a column names, one by its key, or all of a short list. */
export type WhichRecords = { readonly of: string; readonly is: string } | { readonly key: Values } | 'all' | 'none';

/** Records of one kind for a form, with its fields. Errors: forbidden (to read them), not_found. */
export async function readRecordsOf(
  deps: Deps,
  actor: Actor,
  asked: { readonly sheet: string; readonly which: WhichRecords; readonly decimal: Conventions['decimal'] },
): Promise<Result<RecordsView, Failure>> {
  const kind = sheetKindOf(asked.sheet);
  const allowed = maySheet(actor, kind);
  if (!allowed.ok) return allowed;
  if (!kind?.byHand) return err({ kind: 'not_found', what: 'template' });
  return readSnapshot(deps.pool, async (tx) => ok(await recordsIn(tx, kind, asked.which, asked.decimal)));
}

/** The same within an open transaction. */
export async function recordsIn(
  tx: Tx,
  kind: SheetKind,
  which: WhichRecords,
  decimal: Conventions['decimal'],
): Promise<RecordsView> {
  const how = formConventions(decimal);
  const found = await foundRecords(tx, kind, which);
  const ofItems = kind.columns.filter((c) => kind.refers[c.key]?.what === 'item').map((c) => c.key);
  const numbers = new Set(found.flatMap((r) => ofItems.map((key) => text(r.values, key))));
  return {
    sheet: kind.name,
    title: kind.title,
    about: kind.about,
    fields: await fieldsOf(tx, kind, how),
    records: found.map((r) => ({ id: r.id, cells: cellsOf(kind, r.values, how), seen: seenOf(r) })),
    itemNames: await readItemNames(tx, [...numbers]),
    may: true,
    removable: kind.remove !== undefined,
    renamable: kind.rename !== undefined,
  };
}

async function foundRecords(tx: Tx, kind: SheetKind, which: WhichRecords): Promise<readonly SheetRecord[]> {
  if (which === 'none') return [];
  if (which === 'all') return newestFirst(kind, await allRecords(tx, kind)).slice(0, MOST);
  if ('of' in which) return kind.listed ? kind.listed(tx, which.of, which.is) : [];
  return kind.find(tx, [which.key], await readReferences(tx, kind, [which.key]), false);
}

/** Most that one page shows. */
const MOST = 2000;

async function allRecords(tx: Tx, kind: SheetKind): Promise<SheetRecord[]> {
  const all: SheetRecord[] = [];
  for (let after = 0; ; ) {
    const page = await kind.page(tx, after, MOST);
    all.push(...page);
    if (page.length < MOST) return all;
    after = page.at(-1)?.id ?? 0;
  }
}

/** What holds from a day on goes by the day, and those of a day by their keys; everything else stays as it came. */
const newestFirst = (kind: SheetKind, records: readonly SheetRecord[]): readonly SheetRecord[] =>
  isKeyColumn(kind, 'valid_from')
    ? [...records].sort(
        (a, b) =>
          String(b.values.valid_from).localeCompare(String(a.values.valid_from)) ||
          kind.keyOf(a.values).localeCompare(kind.keyOf(b.values)),
      )
    : records;

async function fieldsOf(tx: Tx, kind: SheetKind, how: Conventions): Promise<Field[]> {
  const suggestions = new Map<Suggested, readonly (readonly [string, string])[]>();
  const suggest = async (what: Suggested) => {
    const known = suggestions.get(what);
    if (known) return known;
    const made = await suggestionsOf(tx, what);
    suggestions.set(what, made);
    return made;
  };
  const fields: Field[] = [];
  for (const c of kind.columns) {
    const refers = kind.refers[c.key]?.what ?? null;
    fields.push({
      ...{ key: c.key, title: c.title, explain: c.explain, kind: c.kind, required: c.required },
      choices: c.choices ?? [],
      most: c.most ?? null,
      otherwise: cellText(c, c.otherwise, how),
      isKey: isKeyColumn(kind, c.key),
      suggest: await suggest(c.key === 'category' || c.key === 'unit' ? c.key : (refers ?? 'rate')),
      refers,
    });
  }
  return fields;
}

type Suggested = Reference | 'category' | 'unit';

async function suggestionsOf(tx: Tx, what: Suggested): Promise<readonly (readonly [string, string])[]> {
  switch (what) {
    case 'location':
      return (await readLocations(tx)).map((l) => [l.code, l.name]);
    case 'supplier':
      return readSupplierCodes(tx);
    case 'unit':
      return [...unitsByCode.values()].map((u) => [u.code, u.name]);
    case 'user':
      return readUserLogins(tx);
    case 'shipping_way':
      return (await readShippingRecords(tx, shippingName, { after: 0, limit: 500 }, false)).map((r) => [
        text(r.values, 'name'),
        '',
      ]);
    case 'category': {
      const tree = await Categories.read(tx);
      return (await readCategories(tx)).map((c) => [tree.path(c.id), '']);
    }
    default:
      return [];
  }
}

const shippingName = (sheetKindOf('shipping-ways') as SheetKind).columns;
