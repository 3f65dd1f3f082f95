import type { Reckoning } from '@/core/netting';
import { type Actor, may } from '@/core/people';
import type { EffectivePolicy, PolicySetting } from '@/core/policy';
import { entryText, fromDecimal, type Quantity } from '@/core/quantity';
import { err, ok, type Result } from '@/core/result';
import { readItemsByIds } from '@/data/repositories/catalogue';
import { readCompany, readLocations } from '@/data/repositories/company';
import { readLevels } from '@/data/repositories/levels';
import { readList } from '@/data/repositories/lists';
import { readStates } from '@/data/repositories/planning';
import { countWithoutPolicy, readPoliciesOf } from '@/data/repositories/policies';
import type { Tx } from '@/data/sql';
import { readSnapshot } from '@/data/transaction';
import { readBuying } from '../catalogue/buying';
import { everyItem, findItems } from '../catalogue/findItems';
import type { Deps } from '../deps';
import type { Failure } from '../failure';
import { groupBy, pairKey, pairMap } from '../grouping';
import { type AskedRows, keepList, PAGE, type Page } from '../lists/keptList';
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

/** Entries of the kept list are items; each has a line for every location and one per place. */
type About = { readonly locationIds: readonly number[] };
export const policySorts = ['name', 'number'] as const;
export type PolicySort = (typeof policySorts)[number];

/** Opens the policy sheet: the items found that stock is kept of, in order, each with a line for every location and one per place. The list is
 *  kept under a name, so that lines stay where they are while they are worked in. Errors: forbidden. */
export async function openPolicies(
  deps: Deps,
  actor: Actor,
  filter: { readonly search: string; readonly locationId: number | null; readonly sort: PolicySort },
): Promise<Result<PolicySheetHead, Failure>> {
  const allowed = may(actor, 'needs.read', filter.locationId === null ? {} : { locationIds: [filter.locationId] });
  if (!allowed.ok) return allowed;
  const found = await readSnapshot(deps.pool, async (tx) => {
    const { search, sort } = filter;
    const ids = await findItems(tx, actor, { ...everyItem, search, sort, stockKept: true }, null);
    const places = (await readLocations(tx)).filter((l) => filter.locationId === null || l.id === filter.locationId);
    const locationIds = places.map((l) => l.id);
    return { ids, locationIds, without: await countWithoutPolicy(tx, search, locationIds) };
  });
  const about: About = { locationIds: found.locationIds };
  const list = await keepList(deps, actor, 'policies', { ids: found.ids, about });
  const [items, locations] = [found.ids.length, found.locationIds.length];
  return ok({ list, count: items * (1 + locations), items, locations, without: found.without });
}

/** Up to 200 lines of an open sheet, as they are now. Errors: forbidden, list_gone (open it again). */
export async function readPolicyLines(
  deps: Deps,
  actor: Actor,
  { list, from }: AskedRows,
): Promise<Result<Page<PolicyLine>, Failure>> {
  const allowed = may(actor, 'needs.read');
  if (!allowed.ok) return allowed;
  return readSnapshot<Result<Page<PolicyLine>, Failure>>(deps.pool, async (tx) => {
    const asked = { name: list, userId: actor.userId, kind: 'policies' as const };
    const head = await readList(tx, asked, { most: 0 });
    if (!head) return err({ kind: 'list_gone' });
    const { locationIds } = head.about as About;
    const width = 1 + locationIds.length;
    const [first, last] = [Math.floor(from / width), Math.ceil((from + PAGE) / width)];
    const kept = await readList(tx, asked, { from: first, most: last - first });
    const lines = await linesOf(tx, [...(kept?.entries ?? [])], locationIds);
    return ok({ from, rows: lines.slice(from - first * width, from - first * width + PAGE) });
  });
}

const text = (q: Quantity | null) => (q === null ? '' : entryText(q));
const ownText = (set: PolicySetting | undefined) => (set ? { min: text(set.min), max: text(set.max) } : null);

/** The lines of these items, in their order. */
async function linesOf(tx: Tx, ids: readonly number[], locationIds: readonly number[]): Promise<PolicyLine[]> {
  const company = await readCompany(tx);
  const items = await readItemsByIds(tx, ids);
  const settingsOf = groupBy(await readPoliciesOf(tx, ids), (s) => s.itemId);
  const levels = pairMap(await readLevels(tx, ids));
  const states = pairMap(await readStates(tx, ids));
  const book = await readBuying(tx, ids);
  const locations = (await readLocations(tx)).filter((l) => locationIds.includes(l.id));
  return ids.flatMap((itemId): PolicyLine[] => {
    const item = items.get(itemId);
    const own = settingsOf.get(itemId) ?? [];
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
      const state = states.get(pairKey(itemId, l.id));
      return {
        ...about,
        locationId: l.id,
        location: l.name,
        kind: policy.kind,
        origin: policy.origin,
        min: policy.kind === 'min_max' ? text(policy.min) : '',
        max: policy.kind === 'min_max' ? text(policy.max) : '',
        own: ownText(own.find((s) => s.locationId === l.id)),
        gauge: gaugeOf(levels.get(pairKey(itemId, l.id)), state, policy),
        need: state?.needState === 'open' ? fromDecimal(state.suggested) : 0,
        reckoning: reckoningOf(policy, state, buying),
      };
    });
    return [everywhere, ...placed];
  });
}
