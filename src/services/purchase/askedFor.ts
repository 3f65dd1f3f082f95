import { baseQuantity } from '@/core/packs';
import { type Actor, may } from '@/core/people';
import { fromDecimal, MICRO, type Quantity } from '@/core/quantity';
import { err, ok, type Result } from '@/core/result';
import { readSoldBy } from '@/data/repositories/catalogue';
import { type OpenMaterial, readOpenMaterials } from '@/data/repositories/jobMaterials';
import { findOrder } from '@/data/repositories/orders';
import { type Peggable, readPeggable } from '@/data/repositories/peggable';
import { readOpenNeeds } from '@/data/repositories/planning';
import type { Tx } from '@/data/sql';
import { readSnapshot } from '@/data/transaction';
import { type Buying, readBuying } from '../catalogue/buying';
import type { Deps } from '../deps';
import type { Failure } from '../failure';
import { needViewsOf } from '../planning/needViews';

/** A need that somebody waits for: a customer, or a shop that asked for it. */
export type AskedNeed = {
  readonly needId: number;
  readonly itemNumber: string;
  readonly itemName: string;
  readonly location: string;
  /** The document it is bought for one to one, or who waits in general. */
  readonly who: string;
  readonly packs: Quantity;
  readonly base: Quantity;
  readonly packName: string;
  readonly unit: string;
  readonly runOut: string | null;
};
/** Material that a job of ours needs and nobody has ordered. */
export type AskedMaterial = Omit<OpenMaterial, 'open'> & {
  readonly open: Quantity;
  readonly packs: Quantity;
  readonly base: Quantity;
  readonly packName: string;
};
/** A line of a customer's order or of a place's request that can be bought for one to one. */
export type AskedLine = Omit<Peggable, 'asked' | 'held'> & {
  readonly open: Quantity;
  readonly packs: Quantity;
  readonly packName: string;
};
export type AskedFor = {
  readonly needs: readonly AskedNeed[];
  readonly lines: readonly AskedLine[];
  readonly materials: readonly AskedMaterial[];
};

/** Whole packs that bring at least so much, in millionths. */
export const packsFor = (buying: Buying, open: Quantity): Quantity => {
  const { num, den } = buying.content;
  const inOne = num * BigInt(MICRO);
  return Number((BigInt(open) * den + inOne - 1n) / inOne) * MICRO;
};

/** How these items are bought from one supplier, by item; without those it does not sell. */
async function boughtOf(
  tx: Tx,
  supplierId: number,
  lines: readonly { readonly itemId: number }[],
): Promise<ReadonlyMap<number, Buying>> {
  const book = await readBuying(
    tx,
    lines.map((l) => l.itemId),
  );
  return new Map(
    [...book.bySource.values()].filter((b) => b.source.supplierId === supplierId).map((b) => [b.source.itemId, b]),
  );
}

/** What its supplier sells of what jobs still need, by item. */
export async function materialsOf(
  tx: Tx,
  supplierId: number,
  places: readonly number[] | null,
): Promise<{ readonly material: OpenMaterial; readonly buying: Buying }[]> {
  const all = await readOpenMaterials(tx, null);
  const sold = await boughtOf(tx, supplierId, all);
  return all.flatMap((material) => {
    const buying = sold.get(material.itemId);
    const here = places === null || places.includes(material.locationId);
    return buying && here ? [{ material, buying }] : [];
  });
}

/** What its supplier sells of what customers and places ask for by name and nothing is bought for one to one. */
export async function peggableOf(
  tx: Tx,
  supplierId: number,
  places: readonly number[] | null,
): Promise<{ readonly line: Peggable; readonly buying: Buying }[]> {
  const sold = await readSoldBy(tx, supplierId);
  if (sold.length === 0) return [];
  const lines = (await readPeggable(tx, sold)).filter((l) => places === null || places.includes(l.locationId));
  const buyings = await boughtOf(tx, supplierId, lines);
  return lines.flatMap((line) => {
    const buying = buyings.get(line.itemId);
    return buying ? [{ line, buying }] : [];
  });
}

/** What is asked for by name and the order's supplier sells: by customers, by shops, by our own jobs. Errors: forbidden, not_found. */
export async function readAskedFor(deps: Deps, actor: Actor, orderId: number): Promise<Result<AskedFor, Failure>> {
  const allowed = may(actor, 'orders.edit');
  if (!allowed.ok) return allowed;
  return readSnapshot<Result<AskedFor, Failure>>(deps.pool, async (tx) => {
    const order = await findOrder(tx, orderId);
    if (!order) return err({ kind: 'not_found', what: 'order' });
    const open = (await readOpenNeeds(tx, actor.locations)).filter(
      (n) => n.supplierId === order.supplierId && n.sender === null,
    );
    const views = await needViewsOf(
      deps,
      tx,
      open.map((n) => n.id),
    );
    const needs = open.flatMap((n): AskedNeed[] => {
      const v = views.get(n.id);
      const waits = v?.causes.includes('customer_waits');
      if (!v || v.packs === 0 || !(v.boughtFor || waits || v.causes.includes('shop_asks'))) return [];
      const who = v.boughtFor ? `${v.boughtFor.document}, ${v.boughtFor.who}` : waits ? 'customers wait' : 'shops ask';
      const { itemNumber, itemName, location, packs, base, packName, unit, runOut } = v;
      return [{ needId: n.id, who, itemNumber, itemName, location, packs, base, packName, unit, runOut }];
    });
    const materials = (await materialsOf(tx, order.supplierId, actor.locations)).map(
      ({ material, buying }): AskedMaterial => {
        const packs = packsFor(buying, fromDecimal(material.open));
        return {
          ...{ ...material, open: fromDecimal(material.open), packs },
          ...{ base: baseQuantity(packs, buying.content), packName: buying.packName ?? material.unitName },
        };
      },
    );
    const lines = (await peggableOf(tx, order.supplierId, actor.locations)).map(
      ({ line: { asked, held, ...line }, buying }): AskedLine => {
        const open = fromDecimal(asked) - fromDecimal(held);
        return { ...line, open, packs: packsFor(buying, open), packName: buying.packName ?? line.unitName };
      },
    );
    return ok({ needs, lines, materials });
  });
}
