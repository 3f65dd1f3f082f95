import { type Actor, may } from '@/core/people';
import type { Quantity } from '@/core/quantity';
import { err, ok, type Result } from '@/core/result';
import type { SplitCost } from '@/core/split';
import { readItemsByIds } from '@/data/repositories/catalogue';
import { readCompany, readLocations } from '@/data/repositories/company';
import { findJob } from '@/data/repositories/jobs';
import { readNeedsByIds } from '@/data/repositories/planning';
import { findSplit } from '@/data/repositories/splits';
import { readSnapshot } from '@/data/transaction';
import { readBuying } from '../catalogue/buying';
import type { Deps } from '../deps';
import type { Failure } from '../failure';
import type { OptionAbout } from './splitProblem';
import type { SplitResult } from './splitRun';

type Choice = {
  readonly supplier: string;
  readonly packs: Quantity;
  readonly packName: string;
  readonly arrives: string;
};

export type SplitView = {
  readonly id: number;
  /** running: not begun, or being solved; stopped: its work failed or was cancelled. */
  readonly state: 'running' | 'stopped' | 'infeasible' | 'nothing_in_time' | 'found';
  readonly taken: boolean;
  readonly seconds: number;
  readonly currency: string;
  readonly gap: number;
  readonly inTime: boolean;
  readonly first: SplitCost | null;
  readonly best: SplitCost | null;
  readonly lines: readonly {
    readonly needId: number;
    readonly item: string;
    readonly location: string;
    readonly first: Choice;
    readonly best: Choice | null;
    /** It is assigned otherwise than its first choice. */
    readonly moved: boolean;
    /** The need is no longer as it was when this was found. */
    readonly changed: boolean;
  }[];
  /** Needs that nobody with a price can cover. */
  readonly left: number;
  /** Names of suppliers whose orders stay below their minimum by the first choice. */
  readonly below: readonly { readonly supplier: string; readonly missing: number }[];
};

/** How far an assignment of needs is, and what was found. Errors: forbidden, not_found (another's). */
export async function readSplit(deps: Deps, actor: Actor, splitId: number): Promise<Result<SplitView, Failure>> {
  const allowed = may(actor, 'needs.decide');
  if (!allowed.ok) return allowed;
  return readSnapshot<Result<SplitView, Failure>>(deps.pool, async (tx) => {
    const row = await findSplit(tx, splitId);
    if (!row || row.userId !== actor.userId) return err({ kind: 'not_found', what: 'need' });
    const { currency } = await readCompany(tx);
    const head = { id: row.id, taken: row.takenAt !== null, seconds: row.seconds, currency };
    const result = row.result === null ? null : (JSON.parse(row.result) as SplitResult);
    if (!result) {
      const job = row.jobId === null ? null : await findJob(tx, row.jobId);
      const state = job?.state === 'failed' || job?.state === 'cancelled' ? 'stopped' : 'running';
      return ok({ ...head, state, gap: 1, inTime: false, first: null, best: null, lines: [], left: 0, below: [] });
    }
    const needs = new Map(
      (
        await readNeedsByIds(
          tx,
          result.lines.map((l) => l.needId),
        )
      ).map((n) => [n.id, n]),
    );
    const itemIds = [...new Set([...needs.values()].map((n) => n.itemId))];
    const items = await readItemsByIds(tx, itemIds);
    const { bySource } = await readBuying(tx, itemIds);
    const places = new Map((await readLocations(tx)).map((l) => [l.id, l.name]));
    const names = new Map([...bySource.values()].map((b) => [b.source.supplierId, b.source.supplierName]));
    const choice = (o: OptionAbout, unit: string): Choice => {
      const buying = bySource.get(o.sourceId);
      return {
        ...{ supplier: buying?.source.supplierName ?? '', packs: o.packs, packName: buying?.packName ?? unit },
        arrives: o.arrives,
      };
    };
    return ok({
      ...{
        ...head,
        state: result.kind,
        gap: result.gap,
        inTime: result.inTime,
        first: result.first,
        best: result.best,
      },
      lines: result.lines.flatMap((l) => {
        const need = needs.get(l.needId);
        const item = need && items.get(need.itemId);
        if (!need || !item) return [];
        return [
          {
            ...{ needId: l.needId, item: item.name, location: places.get(need.locationId) ?? '' },
            ...{ first: choice(l.first, item.unitName), best: l.best && choice(l.best, item.unitName) },
            moved: l.best !== null && (l.best.sourceId !== l.first.sourceId || l.best.base !== l.first.base),
            changed: need.state !== 'open' || need.fingerprint !== l.fingerprint,
          },
        ];
      }),
      left: result.left.length,
      below: result.first.below.map((b) => ({ supplier: names.get(b.supplier) ?? '', missing: b.missing })),
    });
  });
}
