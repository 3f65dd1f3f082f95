import type { Values } from '@/core/sheets';
import type { Change } from '@/data/repositories/bookkeeping';
import type { References } from './lookedUp';
import { itemId, locationId, supplierId } from './references';
import type { SheetKind } from './sheetKind';

/** What a record is about, for the change record: its item, supplier or place; itself where it is of the company. */
export function subjectOf(
  kind: SheetKind,
  values: Values,
  id: number,
  refs: References,
): Pick<Change, 'entity' | 'entityId'> {
  if (kind.name === 'items') return { entity: 'item', entityId: id };
  if (kind.name === 'suppliers') return { entity: 'supplier', entityId: id };
  if (kind.name === 'locations') return { entity: 'location', entityId: id };
  const item = itemId(refs, values, kind.refers.kit ? 'kit' : 'item');
  if (item !== null) return { entity: 'item', entityId: item };
  const supplier = supplierId(refs, values);
  if (supplier !== null) return { entity: 'supplier', entityId: supplier };
  const location = locationId(refs, values);
  if (location !== null) return { entity: 'location', entityId: location };
  return { entity: 'setup', entityId: id };
}
