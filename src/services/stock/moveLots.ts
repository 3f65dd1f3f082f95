import type { LevelValue } from '@/core/ledger';
import { costOfSerials, costPerSerial, type LotStock, type Taken, takeFromLots } from '@/core/lots';
import { fromDecimal, type Quantity, toDecimal } from '@/core/quantity';
import type { Pair } from '@/data/repositories/levels';
import { lockLotStock, lockLotStocks, moveLotLevels, readLotsOfLine, setLotCosts } from '@/data/repositories/lots';
import type { Tx } from '@/data/sql';
import { groupBy, pairKey, pairMap } from '../grouping';
import type { StockChange } from './stockChange';

/** Which items are kept by lot or by serial number. */
export type Tracked = ReadonlyMap<number, 'lot' | 'serial'>;
export type PostedChange = { readonly change: StockChange; readonly posting: number; readonly onHandBefore: Quantity };

/** Which lots the movements are of, for items that are kept by lot or serial number. What comes in has the lots that were
 *  said; what goes out takes those that were named, or its own: those of its receipt when that is reversed, those of its transfer on the road, else
 *  the oldest, or one dye lot. What comes in by a transfer is of the lots that went out with it. The rest is known by none. */
export async function moveLots(tx: Tx, tracked: Tracked, posted: readonly PostedChange[]): Promise<void> {
  if (tracked.size === 0) return;
  const own = posted.filter((p) => tracked.has(p.change.itemId) && p.change.quantity !== 0);
  const gone = new Map<string, Taken[]>();
  const there = await lotsLeft(tx, own);
  // What was named goes first, so that nothing else takes it.
  const out = own.filter((x) => x.change.quantity < 0);
  for (const p of [...out.filter((x) => x.change.lots), ...out.filter((x) => !x.change.lots)]) {
    const taken = await takenBy(tx, p, there);
    there.take(p.change, taken);
    gone.set(lineKey(p.change), [...(gone.get(lineKey(p.change)) ?? []), ...taken]);
    await note(tx, p, taken, -1);
  }
  for (const p of own.filter((x) => x.change.quantity > 0)) {
    await note(tx, p, await comingIn(tx, p, gone), 1);
    if (tracked.get(p.change.itemId) === 'serial') await noteCosts(tx, p.change);
  }
}

/** Serial numbers that come with a value keep it as their own cost. */
async function noteCosts(tx: Tx, { lots, value, quantity }: StockChange): Promise<void> {
  if (!lots || value === null) return;
  const costs = costPerSerial(
    value,
    quantity,
    lots.map((l) => l.quantity),
  );
  await setLotCosts(
    tx,
    lots.flatMap((l, i) => (l.lotId === null ? [] : [{ lotId: l.lotId, cost: costs[i] as number }])),
  );
}

/** Which serial numbers a change takes, and what they cost; cost null = at moving average. `before`: those that earlier changes
 *  of the same posting have taken; `named`: those that some change of it names, which no other takes. */
export async function serialsOut(
  tx: Tx,
  change: StockChange,
  level: LevelValue,
  before: readonly Taken[],
  named: ReadonlySet<number | null>,
): Promise<{ readonly taken: readonly Taken[]; readonly cost: number | null }> {
  const gone = new Set(before.map((t) => t.lotId));
  const there = (await lockLotStock(tx, change)).filter((l) => !gone.has(l.lotId));
  const serials = there.map((l) => ({ lotId: l.lotId, quantity: fromDecimal(l.quantity), cost: l.cost }));
  const unknown = Math.max(0, level.quantity - serials.reduce((a, s) => a + s.quantity, 0));
  const all = [
    { lotId: null, quantity: unknown, bestBefore: null },
    ...serials
      .filter((s) => !named.has(s.lotId))
      .map((s) => ({ lotId: s.lotId, quantity: s.quantity, bestBefore: null })),
  ];
  const taken = change.lots ?? takeFromLots(all, -change.quantity);
  return { taken, cost: costOfSerials(level, serials, taken) };
}

/** What there is of an item at a place by lot, locked: the lots, and before them what is known by none. */
export async function lotsThere(tx: Tx, pair: Pair, onHand: Quantity): Promise<LotStock[]> {
  const known = (await lockLotStock(tx, pair)).map(({ lotId, quantity, bestBefore }) => ({
    ...{ lotId, quantity: fromDecimal(quantity), bestBefore },
  }));
  return withUnknown(known, onHand);
}

function withUnknown(known: readonly LotStock[], onHand: Quantity): LotStock[] {
  const unknown = onHand - known.reduce((a, k) => a + k.quantity, 0);
  return [{ lotId: null, quantity: Math.max(0, unknown), bestBefore: null }, ...known];
}

const lineKey = ({ itemId, document: d }: StockChange) => `${itemId}/${d.kind}/${d.id}/${d.line}`;

