import { openQuantity, type PositionParts, type Reckoning, reckon } from '@/core/netting';
import { type EffectivePolicy, effectivePolicy } from '@/core/policy';
import { fromDecimal } from '@/core/quantity';
import type { Company } from '@/data/repositories/company';
import { readPoliciesOf } from '@/data/repositories/policies';
import { readStates } from '@/data/repositories/planning';
import type { Tx } from '@/data/sql';
import { type Buying, orderRuleOf } from '../catalogue/buying';

export type PairReckoning = {
  readonly policy: EffectivePolicy;
  readonly parts: PositionParts | null;
  /** Null where no min/max policy is in force or the pair has not been computed yet. */
  readonly reckoning: Reckoning | null;
};

/** The reckoning of one item at one location from its stored position and the policy in force. */
export async function reckonPair(
  tx: Tx,
  company: Company,
  itemId: number,
  locationId: number,
  buying: Buying | undefined,
): Promise<PairReckoning> {
  const settings = await readPoliciesOf(tx, [itemId]);
  const at = (id: number | null) => settings.find((s) => s.locationId === id) ?? null;
  const policy = effectivePolicy(company, at(null), at(locationId));
  const state = (await readStates(tx, [itemId])).find((s) => s.locationId === locationId);
  if (!state) return { policy, parts: null, reckoning: null };
  const parts: PositionParts = {
    onHand: fromDecimal(state.onHand),
    blocked: fromDecimal(state.blocked),
    onTheWay: fromDecimal(state.onTheWay),
    inTrays: fromDecimal(state.inTrays),
    owed: fromDecimal(state.owed),
  };
  return { policy, parts, reckoning: policy.kind === 'min_max' ? reckon(parts, policy, orderRuleOf(buying)) : null };
}

/** Open base quantity of a delivery part as stored. */
export const openOf = (p: { baseQuantity: string; received: string; cancelled?: string }): number =>
  openQuantity({
    ordered: fromDecimal(p.baseQuantity),
    received: fromDecimal(p.received),
    cancelled: fromDecimal(p.cancelled ?? '0'),
  });
