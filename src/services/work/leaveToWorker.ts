import { findWaiting, insertJob } from '@/data/repositories/jobs';
import type { Tx } from '@/data/sql';

/** The kinds of work in the background. recompute: marks left by a change that touched many; check-needs: a fresh run over
 *  everything against what is stored; begin-day: what a new business day brings; read-, check- and write-sheet: a
 *  spreadsheet that was brought; fetch-rates: the file of exchange rates; take-sales: what tills sold over a span of days; take-web-orders: what was
 *  ordered in the web shop; split-needs: needs assigned to suppliers together. */
export const jobKinds = [
  'recompute',
  'check-needs',
  'begin-day',
  'read-sheet',
  'check-sheet',
  'write-sheet',
  'fetch-rates',
  'take-sales',
  'take-web-orders',
  'split-needs',
] as const;
export type JobKind = (typeof jobKinds)[number];

/** Notes work for the worker in the transaction of what makes it necessary; one that already waits is enough, because it
 *  begins after this commit. Returns its id. */
export async function leaveToWorker(
  tx: Tx,
  kind: JobKind,
  now: string,
  userId: number | null,
  about: Readonly<Record<string, string>> = {},
): Promise<number> {
  // Work about something of its own is not another's.
  const waiting = Object.keys(about).length > 0 ? null : await findWaiting(tx, kind);
  const input = JSON.stringify({ userId, ...about });
  return waiting?.id ?? insertJob(tx, { kind, input, notBefore: now, userId, at: now });
}
