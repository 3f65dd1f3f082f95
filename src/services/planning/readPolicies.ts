import type { Reckoning } from '@/core/netting';
import { type Actor, may } from '@/core/people';
import {
  cellText,
  type EffectivePolicy,
  type PolicyHint,
  type PolicyKind,
  type PolicyOrigin,
  policyHints,
  policyKinds,
} from '@/core/policy';
import { fromDecimal, type Quantity } from '@/core/quantity';
import { err, ok, type Result } from '@/core/result';
import { leadTimeDemand } from '@/core/safety';
import { readCategoryTree, readItemsByIds } from '@/data/repositories/catalogue';
import { readCompany, readLocations } from '@/data/repositories/company';
import { readRates } from '@/data/repositories/demand';
import { readLevels } from '@/data/repositories/levels';
import { readList } from '@/data/repositories/lists';
import { readStates } from '@/data/repositories/planning';
import { countWithoutPolicy } from '@/data/repositories/policies';
import { type PolicyFilter, readPolicyItems } from '@/data/repositories/policyLists';
import { readItemSettings, readWiderLevels, scopeKey } from '@/data/repositories/policySettings';
import type { Tx } from '@/data/sql';
import { readSnapshot } from '@/data/transaction';
import { readBuying } from '../catalogue/buying';
import { everyItem, findItems } from '../catalogue/findItems';
import { type Deps, todayOf } from '../deps';
import type { Failure } from '../failure';
import { pairKey, pairMap } from '../grouping';
import { type AskedRows, keepList, PAGE, type Page } from '../lists/keptList';
import { coverDaysOf, type Gauge, gaugeOf } from '../stock/gauge';
import { readPairPlans } from './pairPlans';
import { cellsOf, type SettingCells } from './policyEdits';

/** One line of the policy sheet: an item at a place, or everywhere (location null, the first line of each item). */
export type PolicyLine = {
  readonly itemId: number;
  readonly number: string;
  readonly name: string;
  readonly unit: string;
  readonly packName: string | null;
  readonly packMicro: Quantity;
  readonly locationId: number | null;
  readonly location: string;
  readonly kind: EffectivePolicy['kind'];
  /** Where the kind is said. */
  readonly origin: PolicyOrigin;
  /** What the kind can't do without and nobody says. */
  readonly missing: EffectivePolicy['missing'];
  /** What is in force, as it is typed. */
  readonly values: { readonly min: string; readonly max: string; readonly fixed: string; readonly coverDays: string };
  /** Where each of them is said. */
  readonly from: { readonly [K in 'kind' | 'min' | 'max' | 'fixed' | 'coverDays']: PolicyOrigin };
  /** What is set in this very line. */
  readonly own: SettingCells;
  /** A season is in force for the minimum or the maximum. */
  readonly season: boolean;
  /** The place that sends it here; null = bought. */
  readonly sentFrom: string | null;
  readonly hints: readonly PolicyHint[];
  /** Mean use a day; 0 without any. */
  readonly perDay: Quantity;
  readonly coverDays: number | null;
  /** Like "AX"; '' where nothing was sold. */
  readonly classes: string;
  readonly gauge: Gauge | null;
  readonly need: Quantity;
  readonly needState: 'none' | 'open' | 'decided' | 'aside';
  readonly excess: Quantity;
  readonly reckoning: Reckoning | null;
};

/** The sheet as it was opened: its name, how many lines, and what stands over them. */
export type PolicySheetHead = {
  readonly list: string;
  readonly count: number;
  readonly items: number;
  readonly locations: number;
  readonly without: number;
  readonly currency: string;
  /** Places as they can be chosen, to send from. */
  readonly places: readonly { readonly id: number; readonly name: string }[];
};

/** Entries of the kept list are items; each has a line for every location and one per place. */
type About = { readonly locationIds: readonly number[] };
export const policySorts = ['name', 'number'] as const;
export type PolicySort = (typeof policySorts)[number];
/** What of the sheet is shown: everything, or items that at one of its places are so. */
export const policyShows = ['', 'without', 'below', 'above', 'need', ...policyKinds] as const;
export type PolicyShow = (typeof policyShows)[number];
export const policyClasses = ['', 'A', 'B', 'C', 'X', 'Y', 'Z'] as const;

