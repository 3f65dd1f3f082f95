import { type Completion, whatIsMissing } from '@/core/catalogue';
import { decimalsOf } from '@/core/money';
import { packContent } from '@/core/packs';
import { type Actor, may, responsibleBuyer } from '@/core/people';
import { err, ok, type Result } from '@/core/result';
import { marginPercent, type SalePrice, type SetPrice, salePriceOf, withoutTax } from '@/core/selling';
import type { Conventions } from '@/core/sheets';
import type { SourceRule } from '@/core/sourcing';
import { type Fraction, fraction } from '@/core/units';
import { findItem, type ItemRow, readCategoryTree, readNamedBuyers, readPacks } from '@/data/repositories/catalogue';
import { readCompany, readLocations } from '@/data/repositories/company';
import { readCompleteness, readSetPrices, readUserName } from '@/data/repositories/itemFile';
import type { Tx } from '@/data/sql';
import { readSnapshot } from '@/data/transaction';
import { estimateLanded, type LandedEstimate, leastOrder, readLandedBook } from '../cost/estimateLanded';
import { readExchange } from '../cost/exchange';
import { type Deps, todayOf } from '../deps';
import type { Failure } from '../failure';
import { proposedPrice } from '../purchase/proposedPrice';
import { sheetKinds } from '../sheets/kinds';
import { maySheet } from '../sheets/lockOwn';
import { type RecordsView, recordsIn } from '../sheets/readRecords';
import type { SheetName } from '../sheets/sheetKind';
import { readBuying } from './buying';
import { buyersUp } from './findItems';
import { chosenSources } from './sourceRules';

/** What an item sells at in one pack. */
export type SellingRow = {
  readonly pack: string | null;
  readonly content: Fraction;
  readonly everywhere: SalePrice | null;
  /** Places that have another price. */
  readonly at: readonly { readonly place: string; readonly price: SalePrice }[];
  readonly net: string | null;
  readonly margin: string | null;
};

/** A source with what goods from there cost on the shelf, and which places buy there by which rule. */
export type SourceEstimate = {
  readonly sourceId: number;
  readonly supplierId: number;
  readonly supplier: string;
  readonly packName: string | null;
  readonly estimate: LandedEstimate | null;
  readonly places: readonly { readonly place: string; readonly rule: SourceRule }[];
};

export type ItemFile = {
  readonly item: ItemRow;
  readonly missing: readonly Completion[];
  readonly buyer: { readonly name: string; readonly by: 'item' | 'category' | 'supplier' } | null;
  readonly records: Readonly<Partial<Record<SheetName, RecordsView>>>;
  readonly selling: readonly SellingRow[];
  readonly sources: readonly SourceEstimate[];
  /** What a base unit is proposed to cost where no price applies. */
  readonly proposed: { readonly amount: string; readonly origin: 'standard_cost' | 'last_price' } | null;
  readonly currency: string;
  readonly isKit: boolean;
};

/** The kinds of record an item has, with the column that names it. */
const kinds = [
  ['packs', 'item'],
  ['barcodes', 'item'],
  ['sources', 'item'],
  ['prices', 'item'],
  ['source-places', 'item'],
  ['sale-prices', 'item'],
  ['places', 'item'],
  ['seasons', 'item'],
  ['kits', 'kit'],
  ['families', 'item'],
] as const satisfies readonly (readonly [SheetName, string])[];

/** Everything on file of an item, each part with what its form needs; what is missing; what it sells at; what it costs landed
 *  from each source. Errors: forbidden, not_found. */
