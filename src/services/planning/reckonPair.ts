import { type PositionParts, type Reckoning, reckon } from '@/core/netting';
import { type EffectivePolicy, effectivePolicy } from '@/core/policy';
import { fromDecimal } from '@/core/quantity';
import type { Company } from '@/data/repositories/company';
import { readStates, type StateRow } from '@/data/repositories/planning';
import { type PolicyRow, readPoliciesOf } from '@/data/repositories/policies';
import type { Tx } from '@/data/sql';
import { type Buying, orderRuleOf } from '../catalogue/buying';

/** What counts for a pair, from its stored state. */
export const partsOf = (state: StateRow): PositionParts => ({
  onHand: fromDecimal(state.onHand),
  blocked: fromDecimal(state.blocked),
  onTheWay: fromDecimal(state.onTheWay),
  inTrays: fromDecimal(state.inTrays),
  owed: fromDecimal(state.owed),
});

/** The reckoning of a pair from its stored position and the policy in force; null where none is in force or nothing has
 *  been computed yet. */
export const reckoningOf = (
  policy: EffectivePolicy,
  state: StateRow | undefined,
  buying: Buying | undefined,
): Reckoning | null =>
  state && policy.kind === 'min_max' ? reckon(partsOf(state), policy, orderRuleOf(buying)) : null;

/** Loads what a reckoning needs for one item at one location. */
export async function reckonPair(
  tx: Tx,
  company: Company,
  itemId: number,
  locationId: number,
  buying: Buying | undefined,
): Promise<Reckoning | null> {
  const policy = policyAt(company, await readPoliciesOf(tx, [itemId]), itemId, locationId);
  const state = (await readStates(tx, [itemId])).find((s) => s.locationId === locationId);
  return reckoningOf(policy, state, buying);
}

/** The policy in force for an item at a location among loaded settings. */
export function policyAt(
  company: Company,
  settings: readonly PolicyRow[],
  itemId: number,
  locationId: number | null,
): EffectivePolicy {
  const at = (id: number | null) => settings.find((s) => s.itemId === itemId && s.locationId === id) ?? null;
  return effectivePolicy(company, at(null), locationId === null ? null : at(locationId));
}
