import type { Reference, RowFault, Values } from '@/core/sheets';
import {
  familiesByName,
  itemsByNumber,
  locationsByCode,
  packsOfItems,
  shippingWaysByName,
  sourcesOfItems,
  suppliersByCode,
  usersByLogin,
} from '@/data/repositories/sheets/references';
import type { Tx } from '@/data/sql';
import type { References } from './lookedUp';
import { faultAt, type SheetKind, text } from './sheetKind';

const by = <T>(rows: readonly T[], key: (row: T) => string): Map<string, T> => new Map(rows.map((r) => [key(r), r]));

/** Looks up what the rows of a kind of spreadsheet refer to. */
export async function readReferences(tx: Tx, kind: SheetKind, rows: readonly Values[]): Promise<References> {
  const named = (what: string) => {
    const columns = Object.entries(kind.refers).flatMap(([c, r]) => (r.what === what ? [c] : []));
    return [...new Set(rows.flatMap((r) => columns.map((c) => text(r, c))))].filter((t) => t !== '');
  };
  const wants = (what: string) => Object.values(kind.refers).some((r) => r.what === what);
  const items = await itemsByNumber(tx, named('item'));
  const ids = items.map((i) => i.id);
  const packs = wants('pack') ? await packsOfItems(tx, ids) : [];
  const sources = kind.needsSources ? await sourcesOfItems(tx, ids) : [];
  return {
    items: by(items, (i) => i.number),
    suppliers: by(await suppliersByCode(tx, named('supplier')), (s) => s.code),
    locations: by(await locationsByCode(tx, named('location')), (l) => l.code),
    packs: by(packs, (p) => `${p.itemId} ${p.name}`),
    families: by(await familiesByName(tx, named('family')), (f) => f.name),
    sources: by(sources, (s) => `${s.itemId} ${s.supplierId}`),
    users: by(await usersByLogin(tx, named('user')), (u) => u.login),
    shippingWays: by(await shippingWaysByName(tx, named('shipping_way')), (w) => w.name),
    unitInUse: new Set(),
    withStock: new Set(),
    inTheWay: new Map(),
  };
}

/** Ids of what a row names; null where it names nothing. */
export const supplierId = (refs: References, values: Values, column = 'supplier'): number | null =>
  refs.suppliers.get(text(values, column))?.id ?? null;
export const locationId = (refs: References, values: Values, column = 'location'): number | null =>
  refs.locations.get(text(values, column))?.id ?? null;
export const userId = (refs: References, values: Values, column: string): number | null =>
  refs.users.get(text(values, column))?.id ?? null;

/** The source that the item and the supplier of a row make. */
export const sourceId = (refs: References, values: Values): number | null =>
  refs.sources.get(`${itemId(refs, values)} ${supplierId(refs, values)}`)?.id ?? null;

export const itemId = (refs: References, values: Values, column = 'item'): number | null =>
  refs.items.get(text(values, column))?.id ?? null;

/** The id of the pack that a row names of its item; null = the base unit. */
export const packId = (refs: References, values: Values, column = 'pack'): number | null =>
  refs.packs.get(`${itemId(refs, values)} ${text(values, column)}`)?.id ?? null;

function isThere(what: Reference, name: string, column: string, values: Values, refs: References): boolean {
  switch (what) {
    case 'item':
      return refs.items.has(name);
    case 'supplier':
      return refs.suppliers.has(name);
    case 'location':
      return refs.locations.has(name);
    case 'user':
      return refs.users.has(name);
    case 'shipping_way':
      return refs.shippingWays.has(name);
    case 'pack':
      return itemId(refs, values) === null || packId(refs, values, column) !== null;
    default:
      return true;
  }
}

/** What a row names and is not on file: a fault, or, where it may stand in the same file, something to be looked up there
 *  once all rows have been read. */
export function missingReferences(
  kind: SheetKind,
  values: Values,
  refs: References,
): { faults: RowFault[]; own: { column: string; key: string }[] } {
  const faults: RowFault[] = [];
  const own: { column: string; key: string }[] = [];
  for (const [column, { what, own: inFile }] of Object.entries(kind.refers)) {
    const name = text(values, column);
    if (name === '') continue;
    if (isThere(what, name, column, values, refs)) continue;
    if (inFile) own.push({ column, key: what === 'pack' ? `${text(values, 'item')}\u001f${name}` : name });
    else faults.push(faultAt(column, values, { kind: 'not_on_file', what }));
  }
  return { faults, own };
}
