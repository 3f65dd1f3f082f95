import { type Barcode, parseBarcode } from '@/core/codes';
import { type Actor, may, type Right } from '@/core/people';
import { err, ok, type Result } from '@/core/result';
import { type ListKind, readIdsByCode, readList } from '@/data/repositories/lists';
import { readSnapshot } from '@/data/transaction';
import type { Deps } from '../deps';
import type { Failure } from '../failure';

/** What may be read to look into a list. */
const rights: Readonly<Record<ListKind, Right>> = {
  needs: 'needs.read',
  decisions: 'needs.read',
  trays: 'orders.read',
  orders: 'orders.read',
  items: 'stock.read',
  policies: 'needs.read',
  stock: 'stock.read',
  promises: 'promises.read',
};

/** What a scanned code is on a label; what no label can carry is looked up as it stands. */
function scanned(code: string): Barcode {
  const barcode = parseBarcode(code);
  return barcode.ok ? barcode.value : { kind: 'internal', code };
}

export const isListKind = (text: string): text is ListKind => Object.hasOwn(rights, text);

/** Where in an open list something stands: the first entry of a scanned code (an item's number or barcode, or an order's), or the entry
 *  of an id; -1 when it is not in it. For the policy sheet the entry is the item, not its line.
 *  Errors: forbidden, list_gone. */
export async function findInList(
  deps: Deps,
  actor: Actor,
  kind: ListKind,
  { list, what }: { readonly list: string; readonly what: { readonly code: string } | { readonly id: number } },
): Promise<Result<{ readonly entry: number }, Failure>> {
  const allowed = may(actor, rights[kind]);
  if (!allowed.ok) return allowed;
  return readSnapshot<Result<{ entry: number }, Failure>>(deps.pool, async (tx) => {
    const kept = await readList(tx, { name: list, userId: actor.userId, kind });
    if (!kept) return err({ kind: 'list_gone' });
    const ids = new Set('id' in what ? [what.id] : await readIdsByCode(tx, kind, what.code, scanned(what.code)));
    return ok({ entry: kept.entries.findIndex((id) => ids.has(id)) });
  });
}
