import { fairShare } from '@/core/netting';
import { type Actor, may } from '@/core/people';
import { checked, fromDecimal, MICRO, type Quantity } from '@/core/quantity';
import { err, ok, type Result } from '@/core/result';
import { type TransferAction, type TransferState, transferAllows } from '@/core/stock';
import { type ItemRow, readItemsByIds } from '@/data/repositories/catalogue';
import { readCompany, readLocations } from '@/data/repositories/company';
import { readRates } from '@/data/repositories/demand';
import { type LevelRow, readLevels } from '@/data/repositories/levels';
import type { PegLine } from '@/data/repositories/needInputs';
import { readStates } from '@/data/repositories/planning';
import {
  findTransfer,
  readClaims,
  readLinesOf,
  readTransferHeads,
  type TransferHead,
  type TransferLineRow,
} from '@/data/repositories/transfers';
import type { Tx } from '@/data/sql';
import { readSnapshot } from '@/data/transaction';
import { type Deps, todayOf } from '../deps';
import type { Failure } from '../failure';
import { groupBy, pairKey, pairMap } from '../grouping';
import { readPairPlans } from '../planning/pairPlans';
import { freeOf, gaugeOf } from './gauge';

export type TransferSummary = {
  readonly id: number;
  readonly number: string;
  readonly from: string;
  readonly to: string;
  readonly state: TransferState;
  readonly wantedDate: string | null;
  readonly requestedBy: string | null;
  readonly lines: number;
  /** Names of its first items. */
  readonly what: readonly string[];
  readonly refusedBecause: string;
};

export type TransfersView = {
  readonly open: readonly TransferSummary[];
  readonly ended: readonly TransferSummary[];
  readonly today: string;
  /** Places of the person, where a request may come from; and all, which may be asked. */
  readonly own: readonly { readonly id: number; readonly name: string }[];
  readonly places: readonly { readonly id: number; readonly name: string }[];
};

/** Transfers from and to the person's places: those somebody still has to do something about, and the latest that ended.
 *  Errors: forbidden. */
export async function readTransfers(deps: Deps, actor: Actor): Promise<Result<TransfersView, Failure>> {
  const allowed = may(actor, 'stock.read');
  if (!allowed.ok) return allowed;
  return readSnapshot(deps.pool, async (tx) => {
    const places = (await readLocations(tx)).filter((l) => l.closed === 0);
    const names = new Map((await readLocations(tx)).map((l) => [l.id, l.name]));
    const [open, ended] = [
      await readTransferHeads(tx, 'open', actor.locations),
      await readTransferHeads(tx, 'ended', actor.locations, 40),
    ];
    const lines = groupBy(
      await readLinesOf(
        tx,
        [...open, ...ended].map((t) => t.id),
      ),
      (l) => l.transferId,
    );
    const items = await readItemsByIds(tx, [...new Set([...lines.values()].flat().map((l) => l.itemId))]);
    const summary = (t: TransferHead): TransferSummary => {
      const own = lines.get(t.id) ?? [];
      return {
        ...{ id: t.id, number: t.number, state: t.state, wantedDate: t.wantedDate, refusedBecause: t.refusedBecause },
        from: names.get(t.fromLocationId) ?? '',
        to: names.get(t.toLocationId) ?? '',
        requestedBy: t.requestedByName,
        lines: own.length,
        what: own.slice(0, 3).map((l) => items.get(l.itemId)?.name ?? ''),
      };
    };
    const named = places.map((l) => ({ id: l.id, name: l.name }));
    return ok({
      ...{ open: open.map(summary), ended: ended.map(summary), today: todayOf(deps, await readCompany(tx)) },
      own: named.filter((l) => actor.locations === null || actor.locations.includes(l.id)),
      places: named,
    });
  });
}

export type TransferLine = {
  readonly lineNo: number;
  readonly itemId: number;
  readonly number: string;
  readonly name: string;
  readonly unit: string;
  readonly asked: Quantity;
  readonly approved: Quantity;
  readonly shipped: Quantity;
  readonly received: Quantity;
  readonly lost: Quantity;
  readonly lostReason: string;
  readonly inTransit: Quantity;
  /** Free where it is sent from, what is promised to this very line aside. */
  readonly freeThere: Quantity;
  /** Bought one to one: what lies ready for this line already, and what is on the way for it. */
  readonly liesReady: Quantity;
  readonly boughtFor: Quantity;
  /** What this line gets when all who want it from there share what is free; null where there is enough for all. */
  readonly fairShare: Quantity | null;
  /** What all of them want. */
  readonly wantedThere: Quantity;
};

export type TransferView = TransferHead & {
  readonly from: string;
  readonly to: string;
  readonly fromAddress: string;
  readonly toAddress: string;
  readonly company: string;
  readonly lines: readonly TransferLine[];
  readonly may: Readonly<Record<TransferAction, boolean>>;
  readonly today: string;
};