export type PoliciesAsked = {
  readonly search: string;
  readonly locationId: number | null;
  readonly sort: PolicySort;
  readonly category: string;
  readonly supplier: string;
  readonly maker: string;
  /** Whose items; null = anybody's. */
  readonly buyerId: number | null;
  readonly show: PolicyShow;
  readonly abcXyz: (typeof policyClasses)[number];
};

export const allPolicies: PoliciesAsked = {
  ...{ search: '', locationId: null, sort: 'name', category: '', supplier: '', maker: '', buyerId: null },
  ...{ show: '', abcXyz: '' },
};

/** Opens the policy sheet: the items found that stock is kept of, in order, each with a line for every location and one per
 *  place. The list is kept under a name, so that lines stay where they are while they are worked in. Errors: forbidden. */
export async function openPolicies(
  deps: Deps,
  actor: Actor,
  asked: PoliciesAsked,
): Promise<Result<PolicySheetHead, Failure>> {
  const { locationId } = asked;
  const allowed = may(actor, 'needs.read', locationId === null ? {} : { locationIds: [locationId] });
  if (!allowed.ok) return allowed;
  const found = await readSnapshot(deps.pool, async (tx) => {
    const company = await readCompany(tx);
    const places = (await readLocations(tx)).filter((l) => l.closed === 0);
    const shown = places.filter((l) => locationId === null || l.id === locationId);
    const locationIds = shown.map((l) => l.id);
    const { search, sort, category, supplier, buyerId } = asked;
    const ids = await findItems(
      tx,
      actor,
      { ...everyItem, search, sort, category, supplier, buyerId, stockKept: true },
      null,
    );
    const withDefault = await categoriesWithPolicy(tx);
    const filter: PolicyFilter = { show: asked.show, abcXyz: asked.abcXyz, maker: asked.maker };
    const only = await readPolicyItems(tx, filter, locationIds, withDefault);
    const items = only ? ids.filter((id) => only.has(id)) : ids;
    return {
      ...{ ids: items, locationIds, currency: company.currency },
      places: places.map((l) => ({ id: l.id, name: l.name })),
      without: await countWithoutPolicy(tx, items, locationIds, withDefault),
    };
  });
  const about: About = { locationIds: found.locationIds };
  const list = await keepList(deps, actor, 'policies', { ids: found.ids, about });
  const [items, locations] = [found.ids.length, found.locationIds.length];
  const { without, currency, places } = found;
  return ok({ list, count: items * (1 + locations), items, locations, without, currency, places });
}

/** Categories whose items have a kind of policy from them, from above them or from the company. */
async function categoriesWithPolicy(tx: Tx): Promise<ReadonlySet<number>> {
  const wider = await readWiderLevels(tx);
  const categories = await readCategoryTree(tx);
  return new Set(categories.filter((c) => wider(c.id).some((l) => l.setting.kind !== null)).map((c) => c.id));
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
    const lines = await policyLinesOf(deps, tx, [...(kept?.entries ?? [])], locationIds);
    return ok({ from, rows: lines.slice(from - first * width, from - first * width + PAGE) });
  });
}

