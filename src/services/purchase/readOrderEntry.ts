import { eachText, withCents } from '@/core/money';
import { baseQuantity } from '@/core/packs';
import { type Actor, may } from '@/core/people';
import { fromDecimal, parseQuantity, type Quantity, toDecimal, units } from '@/core/quantity';
import { err, ok, type Result } from '@/core/result';
import type { CostOrigin } from '@/core/sourcing';
import { type Fraction, fraction } from '@/core/units';
import { readCompany } from '@/data/repositories/company';
import { readLevels } from '@/data/repositories/levels';
import { findOrder } from '@/data/repositories/orders';
import { readStates } from '@/data/repositories/planning';
import type { Tx } from '@/data/sql';
import { readSnapshot } from '@/data/transaction';
import { type Buying, readBuying } from '../catalogue/buying';
import { readingThatFits } from '../catalogue/entryReading';
import { type Deps, todayOf } from '../deps';
import type { Failure } from '../failure';
import { freeOf } from '../stock/gauge';
import { inPack } from './enterOrder';
import { proposedPrice } from './proposedPrice';

/** An item that fits a line typed for an order, as the line would be. */
export type OrderEntryMatch = {
  readonly itemId: number;
  readonly number: string;
  readonly name: string;
  readonly unit: string;
  /** null = by the base unit. */
  readonly packId: number | null;
  readonly packName: string;
  /** As typed; '1' where no quantity was said. */
  readonly quantity: string;
  readonly base: Quantity;
  /** Price per pack and per base unit in the order's currency, and where it is from; null where nothing is on file. */
  readonly price: string | null;
  readonly each: string | null;
  readonly origin: 'list' | CostOrigin | null;
  /** The supplier has sold it to us before. */
  readonly sold: boolean;
  readonly free: Quantity;
  readonly coming: Quantity;
};

/** Items that fit a line typed into one field ("6 bag fen moss", "10412-07 60", a scan), as the order's supplier sells them: in
 *  the pack that was said, else in the usual one and by the base unit; what it sells already before what it does not.
 *  Errors: forbidden, not_found. */
export async function readOrderEntry(
  deps: Deps,
  actor: Actor,
  { text, orderId, locationId }: { readonly text: string; readonly orderId: number; readonly locationId: number },
): Promise<Result<readonly OrderEntryMatch[], Failure>> {
  const allowed = may(actor, 'orders.edit', { locationIds: [locationId] });
  if (!allowed.ok) return allowed;
  return readSnapshot<Result<readonly OrderEntryMatch[], Failure>>(deps.pool, async (tx) => {
    const order = await findOrder(tx, orderId);
    if (!order) return err({ kind: 'not_found', what: 'order' });
    const found = await readingThatFits(tx, text);
    if (!found) return ok([]);
    const { reading, packOf } = found;
    // A number or a code says which it is.
    const items = found.exact > 0 ? found.items.slice(0, found.exact) : found.items;
    const ids = items.map((i) => i.id);
    const book = await readBuying(tx, ids);
    const levels = await readLevels(tx, ids, [locationId]);
    const states = await readStates(tx, ids, [locationId]);
    const today = todayOf(deps, await readCompany(tx));
    const typed = parseQuantity(reading.quantity || '1');
    const packs = typed.ok ? typed.value : units(1);
    const matches: OrderEntryMatch[] = [];
    for (const i of items) {
      const own = [...book.bySource.values()].find(
        (b) => b.source.itemId === i.id && b.source.supplierId === order.supplierId,
      );
      const said = packOf(i.id);
      const pack = said ? { id: said.id, name: said.name, content: book.contentOf(said.id) } : null;
      const usual = { content: own?.content ?? fraction(1n), name: own?.packName ?? i.unitName };
      const ways: (Buying | undefined)[] = [
        own && (reading.pack === '' ? own : inPack(own, pack)),
        ...(own && reading.pack === '' && own.source.packId !== null ? [inPack(own, null)] : []),
      ];
      const level = levels.find((l) => l.itemId === i.id);
      const state = states.find((s) => s.itemId === i.id);
      for (const way of ways) {
        const content = way?.content ?? pack?.content ?? usual.content;
        matches.push({
          ...{ itemId: i.id, number: i.number, name: i.name, unit: i.unitName },
          packId: way ? way.source.packId : (pack?.id ?? null),
          packName: way?.packName ?? pack?.name ?? i.unitName,
          ...{ quantity: reading.quantity || '1', base: baseQuantity(packs, content) },
          ...(await priceNow(tx, way, { itemId: i.id, currency: order.currency, packs, content, today })),
          sold: own !== undefined,
          free: level ? freeOf(level) : 0,
          coming: fromDecimal(state?.onTheWay ?? '0'),
        });
      }
    }
    // As the reading found them, what the supplier sells first.
    return ok([...matches.filter((m) => m.sold), ...matches.filter((m) => !m.sold)].slice(0, 8));
  });
}

const plain = (amount: string) => withCents(toDecimal(fromDecimal(amount)));

/** The price of a pack at a quantity: the list's, else what is proposed in its place. */
async function priceNow(
  tx: Tx,
  way: Buying | undefined,
  at: {
    readonly itemId: number;
    readonly currency: string;
    readonly packs: Quantity;
    readonly content: Fraction;
    readonly today: string;
  },
): Promise<Pick<OrderEntryMatch, 'price' | 'each' | 'origin'>> {
  const list = way?.priceAt(at.packs, at.today);
  if (list)
    return {
      price:
        Number(list.perQuantity) === 1 ? plain(list.amount) : `${plain(list.amount)} for ${Number(list.perQuantity)}`,
      ...{ each: eachText(list, at.currency), origin: 'list' },
    };
  const proposed = await proposedPrice(tx, at.itemId, at.currency, at.today);
  if (!proposed) return { price: null, each: null, origin: null };
  const each = { amount: proposed.amount, perQuantity: '1', packContent: fraction(1n) };
  return { price: null, each: eachText(each, at.currency), origin: proposed.origin };
}