/** One transfer with what its state and the person's places allow. Errors: forbidden, not_found. */
export async function readTransfer(deps: Deps, actor: Actor, id: number): Promise<Result<TransferView, Failure>> {
  const allowed = may(actor, 'stock.read');
  if (!allowed.ok) return allowed;
  return readSnapshot<Result<TransferView, Failure>>(deps.pool, async (tx) => {
    const head = await findTransfer(tx, id);
    const at = actor.locations;
    if (!head || (at !== null && !at.includes(head.fromLocationId) && !at.includes(head.toLocationId)))
      return err({ kind: 'not_found', what: 'transfer' });
    const company = await readCompany(tx);
    const places = new Map((await readLocations(tx)).map((l) => [l.id, l]));
    const rows = await readLinesOf(tx, [id]);
    const ids = [...new Set(rows.map((r) => r.itemId))];
    const items = await readItemsByIds(tx, ids);
    const levels = new Map((await readLevels(tx, ids, [head.fromLocationId])).map((l) => [l.itemId, l]));
    const shares =
      head.state === 'requested' ? await sharesOf(tx, head, ids, levels, items) : new Map<string, Shared>();
    const today = todayOf(deps, company);
    const plans = head.state === 'requested' ? await readPairPlans(tx, ids, today) : null;
    const here = (locationId: number) => may(actor, 'stock.transfer', { locationIds: [locationId] }).ok;
    const [sends, gets] = [here(head.fromLocationId), here(head.toLocationId)];
    const can = (action: TransferAction, placed: boolean) => transferAllows(head.state, action) && placed;
    return ok({
      ...head,
      from: places.get(head.fromLocationId)?.name ?? '',
      to: places.get(head.toLocationId)?.name ?? '',
      fromAddress: places.get(head.fromLocationId)?.address ?? '',
      toAddress: places.get(head.toLocationId)?.address ?? '',
      company: company.name,
      lines: rows.map((r) => {
        const item = items.get(r.itemId);
        const level = levels.get(r.itemId);
        return lineOf(
          r,
          item?.number ?? '',
          item?.name ?? '',
          item?.unitName ?? '',
          level ? Math.max(0, freeOf(level)) : 0,
          plans?.peg({ itemId: r.itemId, locationId: head.fromLocationId }, 'transfer_line', r.id)?.line ?? null,
          shares.get(`${head.id}/${r.lineNo}`) ?? { share: null, wanted: fromDecimal(r.asked) },
        );
      }),
      may: {
        approve: can('approve', sends),
        refuse: can('refuse', sends),
        cancel: can('cancel', head.state === 'requested' ? gets : sends),
        ship: can('ship', sends),
        receive: can('receive', gets),
        take_off: can('take_off', sends),
      },
      today,
    });
  });
}

type Shared = { readonly share: Quantity | null; readonly wanted: Quantity };

/** How what is free at a place is shared by all who want it from there, where it does not do for all: whoever has the fewest
 *  days of cover comes first, a piece at a time. By transfer and line. */
async function sharesOf(
  tx: Tx,
  head: TransferHead,
  itemIds: readonly number[],
  levels: ReadonlyMap<number, LevelRow>,
  items: ReadonlyMap<number, ItemRow>,
): Promise<Map<string, Shared>> {
  const found = new Map<string, Shared>();
  const claims = await readClaims(tx, head.fromLocationId, itemIds);
  const [states, rates, there] = [
    pairMap(await readStates(tx, itemIds)),
    pairMap(await readRates(tx, itemIds)),
    pairMap(await readLevels(tx, itemIds)),
  ];
  for (const [itemId, own] of groupBy(claims, (c) => c.itemId)) {
    const level = levels.get(itemId);
    const free = level ? Math.max(0, freeOf(level)) : 0;
    const wanted = own.reduce((a, c) => a + fromDecimal(c.asked), 0);
    const shares = fairShare(
      free,
      own.map((c) => {
        const key = pairKey(itemId, c.locationId);
        const gauge = gaugeOf(there.get(key), states.get(key));
        return {
          asked: fromDecimal(c.asked),
          stock: Math.max(0, gauge.free + gauge.coming),
          perDay: fromDecimal(rates.get(key)?.perDay ?? '0'),
        };
      }),
      MICRO / 10 ** (items.get(itemId)?.saleDecimals ?? 0),
    );
    for (const [i, c] of own.entries())
      if (c.transferId !== null)
        found.set(`${c.transferId}/${c.lineNo}`, { share: wanted > free ? (shares[i] as Quantity) : null, wanted });
  }
  return found;
}

function lineOf(
  r: TransferLineRow,
  number: string,
  name: string,
  unit: string,
  free: Quantity,
  peg: PegLine | null,
  shared: Shared,
): TransferLine {
  const q = fromDecimal;
  return {
    ...{ lineNo: r.lineNo, itemId: r.itemId, number, name, unit },
    ...{ asked: q(r.asked), approved: q(r.approved), shipped: q(r.shipped), received: q(r.received), lost: q(r.lost) },
    lostReason: r.lostReason,
    inTransit: checked(q(r.shipped) - q(r.received) - q(r.lost)),
    freeThere: free + (peg?.held ?? 0),
    ...{ liesReady: peg?.held ?? 0, boughtFor: peg?.pegged ?? 0 },
    fairShare: shared.share === null ? null : shared.share + (peg?.held ?? 0),
    wantedThere: shared.wanted + (peg?.held ?? 0),
  };
}
