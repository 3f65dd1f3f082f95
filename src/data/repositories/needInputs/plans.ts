import { reviewDays, type SupplyCalendar } from '@/core/calendar';
import {
  type DatedPlan,
  type LevelMade,
  type LevelPlan,
  minMaxTerm,
  type Plan,
  type PlanFigures,
  planOf,
  roundings,
  termsDigest,
} from '@/core/netting';
import {
  type EffectivePolicy,
  effectivePolicy,
  emptySetting,
  isPlain,
  nextSeasonChange,
  type PlainRow,
  type PolicyLevel,
  type PolicySetting,
  plainMinMax,
  policyFields,
} from '@/core/policy';
import type { Asking } from '../../asking';
import type { Calendars } from '../calendars';
import type { CompanyRules } from '../companyRules';
import { askItemSettings, askWiderLevels, scopeKey, type WiderLevels } from '../policySettings';
import { type Ground, micro } from './ground';
import type { SourcesRead } from './sources';

type PlainCells = [
  itemId: number,
  locationId: number | null,
  kind: PolicySetting['kind'],
  min: number | null,
  max: number | null,
  trigger: PolicySetting['trigger'],
  refill: PolicySetting['refill'],
];

/** What is asked of a slot besides the arrays, worked out when it is asked for. */
export type SlotPlans = {
  readonly policy: (at: number) => EffectivePolicy;
  readonly levels: (at: number) => readonly PolicyLevel[];
  readonly plan: (at: number) => Plan;
  /** What the level of a slot is made of; null where it has none. */
  readonly made: (at: number) => LevelMade | null;
  readonly figures: (at: number) => PlanFigures;
  /** How what is ordered for a slot comes there; null without a supplier. */
  readonly calendar: (at: number) => SupplyCalendar | null;
  /** Nothing is raised by stock here, but what customers wait for may be bought: no policy yet, or per demand. */
  readonly buysForThoseWhoWait: (at: number) => boolean;
  readonly dated: ReadonlyMap<number, DatedPlan>;
  /** Slots whose policy looks at order days. */
  readonly periodic: readonly number[];
  /** The next day on which a season of these slots begins or ends. */
  readonly seasonChange: ReadonlyMap<number, string>;
};

/** Settings taken instead of those kept, by `scopeKey`: null = taken away. What would be if they were saved. */
export type InsteadOf = ReadonlyMap<string, PolicySetting | null>;

/** Puts the plan of every slot into the arrays: what raises a need there, up to where, and which place sends. */
export function askSlotPlans(
  ask: Asking,
  only: readonly number[] | null,
  rules: () => Promise<CompanyRules>,
): (g: Ground, sources: SourcesRead, calendars: Calendars, instead: InsteadOf) => Promise<SlotPlans> {
  const wider = askWiderLevels(ask, rules);
  const settings = askItemSettings(ask, only);
  // Of everything, only settings that say more are read whole; of some items, all of them.
  const rows =
    only === null
      ? ask.arrays<PlainCells>(
          `SELECT item_id, location_id, kind, ${micro('min_quantity')}, ${micro('max_quantity')}, trigger_rule, refill_rule
             FROM policy ORDER BY item_id, scope`,
        )
      : async () => plainCellsOf(await settings());
  return async (g, sources, calendars, instead) =>
    plansOf(g, sources, calendars, instead, await wider(), await settings(), await rows());
}

/** Rows as the database gives them, by item and place, that for everywhere first. */
const plainCellsOf = (settings: ReadonlyMap<string, PolicySetting>): PlainCells[] =>
  [...settings]
    .map(([key, s]): PlainCells => {
      const [itemId = 0, locationId = 0] = key.split('/').map(Number);
      return [itemId, locationId || null, s.kind, s.min, s.max, s.trigger, s.refill];
    })
    .sort((a, b) => a[0] - b[0] || (a[1] ?? 0) - (b[1] ?? 0));

