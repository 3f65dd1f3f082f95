import type { Actor } from '@/core/people';
import { fromDecimal, toDecimal } from '@/core/quantity';
import { lockHandNeed, putHandNeed } from '@/data/repositories/handNeeds';
import { insertDecision, lockNeedOfDecision, type NeedRow, readByHand } from '@/data/repositories/planning';
import type { Tx } from '@/data/sql';
import { postDecided } from './decidedNeed';

export type Reopened = { readonly needId: number | null; readonly decisionId: number | null };

/** Withdraws a decision: its need is open again, if that decision still was the need's last. */
export async function reopenNeed(tx: Tx, actor: Actor, now: string, decided: number | null): Promise<Reopened> {
  const need = decided === null ? null : await lockNeedOfDecision(tx, decided);
  if (!need || decided === null || need.lastDecisionId !== decided)
    return { needId: need?.id ?? null, decisionId: null };
  await giveBackByHand(tx, actor, now, need, decided);
  const decisionId = await insertDecision(tx, {
    ...{ needId: need.id, kind: 'take_back', fingerprint: need.fingerprint, shortage: need.shortage },
    ...{ sourceId: null, packId: null, packQuantity: '0', baseQuantity: '0', reckoning: 'null' },
    ...{ userId: actor.userId, at: now, previousId: need.lastDecisionId },
  });
  await postDecided(tx, need, 'open', decisionId, now);
  return { needId: need.id, decisionId };
}

/** What a decision took up of what was asked for by hand is asked for again, on top of what is since. */
async function giveBackByHand(tx: Tx, actor: Actor, now: string, pair: NeedRow, decided: number): Promise<void> {
  const taken = fromDecimal(await readByHand(tx, decided));
  if (taken === 0) return;
  const { quantity, note } = await lockHandNeed(tx, pair);
  const { itemId, locationId } = pair;
  const again = toDecimal(fromDecimal(quantity) + taken);
  await putHandNeed(tx, { itemId, locationId, quantity: again, note, userId: actor.userId, at: now });
}
