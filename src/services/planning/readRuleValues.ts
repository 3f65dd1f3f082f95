import { adviceFor } from '@/core/netting';
import { type Actor, may } from '@/core/people';
import { cellText, type SetRule, setByRule } from '@/core/policy';
import { err, ok, type Result } from '@/core/result';
import { readCompany } from '@/data/repositories/company';
import { readList } from '@/data/repositories/lists';
import { readSnapshot } from '@/data/transaction';
import { type Deps, todayOf } from '../deps';
import type { Failure } from '../failure';
import { readPairPlans } from './pairPlans';
import { policyLinesOf } from './readPolicies';

/** So many lines at once; more are done in parts. */
export const MOST_LINES = 5000;
const ITEMS_A_STEP = 200;

export type RuleValue = {
  /** Where the line stands in the sheet. */
  readonly index: number;
  readonly itemId: number;
  readonly locationId: number;
  readonly was: string;
  readonly now: string;
};
export type RuleValues = {
  readonly values: readonly RuleValue[];
  /** Lines without what the rule asks for (no demand, no minimum, another kind of policy). */
  readonly left: number;
  /** Lines beyond those that are done at once. */
  readonly beyond: number;
};

/** What a rule makes of lines of an open policy sheet, from one line to another (not included): to be looked at and saved by
 *  hand. Only lines of places under min/max or a fixed quantity take it. Errors: forbidden, list_gone. */
export async function readRuleValues(
  deps: Deps,
  actor: Actor,
  asked: { readonly list: string; readonly from: number; readonly end: number; readonly rule: SetRule },
): Promise<Result<RuleValues, Failure>> {
  const allowed = may(actor, 'policies.edit');
  if (!allowed.ok) return allowed;
  const { rule } = asked;
  return readSnapshot<Result<RuleValues, Failure>>(deps.pool, async (tx) => {
    const name = { name: asked.list, userId: actor.userId, kind: 'policies' as const };
    const head = await readList(tx, name, { most: 0 });
    if (!head) return err({ kind: 'list_gone' });
    const { locationIds } = head.about as { locationIds: number[] };
    const width = 1 + locationIds.length;
    const end = Math.min(asked.end, asked.from + MOST_LINES);
    const today = todayOf(deps, await readCompany(tx));
    const values: RuleValue[] = [];
    let left = 0;
    for (let first = Math.floor(asked.from / width); first * width < end; first += ITEMS_A_STEP) {
      const kept = await readList(tx, name, { from: first, most: ITEMS_A_STEP });
      const ids = [...(kept?.entries ?? [])];
      if (ids.length === 0) break;
      const lines = await policyLinesOf(deps, tx, ids, locationIds);
      const plans = await readPairPlans(tx, ids, today);
      for (const [i, line] of lines.entries()) {
        const index = first * width + i;
        if (index < asked.from || index >= end || line.locationId === null) continue;
        const here = plans.at(line.itemId, line.locationId);
        const fits =
          line.kind === 'min_max' || line.kind === 'none' || (line.kind === 'fixed_quantity' && rule.column === 'min');
        const value =
          here && fits
            ? setByRule(rule, {
                perDay: here.figures.perDay,
                advised: adviceFor(here.policy, here.figures)?.minimum ?? null,
                min: here.policy.min,
                max: here.policy.max,
                packMicro: here.rule.packMicro,
                unitMicro: here.figures.unitMicro,
              })
            : null;
        if (value === null) left += 1;
        else {
          const { itemId, locationId } = line;
          values.push({ index, itemId, locationId, was: line.own[rule.column] ?? '', now: cellText('min', value) });
        }
      }
    }
    return ok({ values, left, beyond: Math.max(0, asked.end - end) });
  });
}