function plansOf(
  g: Ground,
  sources: SourcesRead,
  calendars: Calendars,
  instead: InsteadOf,
  wider: WiderLevels,
  settings: ReadonlyMap<string, PolicySetting>,
  rows: readonly PlainCells[],
): SlotPlans {
  const { arrays, width, locationIds, itemIds, today } = g;
  const firstRow = new Int32Array(itemIds.length).fill(-1);
  for (let r = 0; r < rows.length; r += 1) {
    const i = g.itemIndex.get((rows[r] as PlainCells)[0]);
    if (i !== undefined && firstRow[i] === -1) firstRow[i] = r;
  }
  const rowsOf = (i: number): { every: PlainCells | null; own: Map<number, PlainCells> } => {
    const own = new Map<number, PlainCells>();
    let every: PlainCells | null = null;
    const first = firstRow[i] as number;
    for (let r = first; r >= 0 && r < rows.length && (rows[r] as PlainCells)[0] === itemIds[i]; r += 1) {
      const row = rows[r] as PlainCells;
      if (row[1] === null) every = row;
      else own.set(row[1], row);
    }
    return { every, own };
  };
  const settingOf = (itemId: number, locationId: number | null, row: PlainCells | null): PolicySetting | null => {
    const key = scopeKey(itemId, locationId);
    const other = instead.get(key);
    const whole = settings.get(key);
    if (other !== undefined) {
      const seasons = whole?.seasons ?? [];
      return other === null ? (seasons.length > 0 ? { ...emptySetting, seasons } : null) : { ...other, seasons };
    }
    if (!row) return whole ?? null;
    const [, , kind, min, max, trigger, refill] = row;
    return { ...(whole ?? emptySetting), kind, min, max, trigger, refill };
  };
  const levels = (at: number): PolicyLevel[] => {
    const [i, l] = [Math.floor(at / width), at % width];
    const [itemId, locationId] = [itemIds[i] as number, locationIds[l] as number];
    const { every, own } = rowsOf(i);
    const [here, item] = [settingOf(itemId, locationId, own.get(locationId) ?? null), settingOf(itemId, null, every)];
    return [
      ...(here ? [{ origin: 'location' as const, setting: here }] : []),
      ...(item ? [{ origin: 'item' as const, setting: item }] : []),
      ...wider(g.categoryIds[i] as number),
    ];
  };
  const sender = (at: number, policy: EffectivePolicy): number => {
    if (policy.supply !== 'place') return 0;
    const l = at % width;
    const place = policy.supplyPlace ?? (g.suppliedBy[l] as number);
    const index = g.locationIndex.get(place);
    return index === undefined || index === l || g.closed[index] ? 0 : index + 1;
  };
  const calendar = (at: number): SupplyCalendar | null => {
    const locationId = locationIds[at % width] as number;
    if ((arrays.suppliedBy[at] as number) > 0) return calendars.sending(locationId);
    const delivers = sources.delivers.get(sources.sourceIds[at] as number);
    return delivers ? calendars.supply(delivers.supplierId, delivers.stated, locationId) : null;
  };
  const figures = (at: number): PlanFigures => {
    const i = Math.floor(at / width);
    const c = calendar(at);
    const delivers = sources.delivers.get(sources.sourceIds[at] as number);
    const sent = (arrays.suppliedBy[at] as number) > 0;
    const lead = sent
      ? { mean: Math.max(1, calendars.travelDays(locationIds[at % width] as number)), sd: 0, observed: null }
      : delivers
        ? calendars.leadTime(delivers.supplierId, delivers.stated)
        : { mean: 0, sd: 0, observed: null };
    return {
      perDay: arrays.perDay[at] as number,
      sdPerDay: g.sdPerDay[at] as number,
      lead,
      reviewDays: c ? usualReview(c, today) : 1,
      packMicro: arrays.packMicro[at] as number,
      unitMicro: g.unitMicro[i] as number,
    };
  };
  const planned = (at: number): boolean => g.refilled[Math.floor(at / width)] === 1 && g.closed[at % width] === false;
  const policy = (at: number): EffectivePolicy => effectivePolicy(levels(at), today);
  const plan = (at: number): Plan => (planned(at) ? planOf(policy(at), figures(at)) : { rule: 'none' });

  // Slots with a min and a max of their own and nothing more: what those say is found without the rest of their policy.
  const plainAt = new Uint8Array(arrays.count);
  const widerPolicy = new Map<number, EffectivePolicy>();
  const made = (at: number): LevelMade | null => {
    if (plainAt[at] === 0) {
      const own = arrays.rule[at] === 1 ? plan(at) : null;
      return own?.rule === 'level' ? own : null;
    }
    const i = Math.floor(at / width);
    const { every, own } = rowsOf(i);
    const here = own.get(locationIds[at % width] as number) ?? null;
    const above = widerPolicy.get(g.categoryIds[i] as number) as EffectivePolicy;
    const p = plainMinMax(plainRow(here), plainRow(every), above);
    if (p === null || p.min === null) return null;
    return { kind: 'min_max', terms: [minMaxTerm(p.min, p.max, p.refill === 'up_to_min')] };
  };

  const buysForThoseWhoWait = (at: number): boolean => {
    if (!planned(at)) return false;
    const { kind } = policy(at);
    return kind !== 'phase_out' && kind !== 'not_carried';
  };

  const dated = new Map<number, DatedPlan>();
  const periodic: number[] = [];
  const seasonChange = new Map<number, string>();
  const level = (at: number, p: LevelPlan) => {
    arrays.rule[at] = 1;
    arrays.level[at] = p.level;
    arrays.refillTo[at] = p.refillTo;
    arrays.max[at] = p.max ?? -1;
    arrays.atOrBelow[at] = p.trigger === 'at_or_below' ? 1 : 0;
    arrays.fixed[at] = p.fixed;
    arrays.madeOf[at] = termsDigest(p.kind, p.terms);
  };
  const whole = (at: number) => {
    const p = policy(at);
    const own = levels(at).flatMap((l) => l.setting.seasons);
    const change = nextSeasonChange(own, today);
    if (change !== null) seasonChange.set(at, change);
    const from = sender(at, p);
    if (from > 0) {
      const pack = g.sendPacks[Math.floor(at / width)] as number;
      arrays.suppliedBy[at] = from;
      sources.sourceIds[at] = 0;
      arrays.orderMinimum[at] = 0;
      arrays.packMicro[at] = pack > 0 ? sources.packMicro(pack) : (g.unitMicro[Math.floor(at / width)] as number);
      arrays.multiplePacks[at] = 1;
      arrays.rounding[at] = 0;
    }
    if (p.rounding !== null) arrays.rounding[at] = roundings.indexOf(p.rounding);
    if (!planned(at)) return;
    const made = planOf(p, figures(at));
    if (made.rule === 'level') level(at, made);
    else if (made.rule === 'dated') {
      arrays.rule[at] = 2;
      dated.set(at, made);
    }
    if (p.kind === 'periodic' && made.rule === 'level') periodic.push(at);
  };

  // Of everything, only settings that say more have been read whole.
  const special = (s: PolicySetting | undefined) => (g.only === null ? s !== undefined : saysMore(s));
  const wholeHere = (itemId: number, locationId: number): boolean => {
    const key = scopeKey(itemId, locationId);
    return instead.has(key) || special(settings.get(key));
  };
  const own: (PlainCells | null)[] = new Array(width).fill(null);
  const anyWhole = settings.size > 0 || instead.size > 0;
  for (let i = 0; i < itemIds.length; i += 1) {
    const itemId = itemIds[i] as number;
    const category = g.categoryIds[i] as number;
    let above = widerPolicy.get(category);
    if (!above) {
      above = effectivePolicy(wider(category), today);
      widerPolicy.set(category, above);
    }
    // The item's own rows stand together, that for everywhere first.
    own.fill(null);
    let every: PlainCells | null = null;
    for (let r = firstRow[i] as number; r >= 0 && r < rows.length && (rows[r] as PlainCells)[0] === itemId; r += 1) {
      const row = rows[r] as PlainCells;
      if (row[1] === null) every = row;
      else own[g.locationIndex.get(row[1]) ?? -1] = row;
    }
    const key = anyWhole ? scopeKey(itemId, null) : '';
    const plainItem = isPlain(above) && !(anyWhole && (instead.has(key) || special(settings.get(key))));
    const item = plainRow(every);
    // What holds where a place says nothing itself is the same for all of them.
    const common = plainMinMax(null, item, above);
    const commonKind = item?.kind ?? above.kind;
    for (let l = 0; l < width; l += 1) {
      const at = i * width + l;
      const row = own[l] ?? null;
      const kind = row?.[2] ?? commonKind;
      const plain = plainItem && (kind === 'min_max' || kind === 'none' || kind === 'not_carried');
      if (!plain || (anyWhole && wholeHere(itemId, locationIds[l] as number))) {
        whole(at);
        continue;
      }
      if (g.refilled[i] !== 1 || g.closed[l] === true) continue;
      const p = row === null ? common : plainMinMax(plainRow(row), item, above);
      if (p === null || p.min === null) continue;
      plainAt[at] = 1;
      arrays.rule[at] = 1;
      arrays.level[at] = p.min;
      arrays.refillTo[at] = p.refill === 'up_to_min' || p.max === null || p.max < p.min ? p.min : p.max;
      arrays.max[at] = p.max === null ? -1 : Math.max(p.max, p.min);
      arrays.atOrBelow[at] = p.trigger === 'at_or_below' ? 1 : 0;
      arrays.madeOf[at] = termsDigest('min_max', [minMaxTerm(p.min, p.max, p.refill === 'up_to_min')]);
    }
  }
  return { policy, levels, plan, made, figures, calendar, buysForThoseWhoWait, dated, periodic, seasonChange };
}

const plainRow = (row: PlainCells | null): PlainRow | null =>
  row && { kind: row[2], min: row[3], max: row[4], trigger: row[5], refill: row[6] };

/** Whether a setting says more than kind, min, max and their rules. */
const saysMore = (s: PolicySetting | undefined): boolean =>
  s !== undefined &&
  (s.seasons.length > 0 || (s.kind !== null && !PLAIN_KINDS.has(s.kind)) || BEYOND_PLAIN.some((f) => s[f] !== null));
const BEYOND_PLAIN = policyFields.filter((f) => !['kind', 'min', 'max', 'trigger', 'refill'].includes(f));
const PLAIN_KINDS: ReadonlySet<string> = new Set(['min_max', 'not_carried', 'phase_out']);

/** Days between order slots as a rule: a week over its slots, so that a closure ahead does not count. */
function usualReview(c: SupplyCalendar, today: string): number {
  const slots = c.slots.week.filter(Boolean).length;
  return slots === 0 ? reviewDays(c, today) : slots >= 5 ? 1 : 7 / slots;
}
