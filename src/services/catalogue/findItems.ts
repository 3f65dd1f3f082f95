import { type Actor, responsibleBuyer } from '@/core/people';
import { readCategoryTree, readItemIds, readNamedBuyers } from '@/data/repositories/catalogue';
import { findSupplierByCode } from '@/data/repositories/suppliers';
import type { Tx } from '@/data/sql';
import { searchItems } from './itemIndex';

export const itemSorts = ['name', 'number', 'value'] as const;
export type ItemSort = (typeof itemSorts)[number];
/** What a list of items can be narrowed to, besides words, a category and a supplier. */
export const itemViews = ['all', 'mine', 'to_complete', 'no_supplier', 'phase_out', 'stopped'] as const;
export type ItemView = (typeof itemViews)[number];

export type ItemsAsked = {
  readonly search: string;
  readonly view: ItemView;
  /** Path of a category with everything below it; '' = all. */
  readonly category: string;
  /** Code of a supplier that sells it; '' = any. */
  readonly supplier: string;
  readonly sort: ItemSort;
  /** Only those that this person is responsible for. */
  readonly buyerId?: number | null;
  /** Only what stock is kept of. */
  readonly stockKept?: boolean;
};
export const everyItem: ItemsAsked = { search: '', view: 'all', category: '', supplier: '', sort: 'name' };

/** Ids of the items asked for, in order; with words typed and sorted by name, the best fit first. */
export async function findItems(
  tx: Tx,
  actor: Actor,
  asked: ItemsAsked,
  locationIds: readonly number[] | null,
): Promise<number[]> {
  const tree = await readCategoryTree(tx);
  const supplier = asked.supplier === '' ? null : await findSupplierByCode(tx, asked.supplier);
  if (asked.supplier !== '' && !supplier) return [];
  const ids = await readItemIds(
    tx,
    {
      toComplete: asked.view === 'to_complete',
      noSupplier: asked.view === 'no_supplier',
      status: asked.view === 'phase_out' || asked.view === 'stopped' ? asked.view : '',
      categoryIds: asked.category === '' ? null : idsBelow(tree, asked.category),
      supplierId: supplier?.id ?? null,
      stockKept: asked.stockKept === true,
    },
    asked.sort,
    locationIds,
  );
  const buyerId = asked.view === 'mine' ? actor.userId : (asked.buyerId ?? null);
  const theirs = buyerId === null ? null : await itemsOfBuyer(tx, tree, buyerId);
  const own = theirs ? ids.filter((id) => theirs.has(id)) : ids;
  if (asked.search.trim() === '') return own;
  const fitting = await searchItems(tx, asked.search);
  if (asked.sort === 'name') {
    const there = new Set(own);
    return fitting.filter((id) => there.has(id));
  }
  const fits = new Set(fitting);
  return own.filter((id) => fits.has(id));
}

type Tree = Awaited<ReturnType<typeof readCategoryTree>>;

/** Names of a category from the top down. */
export const pathOf = (tree: ReadonlyMap<number, Tree[number]>, id: number): string => {
  const c = tree.get(id);
  if (!c) return '';
  return c.parentId === null ? c.name : `${pathOf(tree, c.parentId)} > ${c.name}`;
};

function idsBelow(tree: Tree, path: string): number[] {
  const byId = new Map(tree.map((c) => [c.id, c]));
  return tree.flatMap((c) => {
    const own = pathOf(byId, c.id);
    return own === path || own.startsWith(`${path} > `) ? [c.id] : [];
  });
}

/** Buyers named by a category and those above it, from it up. */
export const buyersUp = (tree: ReadonlyMap<number, Tree[number]>, id: number): (number | null)[] => {
  const c = tree.get(id);
  return c ? [c.buyerId, ...(c.parentId === null ? [] : buyersUp(tree, c.parentId))] : [];
};

async function itemsOfBuyer(tx: Tx, tree: Tree, userId: number): Promise<Set<number>> {
  const byId = new Map(tree.map((c) => [c.id, c]));
  const mine = new Set<number>();
  for (const { itemId, categoryId, own, supplier } of await readNamedBuyers(tx)) {
    const named = responsibleBuyer({ item: own, categories: buyersUp(byId, categoryId), supplier });
    if (named?.buyer === userId) mine.add(itemId);
  }
  return mine;
}
