import { arrivesIfOrdered } from '@/core/calendar';
import type { LeadTimeInUse } from '@/core/leadtime';
import { adviceFor, surplusOf } from '@/core/netting';
import { roundToStep } from '@/core/packs';
import { type Actor, may } from '@/core/people';
import { cellText, type EffectivePolicy, type PolicyField, policyFields, type Season } from '@/core/policy';
import { fromDecimal, type Quantity } from '@/core/quantity';
import { err, ok, type Result } from '@/core/result';
import type { Advice } from '@/core/safety';
import { findItem } from '@/data/repositories/catalogue';
import { readCompany, readLocations } from '@/data/repositories/company';
import { readRates } from '@/data/repositories/demand';
import { readLevels } from '@/data/repositories/levels';
import { readStates } from '@/data/repositories/planning';
import { readItemSettings, scopeKey } from '@/data/repositories/policySettings';
import { readSnapshot } from '@/data/transaction';
import { readBuying } from '../catalogue/buying';
import { type Deps, timeOf, todayOf } from '../deps';
import type { Failure } from '../failure';
import { freeOf } from '../stock/gauge';
import { readPairPlans } from './pairPlans';
import { cellsOf, type SettingCells } from './policyEdits';

/** A minimum that the service target asks for, and what it is reckoned from. */
export type AdvisedMinimum = Advice & {
  readonly rounded: Quantity;
  readonly perDay: Quantity;
  readonly sdPerDay: number;
  readonly leadMean: number;
  readonly leadSd: number;
  readonly leadFrom: LeadTimeInUse['from'] | 'van';
  readonly observed: number;
  readonly targetThousandths: number;
  readonly targetKind: EffectivePolicy['targetKind'];
};

/** Everything about the policy of an item at a place that does not stand in its line. */
export type PolicyDetail = {
  readonly values: Readonly<Record<PolicyField, string>>;
  readonly from: EffectivePolicy['from'];
  readonly own: SettingCells;
  readonly kind: EffectivePolicy['kind'];
  readonly seasons: readonly Season[];
  readonly inSeason: Season | null;
  readonly supplier: string | null;
  readonly pack: { readonly name: string; readonly micro: Quantity };
  readonly sentFrom: string | null;
  readonly arrives: string | null;
  readonly advice: AdvisedMinimum | null;
  readonly classes: string;
  readonly position: Quantity | null;
  readonly level: Quantity | null;
  /** What other places have free, and could send: free less minimum and what is sold until they can refill. */
  readonly others: readonly {
    readonly location: string;
    readonly free: Quantity;
    readonly surplus: Quantity;
    readonly arrives: string;
  }[];
};

/** The policy of an item at a place, or what is said for every place (location null). Errors: forbidden, not_found. */
export async function readPolicyDetail(
  deps: Deps,
  actor: Actor,
  { itemId, locationId }: { readonly itemId: number; readonly locationId: number },
): Promise<Result<PolicyDetail, Failure>> {
  const allowed = may(actor, 'needs.read', { locationIds: [locationId] });
  if (!allowed.ok) return allowed;
  return readSnapshot<Result<PolicyDetail, Failure>>(deps.pool, async (tx) => {
    const item = await findItem(tx, itemId);
    if (!item) return err({ kind: 'not_found', what: 'item' });
    const company = await readCompany(tx);
    const [today, time] = [todayOf(deps, company), timeOf(deps, company)];
    const plans = await readPairPlans(tx, [itemId], today);
    const here = plans.at(itemId, locationId);
    if (!here) return err({ kind: 'not_found', what: 'location' });
    const { policy, figures, rule, plan } = here;
    const settings = await readItemSettings(tx, [itemId]);
    const own = settings.get(scopeKey(itemId, locationId)) ?? null;
    const places = await readLocations(tx);
    const names = new Map(places.map((l) => [l.id, l.name]));
    const buying = (await readBuying(tx, [itemId])).bySource.get(here.sourceId ?? 0);
    const states = await readStates(tx, [itemId]);
    const levels = await readLevels(tx, [itemId]);
    const rates = await readRates(tx, [itemId]);
    const rate = rates.find((r) => r.locationId === locationId);
    const state = states.find((s) => s.locationId === locationId);
    const advice = adviceFor(policy, figures);
    const lead = buying
      ? plans.calendars.leadTime(buying.source.supplierId, {
          days: buying.source.leadTimeDays,
          kind: buying.source.leadTimeKind,
        })
      : null;
    const others = places
      .filter((l) => l.id !== locationId && l.closed === 0)
      .flatMap((l) => {
        const level = levels.find((x) => x.locationId === l.id);
        const free = level ? Math.max(0, freeOf(level)) : 0;
        if (free === 0) return [];
        const there = plans.at(itemId, l.id);
        const refill = there?.calendar ? daysUntil(today, arrivesIfOrdered(there.calendar, today, time)) : 0;
        const min = there?.plan.rule === 'level' ? there.plan.level : 0;
        const perDay = fromDecimal(rates.find((r) => r.locationId === l.id)?.perDay ?? '0');
        const surplus = surplusOf({ free, min, reserve: there?.policy.reserve ?? 0, perDay, daysToRefill: refill });
        const arrives = arrivesIfOrdered(plans.calendars.sending(locationId), today);
        return [{ location: l.name, free, surplus: roundToStep(surplus, figures.unitMicro, 'down'), arrives }];
      });
    return ok({
      values: Object.fromEntries(
        policyFields.map((f) => [f, cellText(f, policy[f as keyof EffectivePolicy] as never)]),
      ) as Record<PolicyField, string>,
      from: policy.from,
      own: cellsOf(own),
      kind: policy.kind,
      seasons: [...(own?.seasons ?? []), ...(settings.get(scopeKey(itemId, null))?.seasons ?? [])],
      inSeason: policy.minSeason ?? policy.maxSeason,
      supplier: buying?.source.supplierName ?? null,
      pack: { name: buying?.packName ?? item.unitName, micro: rule.packMicro },
      sentFrom: here.sentFrom === null ? null : (names.get(here.sentFrom) ?? null),
      arrives: here.calendar ? arrivesIfOrdered(here.calendar, today, time) : null,
      advice: advice && {
        ...advice,
        rounded: roundToStep(advice.minimum, Math.max(rule.packMicro, figures.unitMicro), 'up'),
        perDay: figures.perDay,
        sdPerDay: figures.sdPerDay,
        leadMean: figures.lead.mean,
        leadSd: figures.lead.sd,
        leadFrom: here.sentFrom === null ? (lead?.from ?? 'stated') : 'van',
        observed: lead?.n ?? 0,
        targetThousandths: policy.targetThousandths,
        targetKind: policy.targetKind,
      },
      classes: `${rate?.abc ?? ''}${rate?.xyz ?? ''}`,
      position: state ? fromDecimal(state.position) : null,
      level: plan.rule === 'level' ? plan.level : null,
      others,
    });
  });
}

const daysUntil = (from: string, to: string): number => Math.round((Date.parse(to) - Date.parse(from)) / 86_400_000);
