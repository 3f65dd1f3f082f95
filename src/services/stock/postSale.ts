import { parseLots, parseSerials, wouldMix } from '@/core/lots';
import { partQuantity, type SetPart } from '@/core/promise';
import { fromDecimal, type Quantity, toDecimal } from '@/core/quantity';
import { err, ok, type Result } from '@/core/result';
import { explodeKits } from '@/core/stock';
import { lockAllocations } from '@/data/repositories/allocations';
import { drawNumber, recordChanges } from '@/data/repositories/bookkeeping';
import { type ItemRow, readItemsByIds } from '@/data/repositories/catalogue';
import { type LevelRow, lockLevels } from '@/data/repositories/levels';
import { lockLotStock, readTracked } from '@/data/repositories/lots';
import { insertStockDocument } from '@/data/repositories/stockDocuments';
import type { Tx } from '@/data/sql';
import { type Failure, invalidField } from '../failure';
import { numberText, periodOf } from '../purchase/orderNumber';
import { checkSaleDecimals, itemsOfLines } from './enterLines';
import { kitContents } from './kitContents';
import { lotsThere, type Tracked } from './moveLots';
import { type AtPlace, postAtPlace } from './postAtPlace';
import type { StockChange } from './postMovements';
import { endAllocation } from './reserve';

export type Sold = AtPlace & { readonly sale: string; readonly documentId: number };
export type Sale = {
  readonly locationId: number;
  readonly day: string;
  readonly note: string;
  /** A line may be served from several dye lots; otherwise it is asked. */
  readonly mixLots: boolean;
  readonly lines: readonly {
    readonly itemId: number;
    readonly quantity: Quantity;
    readonly allocationId: number | null;
    /** Lot or serial numbers that are handed over, as typed; '' = which it takes by itself. */
    readonly lots?: string;
    /** What a set takes, where that was fixed when it was ordered; else a kit takes what it is made of now. */
    readonly parts?: readonly SetPart[];
  }[];
};

/** Posts a sale as one document with its movements. A kit stands on its line and what it takes of its components on lines of
 *  theirs, as its content is now. Errors: not_found, invalid_field lines.<index> (also a lot that is not there),
 *  lots_would_mix, books_closed. */
export async function postSale(
  tx: Tx,
  who: { readonly userId: number; readonly now: string; readonly today: string },
  { locationId, day, note, mixLots, lines }: Sale,
): Promise<Result<Sold, Failure>> {
  const ours = await itemsOfLines(
    tx,
    [locationId],
    lines.map((l) => l.itemId),
  );
  if (!ours.ok) return ours;
  const fine = checkSaleDecimals(
    ours.value,
    lines,
    lines.map((l) => l.quantity),
  );
  if (!fine.ok) return fine;
  const contents = await kitContents(tx, [...new Set(lines.map((l) => l.itemId))]);
  const components = lines.flatMap((l, i) =>
    (l.parts
      ? l.parts.map((p) => ({ itemId: p.itemId, quantity: partQuantity(l.quantity, p.perSet) }))
      : explodeKits([l], contents)
    ).map((c) => ({ ...c, kitLine: i + 1 })),
  );
  const parts = await readItemsByIds(tx, [...new Set(components.map((c) => c.itemId))]);
  const all = [
    ...lines.map((l) => ({ ...l, kitLine: null, moves: ours.value.get(l.itemId)?.stockKept === 1 })),
    ...components.map((c) => ({ ...c, allocationId: null, moves: parts.get(c.itemId)?.stockKept === 1 })),
  ];
  const pairs = all.flatMap(({ itemId, moves }) => (moves ? [{ itemId, locationId }] : []));
  const before = await lockLevels(tx, [...new Map(pairs.map((p) => [p.itemId, p])).values()]);
  const promised = await lockAllocations(
    tx,
    lines.flatMap((l) => (l.allocationId === null ? [] : [l.allocationId])),
  );
  for (const l of lines) {
    if (l.allocationId === null) continue;
    const own = promised.find((a) => a.id === l.allocationId);
    if (!own || own.itemId !== l.itemId || own.locationId !== locationId)
      return err({ kind: 'not_found', what: 'allocation' });
    await endAllocation(tx, own, l.quantity);
  }
  const tracked = await readTracked(tx, [...new Set(lines.map((l) => l.itemId))]);
  const named = await namedLots(tx, tracked, who.today, locationId, lines);
  if (!named.ok) return named;
  if (!mixLots) {
    const mixed = await findMixed(tx, tracked, ours.value, before, locationId, lines);
    if (mixed) return err(mixed);
  }
  const period = periodOf(who.today);
  const sale = numberText('S', period, await drawNumber(tx, 'SA', period));
  const documentId = await insertStockDocument(
    tx,
    {
      ...{ number: sale, kind: 'sale', locationId, businessDate: day, note },
      ...{ reasonId: null, userId: who.userId, at: who.now },
    },
    all.map((l) => ({
      ...{ itemId: l.itemId, quantity: toDecimal(l.quantity), expected: null, allocationId: l.allocationId },
      ...{ movesStock: l.moves, kitLine: l.kitLine },
    })),
  );
  const changes = all.flatMap(({ itemId, quantity, moves }, i): StockChange[] => {
    if (!moves) return [];
    const document = { kind: 'sale' as const, id: documentId, line: i + 1 };
    const lots = named.value.get(i);
    const change = { itemId, locationId, kind: 'sale' as const, businessDate: day, quantity: -quantity, value: null };
    return [{ ...change, document, ...(lots ? { lots } : {}) }];
  });
  const posted = await postAtPlace(tx, who, before, changes);
  if (!posted.ok) return posted;
  const { released } = posted.value;
  await recordChanges(tx, who.userId, who.now, [
    { entity: 'stock_document', entityId: documentId, action: 'sold', after: { sale, lines: lines.length, released } },
  ]);
  return ok({ sale, documentId, ...posted.value });
}

