import { needRun } from '@/core/netting';
import { type Actor, may } from '@/core/people';
import { ok, type Result } from '@/core/result';
import { readItemsByIds } from '@/data/repositories/catalogue';
import { readCompany } from '@/data/repositories/company';
import { type NeedInputs, readNeedInputs } from '@/data/repositories/needInputs';
import { readItemSettings, scopeKey } from '@/data/repositories/policySettings';
import { readSnapshot } from '@/data/transaction';
import { type Deps, todayOf } from '../deps';
import type { Failure } from '../failure';
import { type CellsFault, editedSettings, type PolicyEdit } from './policyEdits';
import { widerKinds } from './savePolicies';
import { unitWorth } from './unitWorth';

/** What edits would do if they were saved, over all places of the items they touch. Money in minor units of the company's
 *  currency. */
export type PolicyEffect = {
  readonly needs: { readonly before: number; readonly after: number };
  /** Stock at its maximum, where a policy has one. */
  readonly tied: { readonly before: number; readonly after: number };
  /** Items without a known price: they are not in the money. */
  readonly unpriced: number;
  readonly faults: readonly CellsFault[];
};

/** The effect on needs and on money tied up before anything is saved. Errors: forbidden. */
export async function previewPolicies(
  deps: Deps,
  actor: Actor,
  edits: readonly PolicyEdit[],
): Promise<Result<PolicyEffect, Failure>> {
  const allowed = may(actor, 'needs.read');
  if (!allowed.ok) return allowed;
  return readSnapshot(deps.pool, async (tx) => {
    const company = await readCompany(tx);
    const today = todayOf(deps, company);
    const ids = [...new Set(edits.map((e) => e.itemId))];
    const items = await readItemsByIds(tx, ids);
    const wider = await widerKinds(tx, today);
    const kept = await readItemSettings(tx, ids);
    const { rows, faults } = editedSettings(edits, kept, (id) => wider(items.get(id)?.categoryId ?? 0));
    const wrong = new Set(faults.map((f) => f.row));
    const sound = rows.filter((_, i) => !wrong.has(i));
    const instead = new Map(sound.map((r) => [scopeKey(r.itemId, r.locationId), r.after]));
    const [before, after] = [
      await readNeedInputs(tx, ids.length > 0 ? ids : [0], today),
      await readNeedInputs(tx, ids.length > 0 ? ids : [0], today, { instead }),
    ];
    const worth = await unitWorth(tx, ids, company.currency, today);
    const unpriced = new Set<number>();
    const tied = (inputs: NeedInputs) => {
      let sum = 0;
      for (let at = 0; at < inputs.arrays.count; at += 1) {
        const max = inputs.arrays.max[at] as number;
        if (inputs.arrays.rule[at] !== 1 || max <= 0) continue;
        const itemId = inputs.itemIds[Math.floor(at / inputs.locationIds.length)] as number;
        const money = worth(itemId, max);
        if (money === null) unpriced.add(itemId);
        else sum += money;
      }
      return sum;
    };
    const needs = (inputs: NeedInputs) =>
      needRun(inputs.arrays).state.filter((s) => s === 1).length +
      [...inputs.pegs.values()].flat().filter((p) => p.rest > 0).length;
    return ok({
      needs: { before: needs(before), after: needs(after) },
      tied: { before: tied(before), after: tied(after) },
      unpriced: unpriced.size,
      faults,
    });
  });
}
