import { type Actor, may } from '@/core/people';
import { mayPromise } from '@/core/promise';
import { fromDecimal, type Quantity } from '@/core/quantity';
import { ok, type Result } from '@/core/result';
import { readLevels } from '@/data/repositories/levels';
import { readStates } from '@/data/repositories/planning';
import { readItemPromiseRules, readPromiseRules, readWaiting } from '@/data/repositories/promises';
import { readSnapshot } from '@/data/transaction';
import { readingThatFits } from '../catalogue/entryReading';
import type { Deps } from '../deps';
import type { Failure } from '../failure';
import { groupBy } from '../grouping';
import { freeOf } from '../stock/gauge';

/** An item that fits a typed line, as the line would be. */
export type EntryMatch = {
  readonly itemId: number;
  readonly number: string;
  readonly name: string;
  readonly unit: string;
  /** The pack that was said; null = base units. */
  readonly packId: number | null;
  readonly packName: string;
  /** As typed; '1' where no quantity was said. */
  readonly quantity: string;
  readonly free: Quantity;
  readonly coming: Quantity;
  /** How much more may be promised there; null without limit. */
  readonly mayPromise: Quantity | null;
  readonly salePrice: string | null;
};

/** Items that fit a line typed into one field ("6 bag fen moss", "10412-07 60", a scan), with what is free at a place and what
 *  it sells at. Errors: forbidden. */
export async function readEntry(
  deps: Deps,
  actor: Actor,
  { text, locationId }: { readonly text: string; readonly locationId: number },
): Promise<Result<readonly EntryMatch[], Failure>> {
  const allowed = may(actor, 'stock.read', { locationIds: [locationId] });
  if (!allowed.ok) return allowed;
  return readSnapshot(deps.pool, async (tx) => {
    const found = await readingThatFits(tx, text);
    if (!found) return ok([]);
    const { reading, items, packOf } = found;
    const ids = items.map((i) => i.id);
    const [levels, states, waiting] = [
      await readLevels(tx, ids, [locationId]),
      await readStates(tx, ids, [locationId]),
      groupBy(
        (await readWaiting(tx, ids)).filter((w) => w.locationId === locationId),
        (w) => w.itemId,
      ),
    ];
    const company = await readPromiseRules(tx);
    const own = await readItemPromiseRules(tx, ids);
    return ok(
      items.map((i): EntryMatch => {
        const level = levels.find((l) => l.itemId === i.id);
        const state = states.find((s) => s.itemId === i.id);
        const free = level ? freeOf(level) : 0;
        const coming = fromDecimal(state?.onTheWay ?? '0');
        const waitedFor = (waiting.get(i.id) ?? []).reduce((a, w) => a + fromDecimal(w.waits), 0);
        const pack = packOf(i.id);
        return {
          ...{ itemId: i.id, number: i.number, name: i.name, unit: i.unitName, free, coming },
          ...{ packId: pack?.id ?? null, packName: pack?.name ?? i.unitName, quantity: reading.quantity || '1' },
          mayPromise: i.stockKept === 1 ? mayPromise(own.get(i.id) ?? company.rule, { free, coming, waitedFor }) : null,
          salePrice: i.salePrice,
        };
      }),
    );
  });
}