type LotsLeft = {
  /** What is known by lot of a pair, less what was taken meanwhile. */
  readonly of: (pair: Pair) => LotStock[];
  readonly take: (pair: Pair, taken: readonly Taken[]) => void;
};

/** The lots of all pairs that something goes out of without saying which, read and locked at once. */
async function lotsLeft(tx: Tx, posted: readonly PostedChange[]): Promise<LotsLeft> {
  const asked = posted.filter(({ change: c }) => c.quantity < 0 && !c.lots);
  const rows = await lockLotStocks(tx, [...pairMap(asked.map((p) => p.change)).values()]);
  const quantities = new Map(rows.map((r) => [r, fromDecimal(r.quantity)]));
  const byPair = groupBy(rows, (r) => pairKey(r.itemId, r.locationId));
  const at = (pair: Pair) => byPair.get(pairKey(pair.itemId, pair.locationId)) ?? [];
  return {
    of: (pair) =>
      at(pair).flatMap((r) => {
        const quantity = quantities.get(r) as Quantity;
        return quantity > 0 ? [{ lotId: r.lotId, quantity, bestBefore: r.bestBefore }] : [];
      }),
    take: (pair, taken) => {
      for (const r of at(pair))
        for (const t of taken) if (t.lotId === r.lotId) quantities.set(r, (quantities.get(r) as Quantity) - t.quantity);
    },
  };
}

async function takenBy(tx: Tx, { change, onHandBefore }: PostedChange, left: LotsLeft): Promise<readonly Taken[]> {
  if (change.lots) return change.lots;
  const { document, itemId, locationId, kind, quantity } = change;
  const { id, line } = document;
  const all = withUnknown(left.of(change), onHandBefore);
  const reversed = kind === 'receipt_reversal';
  if (id === null || line === null || !(reversed || document.kind === 'transfer')) return takeFromLots(all, -quantity);
  // What came by this very line: of a receipt that is reversed, or on the road. It may have been sold meanwhile.
  const came = await readLotsOfLine(tx, { kind: document.kind, id, line }, { itemId, locationId });
  const there = new Map(all.map((k) => [k.lotId, k.quantity]));
  const own = came.flatMap((c) => {
    const q = Math.min(fromDecimal(c.quantity), there.get(c.lotId) ?? 0);
    return q > 0 ? [{ lotId: c.lotId, quantity: q, bestBefore: c.bestBefore }] : [];
  });
  if (own.length === 0) return takeFromLots(all, -quantity);
  const taken = takeFromLots(own, -quantity);
  const rest = taken.reduce((a, t) => a + (t.lotId === null ? t.quantity : 0), 0);
  if (!reversed || rest === 0) return taken;
  const others = all.map((l) => ({
    ...l,
    quantity: l.quantity - taken.reduce((a, t) => a + (t.lotId === l.lotId && t.lotId !== null ? t.quantity : 0), 0),
  }));
  return [...taken.filter((t) => t.lotId !== null), ...takeFromLots(others, rest)];
}

async function comingIn(tx: Tx, { change, onHandBefore }: PostedChange, gone: Map<string, Taken[]>): Promise<Taken[]> {
  const { document, itemId, quantity, lots } = change;
  // What went out before it was booked in was of this.
  const owed = Math.max(0, -onHandBefore);
  if (lots) return less(lots, owed);
  if (document.kind !== 'transfer' || document.id === null || document.line === null) return [];
  const with_ = gone.get(lineKey(change));
  if (with_) return less(upTo(with_, quantity), owed);
  const out = await readLotsOfLine(
    tx,
    { kind: 'transfer', id: document.id, line: document.line },
    { itemId, locationId: null },
  );
  const left = out.flatMap((o) => {
    const q = -fromDecimal(o.quantity);
    return q > 0 ? [{ lotId: o.lotId, quantity: q }] : [];
  });
  return less(upTo(left, quantity), owed);
}

function upTo(lots: readonly Taken[], quantity: Quantity): Taken[] {
  let left = quantity;
  return lots.flatMap((l) => {
    const q = Math.min(left, l.quantity);
    left -= q;
    return q > 0 ? [{ ...l, quantity: q }] : [];
  });
}

function less(lots: readonly Taken[], quantity: Quantity): Taken[] {
  let off = quantity;
  return lots.flatMap((l) => {
    const q = Math.min(off, l.quantity);
    off -= q;
    return l.quantity > q ? [{ ...l, quantity: l.quantity - q }] : [];
  });
}

async function note(tx: Tx, { change, posting }: PostedChange, lots: readonly Taken[], sign: 1 | -1): Promise<void> {
  const { itemId, locationId } = change;
  const byLot = new Map<number, Quantity>();
  for (const { lotId, quantity } of lots) if (lotId !== null) byLot.set(lotId, (byLot.get(lotId) ?? 0) + quantity);
  await moveLotLevels(
    tx,
    [...byLot].map(([lotId, q]) => ({ itemId, locationId, posting, lotId, quantity: toDecimal(sign * q) })),
  );
}
