import type { Reckoning } from '@/core/netting';
import { type Actor, may } from '@/core/people';
import type { EffectivePolicy, PolicySetting } from '@/core/policy';
import { entryText, fromDecimal, type Quantity } from '@/core/quantity';
import { ok, type Result } from '@/core/result';
import { readItems } from '@/data/repositories/catalogue';
import { readCompany, readLocations } from '@/data/repositories/company';
import { readLevels } from '@/data/repositories/levels';
import { readStates } from '@/data/repositories/planning';
import { readPoliciesOf } from '@/data/repositories/policies';
import { readSnapshot } from '@/data/transaction';
import { readBuying } from '../catalogue/buying';
import type { Deps } from '../deps';
import type { Failure } from '../failure';
import { type Gauge, gaugeOf } from '../stock/gauge';
import { policyAt, reckoningOf } from './reckonPair';

export type PolicyCell = {
  readonly locationId: number | null;
  readonly location: string;
  readonly kind: EffectivePolicy['kind'];
  /** Where the values come from: this row, the item's row, or nowhere. */
  readonly origin: 'location' | 'item' | 'none';
  readonly min: string;
  readonly max: string;
  /** What is set in this very row; null when it inherits or nothing is set. */
  readonly own: { readonly min: string; readonly max: string } | null;
  readonly gauge: Gauge | null;
  readonly need: Quantity;
  readonly reckoning: Reckoning | null;
};

export type PolicyItem = {
  readonly itemId: number;
  readonly number: string;
  readonly name: string;
  readonly unit: string;
  readonly packName: string | null;
  readonly rows: readonly PolicyCell[];
};

const text = (q: Quantity | null) => (q === null ? '' : entryText(q));
const ownText = (set: PolicySetting | undefined) => (set ? { min: text(set.min), max: text(set.max) } : null);

/** The policy sheet: per item the row for every location, then one per place with what is in force there.
 *  Errors: forbidden. */
export async function readPolicies(
  deps: Deps,
  actor: Actor,
  filter: { readonly search: string; readonly locationId: number | null },
): Promise<Result<{ items: PolicyItem[]; without: number; locations: number }, Failure>> {
  const allowed = may(actor, 'policies.edit', filter.locationId === null ? {} : { locationIds: [filter.locationId] });
  if (!allowed.ok) return allowed;
  return readSnapshot(deps.pool, async (tx) => {
    const company = await readCompany(tx);
    const rows = await readItems(tx, filter.search);
    const ids = rows.map((r) => r.id);
    const settings = await readPoliciesOf(tx, ids);
    const levels = await readLevels(tx, ids);
    const states = await readStates(tx, ids);
    const book = await readBuying(tx, ids);
    const locations = (await readLocations(tx)).filter((l) => filter.locationId === null || l.id === filter.locationId);
    let without = 0;
    const items = rows.map((item): PolicyItem => {
      const own = settings.filter((s) => s.itemId === item.id);
      const every = own.find((s) => s.locationId === null);
      const buying = book.preferred.get(item.id);
      const placed = locations.map((l): PolicyCell => {
        const policy = policyAt(company, own, item.id, l.id);
        const here = (r: { itemId: number; locationId: number }) => r.itemId === item.id && r.locationId === l.id;
        const state = states.find(here);
        if (policy.kind === 'none') without += 1;
        return {
          locationId: l.id,
          location: l.name,
          kind: policy.kind,
          origin: policy.origin,
          min: policy.kind === 'min_max' ? text(policy.min) : '',
          max: policy.kind === 'min_max' ? text(policy.max) : '',
          own: ownText(own.find((s) => s.locationId === l.id)),
          gauge: gaugeOf(levels.find(here), state, policy),
          need: state?.needState === 'open' ? fromDecimal(state.suggested) : 0,
          reckoning: reckoningOf(policy, state, buying),
        };
      });
      const everywhere: PolicyCell = {
        locationId: null,
        location: 'every location',
        kind: every?.kind ?? 'none',
        origin: every ? 'location' : 'none',
        min: text(every?.min ?? null),
        max: text(every?.max ?? null),
        own: ownText(every),
        gauge: null,
        need: 0,
        reckoning: null,
      };
      return {
        itemId: item.id,
        number: item.number,
        name: item.name,
        unit: item.unitName,
        packName: buying?.packName ?? null,
        rows: [everywhere, ...placed],
      };
    });
    return ok({ items, without, locations: locations.length });
  });
}
