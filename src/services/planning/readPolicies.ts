import type { Reckoning } from '@/core/netting';
import { type Actor, may } from '@/core/people';
import type { EffectivePolicy, PolicySetting } from '@/core/policy';
import { entryText, fromDecimal, type Quantity } from '@/core/quantity';
import { err, ok, type Result } from '@/core/result';
import { readItemIds, readItemsByIds } from '@/data/repositories/catalogue';
import { readCompany, readLocations } from '@/data/repositories/company';
import { readLevels } from '@/data/repositories/levels';
import { readStates } from '@/data/repositories/planning';
import { countWithoutPolicy, readPoliciesOf } from '@/data/repositories/policies';
import type { Tx } from '@/data/sql';
import { readSnapshot } from '@/data/transaction';
import { readBuying } from '../catalogue/buying';
import type { Deps } from '../deps';
import type { Failure } from '../failure';
import { keepList, keptList, PAGE } from '../lists/listStore';
import { type Gauge, gaugeOf } from '../stock/gauge';
import { policyAt, reckoningOf } from './reckonPair';

/** One line of the policy sheet: an item at a place, or everywhere (location null, the first line of each item). */
export type PolicyLine = {
  readonly itemId: number;
  readonly number: string;
  readonly name: string;
  readonly unit: string;
  readonly packName: string | null;
  readonly locationId: number | null;
  readonly location: string;
  readonly kind: EffectivePolicy['kind'];
  /** Where the values come from: this line, the item's line, or nowhere. */
  readonly origin: 'location' | 'item' | 'none';
  readonly min: string;
  readonly max: string;
  /** What is set in this very line; null when it inherits or nothing is set. */
  readonly own: { readonly min: string; readonly max: string } | null;
  readonly gauge: Gauge | null;
  readonly need: Quantity;
  readonly reckoning: Reckoning | null;
};

/** The sheet as it was opened: its name, how many lines, and what stands over them. */
export type PolicySheetHead = {
  readonly list: string;
  readonly count: number;
  readonly items: number;
  readonly locations: number;
  readonly without: number;
};
/** Lines from one on; at most a page. */
export type PolicyPage = { readonly from: number; readonly rows: readonly PolicyLine[] };

type Kept = { readonly itemIds: Uint32Array; readonly locationIds: readonly number[] };
const KIND = 'policies';
export const policySorts = ['name', 'number'] as const;
export type PolicySort = (typeof policySorts)[number];

/** Opens the policy sheet: the items found, in order, each with a line for every location and one per place. The list is
 *  kept under a name, so that lines stay where they are while they are worked in. Errors: forbidden. */
export async function openPolicies(
  deps: Deps,
  actor: Actor,
  filter: { readonly search: string; readonly locationId: number | null; readonly sort: PolicySort },
): Promise<Result<PolicySheetHead, Failure>> {
  const allowed = may(actor, 'policies.edit', filter.locationId === null ? {} : { locationIds: [filter.locationId] });
  if (!allowed.ok) return allowed;
  return readSnapshot(deps.pool, async (tx) => {
    const itemIds = Uint32Array.from(await readItemIds(tx, filter.search, filter.sort));
    const places = (await readLocations(tx)).filter((l) => filter.locationId === null || l.id === filter.locationId);
    const locationIds = places.map((l) => l.id);
    const count = itemIds.length * (1 + locationIds.length);
    const data: Kept = { itemIds, locationIds };
    const list = keepList({ userId: actor.userId, kind: KIND, count, data }, deps.clock().getTime());
    const without = await countWithoutPolicy(tx, filter.search, locationIds);
    return ok({ list, count, items: itemIds.length, locations: locationIds.length, without });
  });
}

/** Up to 200 lines of an open sheet, as they are now. Errors: forbidden, list_gone (open it again). */
export async function readPolicyLines(
  deps: Deps,
  actor: Actor,
  { list, from }: { readonly list: string; readonly from: number },
): Promise<Result<PolicyPage, Failure>> {
  const allowed = may(actor, 'policies.edit');
  if (!allowed.ok) return allowed;
  const kept = keptList<Kept>(list, actor.userId, KIND, deps.clock().getTime());
  if (!kept) return err({ kind: 'list_gone' });
  const { itemIds, locationIds } = kept.data;
  const width = 1 + locationIds.length;
  const end = Math.min(kept.count, from + PAGE);
  const [first, last] = [Math.floor(from / width), Math.ceil(end / width)];
  return readSnapshot(deps.pool, async (tx) => {
    const lines = await linesOf(tx, [...itemIds.subarray(first, last)], locationIds);
    return ok({ from, rows: lines.slice(from - first * width, end - first * width) });
  });
}

const text = (q: Quantity | null) => (q === null ? '' : entryText(q));
const ownText = (set: PolicySetting | undefined) => (set ? { min: text(set.min), max: text(set.max) } : null);

/** The lines of these items, in their order. */
async function linesOf(tx: Tx, ids: readonly number[], locationIds: readonly number[]): Promise<PolicyLine[]> {
  const company = await readCompany(tx);
  const { items } = await readItemsByIds(tx, ids);
  const settings = await readPoliciesOf(tx, ids);
  const levels = await readLevels(tx, ids);
  const states = await readStates(tx, ids);
  const book = await readBuying(tx, ids);
  const locations = (await readLocations(tx)).filter((l) => locationIds.includes(l.id));
  return ids.flatMap((itemId): PolicyLine[] => {
    const item = items.get(itemId);
    const own = settings.filter((s) => s.itemId === itemId);
    const every = own.find((s) => s.locationId === null);
    const buying = book.preferred.get(itemId);
    const about = {
      itemId,
      number: item?.number ?? '',
      name: item?.name ?? '',
      unit: item?.unitName ?? '',
      packName: buying?.packName ?? null,
    };
    const everywhere: PolicyLine = {
      ...about,
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
    const placed = locations.map((l): PolicyLine => {
      const policy = policyAt(company, own, itemId, l.id);
      const here = (r: { itemId: number; locationId: number }) => r.itemId === itemId && r.locationId === l.id;
      const state = states.find(here);
      return {
        ...about,
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
    return [everywhere, ...placed];
  });
}
