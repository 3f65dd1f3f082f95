import { isDate } from '@/core/calendar';
import { type Actor, may } from '@/core/people';
import { ok, type Result } from '@/core/result';
import type { ShownMovementKind } from '@/core/stock';
import { readItemsByIds } from '@/data/repositories/catalogue';
import { readCompany, readLocations } from '@/data/repositories/company';
import {
  type MovementFilter,
  type MovementLine,
  readBalances,
  readMovementLines,
  readReasons,
} from '@/data/repositories/movements';
import { readPeopleNames } from '@/data/repositories/people';
import { readSnapshot } from '@/data/transaction';
import { searchItems } from '../catalogue/itemIndex';
import { type Deps, todayOf } from '../deps';
import type { Failure } from '../failure';

/** Movements that are shown at once. */
export const MOVEMENTS_PAGE = 100;
export type MovementsAsked = {
  /** Words or a number; or one very item. */
  readonly search: string;
  readonly itemId: number | null;
  readonly locationId: number | null;
  readonly userId: number | null;
  readonly kind: ShownMovementKind | null;
  readonly reasonId: number | null;
  readonly document: string;
  readonly from: string;
  readonly to: string;
  readonly before: number;
};

export type MovementsView = {
  readonly movements: readonly (MovementLine & { readonly location: string })[];
  /** There are older ones than these. */
  readonly more: boolean;
  readonly currency: string;
  readonly today: string;
  /** Tills are there that sales can be taken from. */
  readonly till: boolean;
  readonly item: { readonly id: number; readonly number: string; readonly name: string; readonly unit: string } | null;
  /** With one item: what was there at the close of the day asked up to (today without one), by place. */
  readonly balance: readonly { readonly location: string; readonly quantity: string; readonly value: number }[];
  readonly people: readonly { readonly id: number; readonly name: string }[];
  readonly reasons: readonly { readonly id: number; readonly name: string }[];
};

/** One list over everything that moved, at the person's places; narrowed by item, day, place, person, kind, reason, document.
 *  Errors: forbidden. */
export async function readMovements(
  deps: Deps,
  actor: Actor,
  asked: MovementsAsked,
): Promise<Result<MovementsView, Failure>> {
  const { locationId } = asked;
  const allowed = may(actor, 'stock.read', locationId === null ? {} : { locationIds: [locationId] });
  if (!allowed.ok) return allowed;
  return readSnapshot(deps.pool, async (tx) => {
    const company = await readCompany(tx);
    const today = todayOf(deps, company);
    const places = (await readLocations(tx)).filter((l) => actor.locations === null || actor.locations.includes(l.id));
    const at = locationId === null ? (actor.locations ?? null) : [locationId];
    const found =
      asked.itemId !== null ? [asked.itemId] : asked.search.trim() === '' ? null : await searchItems(tx, asked.search);
    const day = (text: string) => (isDate(text) ? text : '');
    const filter: MovementFilter = {
      ...{ itemIds: found?.slice(0, 2000) ?? null, locationIds: at, userId: asked.userId, kind: asked.kind },
      ...{ reasonId: asked.reasonId, document: asked.document.trim(), from: day(asked.from), to: day(asked.to) },
      before: asked.before,
    };
    const rows = await readMovementLines(tx, filter, MOVEMENTS_PAGE + 1);
    const single = found?.length === 1 ? (found[0] as number) : null;
    const item = single === null ? undefined : (await readItemsByIds(tx, [single])).get(single);
    const names = new Map(places.map((l) => [l.id, l.name]));
    const balance = single === null ? [] : await readBalances(tx, filter.to || today, at, [single]);
    return ok({
      movements: rows.slice(0, MOVEMENTS_PAGE).map((m) => ({ ...m, location: names.get(m.locationId) ?? '' })),
      more: rows.length > MOVEMENTS_PAGE,
      currency: company.currency,
      till: (process.env.VORRAT_TILL_URL ?? '') !== '',
      today,
      item: item ? { id: item.id, number: item.number, name: item.name, unit: item.unitName } : null,
      balance: balance.flatMap((b) => {
        const location = names.get(b.locationId);
        return location === undefined ? [] : [{ location, quantity: b.quantity, value: b.value }];
      }),
      people: await readPeopleNames(tx),
      reasons: await readReasons(tx),
    });
  });
}