/** The lines of these items, in their order. */
export async function policyLinesOf(
  deps: Deps,
  tx: Tx,
  ids: readonly number[],
  locationIds: readonly number[],
): Promise<PolicyLine[]> {
  const today = todayOf(deps, await readCompany(tx));
  const items = await readItemsByIds(tx, ids);
  const settings = await readItemSettings(tx, ids);
  const levels = pairMap(await readLevels(tx, ids));
  const states = pairMap(await readStates(tx, ids));
  const rates = pairMap(await readRates(tx, ids));
  const book = await readBuying(tx, ids);
  const plans = await readPairPlans(tx, ids, today);
  const all = await readLocations(tx);
  const names = new Map(all.map((l) => [l.id, l.name]));
  const locations = all.filter((l) => locationIds.includes(l.id));
  return ids.flatMap((itemId): PolicyLine[] => {
    const item = items.get(itemId);
    const about = {
      itemId,
      number: item?.number ?? '',
      name: item?.name ?? '',
      unit: item?.unitName ?? '',
    };
    const own = (locationId: number | null) => settings.get(scopeKey(itemId, locationId)) ?? null;
    const placed = locations.map((l): PolicyLine => {
      const planned = plans.at(itemId, l.id);
      const state = states.get(pairKey(itemId, l.id));
      const rate = rates.get(pairKey(itemId, l.id));
      const { policy, figures, plan } = planned ?? {};
      const gauge = gaugeOf(levels.get(pairKey(itemId, l.id)), state);
      const sold = figures ? leadTimeDemand({ mean: figures.perDay / 1e6, sd: 0 }, figures.lead).mean : 0;
      const [min, max] = [policy?.min ?? null, policy?.max ?? null];
      return {
        ...about,
        packName: planned?.sentFrom ? null : (book.bySource.get(planned?.sourceId ?? 0)?.packName ?? null),
        packMicro: planned?.rule.packMicro ?? 1e6,
        locationId: l.id,
        location: l.name,
        ...sayingOf(policy),
        values: valuesOf(policy, plan?.rule === 'level' ? plan : null),
        own: cellsOf(own(l.id)),
        season: policy?.minSeason != null || policy?.maxSeason != null,
        sentFrom: planned?.sentFrom ? (names.get(planned.sentFrom) ?? null) : null,
        hints:
          policy && (policy.kind === 'min_max' || policy.kind === 'fixed_quantity')
            ? policyHints(min, policy.kind === 'min_max' ? max : null, {
                packMicro: planned?.rule.packMicro ?? 0,
                leadTimeDemand: sold > 0 ? Math.round(sold * 1e6) : null,
              })
            : [],
        perDay: rate ? fromDecimal(rate.perDay) : 0,
        coverDays: coverDaysOf(state),
        classes: `${rate?.abc ?? ''}${rate?.xyz ?? ''}`,
        gauge,
        need: state?.needState === 'open' ? fromDecimal(state.suggested) : 0,
        needState: state?.needState ?? 'none',
        excess: state ? fromDecimal(state.excess) : 0,
        reckoning: plans.reckoning(itemId, l.id, state),
      };
    });
    const every = own(null);
    const everywhere: PolicyLine = {
      ...about,
      packName: book.preferred.get(itemId)?.packName ?? null,
      packMicro: 1e6,
      locationId: null,
      location: 'every location',
      kind: every?.kind ?? 'none',
      origin: every?.kind ? 'item' : 'none',
      missing: [],
      values: {
        min: every ? cellText('min', every.min) : '',
        max: every ? cellText('max', every.max) : '',
        fixed: every ? cellText('fixed', every.fixed) : '',
        coverDays: every ? cellText('coverDays', every.coverDays) : '',
      },
      from: { kind: 'item', min: 'item', max: 'item', fixed: 'item', coverDays: 'item' },
      own: cellsOf(every),
      season: (every?.seasons.length ?? 0) > 0,
      sentFrom: null,
      hints: [],
      perDay: 0,
      coverDays: null,
      classes: '',
      gauge: null,
      need: 0,
      needState: 'none',
      excess: 0,
      reckoning: null,
    };
    return [everywhere, ...placed];
  });
}

function sayingOf(policy: EffectivePolicy | undefined) {
  const from = policy?.from;
  return {
    kind: policy?.kind ?? ('none' as const),
    origin: policy?.origin ?? ('none' as const),
    missing: policy?.missing ?? [],
    from: {
      kind: from?.kind ?? ('none' as const),
      min: from?.min ?? ('none' as const),
      max: from?.max ?? ('none' as const),
      fixed: from?.fixed ?? ('none' as const),
      coverDays: from?.coverDays ?? ('none' as const),
    },
  };
}

/** The values in force as they are typed; where the levels are reckoned from demand, as they came out. */
function valuesOf(policy: EffectivePolicy | undefined, plan: { level: Quantity; refillTo: Quantity } | null) {
  const reckoned: readonly (PolicyKind | 'none')[] = ['days_of_cover', 'periodic'];
  const by = policy && reckoned.includes(policy.kind) ? plan : null;
  const min =
    policy?.kind === 'days_of_cover' ? (by?.level ?? null) : policy?.kind === 'periodic' ? null : (policy?.min ?? null);
  const max = by ? by.refillTo : (policy?.max ?? null);
  return {
    min: cellText('min', min),
    max: cellText('max', max),
    fixed: cellText('fixed', policy?.fixed ?? null),
    coverDays: cellText('coverDays', policy?.coverDays ?? null),
  };
}