type Lines = Sale['lines'];
type Items = ReadonlyMap<number, ItemRow>;

/** Lots that were named, by line: they have to lie there. Errors: invalid_field lines.<index>. */
async function namedLots(
  tx: Tx,
  tracked: Tracked,
  today: string,
  locationId: number,
  lines: Lines,
): Promise<Result<Map<number, { lotId: number; quantity: Quantity }[]>, Failure>> {
  const named = new Map<number, { lotId: number; quantity: Quantity }[]>();
  // What lines before have named of a lot is not there for the next.
  const used = new Map<number, Quantity>();
  for (const [i, l] of lines.entries()) {
    const tracking = tracked.get(l.itemId);
    if (tracking === undefined || (l.lots ?? '').trim() === '') continue;
    const text = l.lots ?? '';
    const read = tracking === 'lot' ? parseLots(text, l.quantity, today) : parseSerials(text, l.quantity);
    if (!read.ok) return err(invalidField(`lines.${i}`, read.error));
    const there = await lockLotStock(tx, { itemId: l.itemId, locationId });
    const lots = read.value.map((e) => ({ ...e, lot: there.find((s) => s.code === e.code) }));
    const missing = lots.find(
      (e) => fromDecimal(e.lot?.quantity ?? '0') - (used.get(e.lot?.lotId ?? 0) ?? 0) < e.quantity,
    );
    if (missing) return err(invalidField(`lines.${i}`, { kind: 'lot_not_there', text: missing.code }));
    for (const e of lots) used.set(e.lot?.lotId ?? 0, (used.get(e.lot?.lotId ?? 0) ?? 0) + e.quantity);
    named.set(
      i,
      lots.map((e) => ({ lotId: e.lot?.lotId as number, quantity: e.quantity })),
    );
  }
  return ok(named);
}

/** The first line that no dye lot suffices for alone; null when there is none. */
async function findMixed(
  tx: Tx,
  tracked: Tracked,
  items: Items,
  before: readonly LevelRow[],
  locationId: number,
  lines: Lines,
): Promise<Failure | null> {
  for (const l of lines) {
    if (tracked.get(l.itemId) !== 'lot' || (l.lots ?? '').trim() !== '') continue;
    const onHand = fromDecimal(before.find((v) => v.itemId === l.itemId)?.onHand ?? '0');
    const all = await lotsThere(tx, { itemId: l.itemId, locationId }, onHand);
    if (!wouldMix(all, l.quantity)) continue;
    const item = items.get(l.itemId);
    return {
      kind: 'lots_would_mix',
      item: item?.name ?? '',
      largest: Math.max(...all.map((s) => s.quantity)),
      unit: item?.unitName ?? '',
    };
  }
  return null;
}