export async function readItemFile(
  deps: Deps,
  actor: Actor,
  itemId: number,
  decimal: Conventions['decimal'],
): Promise<Result<ItemFile, Failure>> {
  const allowed = may(actor, 'stock.read');
  if (!allowed.ok) return allowed;
  return readSnapshot<Result<ItemFile, Failure>>(deps.pool, async (tx) => {
    const item = await findItem(tx, itemId);
    if (!item) return err({ kind: 'not_found', what: 'item' });
    const company = await readCompany(tx);
    const today = todayOf(deps, company);
    const own = await recordsIn(tx, sheetKinds.items, { key: { number: item.number } }, decimal);
    const records: Partial<Record<SheetName, RecordsView>> = {
      items: { ...own, may: maySheet(actor, sheetKinds.items).ok },
    };
    for (const [name, column] of kinds) {
      const view = await recordsIn(tx, sheetKinds[name], { of: column, is: item.number }, decimal);
      records[name] = { ...view, may: maySheet(actor, sheetKinds[name]).ok };
    }
    const facts = await readCompleteness(tx, itemId);
    const mayPrices = may(actor, 'orders.read').ok;
    const sources = mayPrices ? await sourcesOf(tx, itemId, company.currency, today) : [];
    const landed = sources.find((s) => s.places.length > 0)?.estimate?.each ?? null;
    return ok({
      item,
      missing: whatIsMissing(facts),
      buyer: await buyerOf(tx, itemId),
      records,
      selling: await sellingOf(tx, item, decimalsOf(company.currency), landed),
      sources,
      proposed: mayPrices ? await proposedPrice(tx, itemId, company.currency, today) : null,
      currency: company.currency,
      isKit: (records.kits?.records.length ?? 0) > 0,
    });
  });
}

async function buyerOf(tx: Tx, itemId: number): Promise<ItemFile['buyer']> {
  const tree = new Map((await readCategoryTree(tx)).map((c) => [c.id, c]));
  const [named] = await readNamedBuyers(tx, itemId);
  if (!named) return null;
  const found = responsibleBuyer({
    item: named.own,
    categories: buyersUp(tree, named.categoryId),
    supplier: named.supplier,
  });
  const name = found && (await readUserName(tx, found.buyer));
  return found && name ? { name, by: found.by } : null;
}

async function sellingOf(tx: Tx, item: ItemRow, decimals: number, cost: string | null): Promise<SellingRow[]> {
  const packs = await readPacks(tx, [item.id]);
  const byId = new Map(packs.map((p) => [p.id, p]));
  const prices: readonly SetPrice[] = await readSetPrices(tx, item.id);
  const places = (await readLocations(tx)).filter((l) => l.closed === 0);
  const { sellPackId: selling } = await readCompleteness(tx, item.id);
  const rows = [
    null,
    ...packs.filter((p) => p.id === selling || prices.some((s) => s.packId === p.id)).map((p) => p.id),
  ];
  return rows.map((packId): SellingRow => {
    const content = packId === null ? fraction(1) : contentOf(byId, packId);
    const at = (locationId: number | null) => salePriceOf(prices, { packId, content, locationId }, decimals);
    const everywhere = at(null);
    const net = everywhere && withoutTax(everywhere, decimals);
    return {
      pack: packId === null ? null : (byId.get(packId)?.name ?? null),
      content,
      everywhere,
      at: places.flatMap((l) => {
        const price = at(l.id);
        return price?.here ? [{ place: l.name, price }] : [];
      }),
      net,
      margin: packId === null && net && cost ? marginPercent(net, cost) : null,
    };
  });
}

const contentOf = (packs: Parameters<typeof packContent>[0], id: number): Fraction => {
  const content = packContent(packs, id);
  return content.ok ? content.value : fraction(1);
};

async function sourcesOf(tx: Tx, itemId: number, currency: string, today: string): Promise<SourceEstimate[]> {
  const buyings = await readBuying(tx, [itemId]);
  const all = [...buyings.bySource.values()];
  const book = await readLandedBook(tx, all);
  const exchange = await readExchange(tx, currency, today);
  const chosen = await chosenSources(tx, buyings, [itemId]);
  const choices = (await readLocations(tx)).flatMap((l) => {
    const own = l.closed === 0 ? chosen(itemId, l.id) : null;
    return own ? [{ place: l.name, ...own }] : [];
  });
  return all.map((b) => {
    const { quantity, packs } = leastOrder(b);
    return {
      ...{ sourceId: b.source.id, supplierId: b.source.supplierId, supplier: b.source.supplierName },
      packName: b.packName,
      estimate: estimateLanded(book, b, quantity, packs, exchange, today),
      places: choices.filter((c) => c.sourceId === b.source.id).map(({ place, rule }) => ({ place, rule })),
    };
  });
}
