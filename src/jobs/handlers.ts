import { readItemIdsAfter } from '@/data/repositories/catalogue';
import { countDirty } from '@/data/repositories/marks';
import { readSnapshot } from '@/data/transaction';
import { raiseAlerts } from '@/services/alerts/raiseAlerts';
import { beginDay, markChanged, recomputeDirty } from '@/services/planning/recompute';
import type { JobKind } from '@/services/work/leaveToWorker';
import type { Handler } from './handler';
import { fetchRates } from './rates';
import { checkSheet, readSheet, writeSheet } from './sheets';
import { splitNeeds } from './split';
import { takeSales } from './till';
import { takeWebOrders } from './webShop';

export type { Handler } from './handler';

/** Pairs recomputed in one transaction: a change to one of them waits so long. */
const CHUNK = 1000;
/** Items looked at in one step of a check. */
const ITEMS_A_STEP = 500;

/** Recomputes what is marked, chunk by chunk, until nothing is. Marks are the progress: there is nothing to resume. */
const recompute: Handler = async (deps, { step }) => {
  const left = await readSnapshot(deps.pool, countDirty);
  for (let done = 0; ; ) {
    await step({ done, total: Math.max(left, done), resumeAt: null });
    const now = await recomputeDirty(deps, CHUNK);
    if (now === 0) return;
    done += now;
  }
};

/** Compares a fresh run with what is stored, some items at a time, and recomputes what differs. */
const checkNeeds: Handler = async (deps, { resumeAt, step }) => {
  const from = (resumeAt ?? { after: 0, done: 0, changed: 0 }) as { after: number; done: number; changed: number };
  let { after, done, changed } = from;
  for (;;) {
    const { ids, total } = await readSnapshot(deps.pool, (tx) => readItemIdsAfter(tx, after, ITEMS_A_STEP));
    await step({ done, total, resumeAt: { after, done, changed } });
    if (ids.length === 0) return;
    changed += (await markChanged(deps, ids)).changed;
    while ((await recomputeDirty(deps, CHUNK)) > 0);
    after = ids.at(-1) as number;
    done += ids.length;
  }
};

export const handlers: Readonly<Record<JobKind, Handler>> = {
  recompute,
  'check-needs': checkNeeds,
  'begin-day': async (deps) => {
    await beginDay(deps);
    await raiseAlerts(deps, 'daily');
  },
  'read-sheet': readSheet,
  'check-sheet': checkSheet,
  'write-sheet': writeSheet,
  'fetch-rates': fetchRates,
  'take-sales': takeSales,
  'take-web-orders': takeWebOrders,
  'split-needs': splitNeeds,
};
