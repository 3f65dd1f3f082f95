import { type NeedRow, needDecided } from '@/data/repositories/planning';
import type { Tx } from '@/data/sql';
import { fingerprintOf } from './freshNeeds';

/** A locked need stands as somebody decided it, by which of its decisions (null = by none). Its pair is marked by the caller. */
export const postDecided = (
  tx: Tx,
  need: NeedRow,
  state: 'open' | 'aside' | 'decided',
  decisionId: number | null,
  now: string,
): Promise<void> =>
  tx.later([
    needDecided({
      ...{ id: need.id, state, decisionId, at: now },
      fingerprint: fingerprintOf({ ...need, lastDecisionId: decisionId }),
    }),
  ]);
