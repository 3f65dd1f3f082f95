import { startOfDay } from '@/core/calendar';
import type { NeedRunInput, OrderRule } from '@/core/netting';
import { roundings } from '@/core/netting';
import { Asking } from '../asking';
import type { Tx } from '../sql';
import { askCalendars, type Calendars } from './calendars';
import { askCompanyRules, type CompanyRules } from './companyRules';
import { askGround } from './needInputs/ground';
import { horizonsOf } from './needInputs/horizons';
import { askSlotPlans, type InsteadOf, type SlotPlans } from './needInputs/plans';
import { askSlotSources } from './needInputs/sources';
import { askSupply, type PegLine, type PegOf, pegKey } from './needInputs/supply';
import { askPlaceDays } from './placeDays';

export type { PegLine, PegOf };
export { pegKey };

/** Inputs of a need run with what each slot stands for: slot = index of item × number of locations + index of location. */
export type NeedInputs = Pick<SlotPlans, 'policy' | 'levels' | 'plan' | 'made' | 'figures' | 'calendar'> & {
  readonly itemIds: readonly number[];
  readonly locationIds: readonly number[];
  readonly arrays: NeedRunInput;
  /** Preferred source per slot; 0 = none. */
  readonly sourceIds: Uint32Array;
  /** When time alone changes a slot, in milliseconds since 1970; 0 = never. */
  readonly nextDue: Float64Array;
  /** Lines asked of a slot, by places or customers, that are bought for one to one. */
  readonly pegs: ReadonlyMap<number, readonly PegLine[]>;
  /** The slot of a pair; null for what is not planned (transit, another item). */
  readonly slotOf: (itemId: number, locationId: number) => number | null;
  readonly orderRule: (at: number) => OrderRule;
  readonly calendars: Calendars;
};

/** Reads everything a need run depends on, into typed arrays. With item ids, only for those items (all their locations), in
 *  one message to the database; with null, for the whole catalogue, one table after the other. One set of SELECTs serves
 *  both, so the two can't disagree. */
export async function readNeedInputs(
  tx: Tx,
  only: readonly number[] | null,
  today: string,
  beside: {
    /** Settings as they would be. */
    readonly instead?: InsteadOf;
    /** What else is to go in that message, and what has been asked for already. */
    readonly ask?: Asking;
    readonly rules?: () => Promise<CompanyRules>;
  } = {},
): Promise<NeedInputs> {
  const ask = beside.ask ?? new Asking(tx, only === null ? 'in_turn' : 'together');
  const [rules, places] = [beside.rules ?? askCompanyRules(ask), askPlaceDays(ask)];
  const asked = {
    calendars: askCalendars(ask, today, rules, places),
    ground: askGround(ask, only, today, places),
    sources: askSlotSources(ask, only),
    plans: askSlotPlans(ask, only, rules),
    supply: askSupply(ask, only),
  };
  const { timeZone } = await rules();
  const calendars = await asked.calendars();
  const g = await asked.ground();
  const { sourceIds, ...sources } = await asked.sources(g);
  const plans = await asked.plans(g, { sourceIds, ...sources }, calendars, beside.instead ?? new Map());
  const nextDue = new Float64Array(g.arrays.count);
  const beginsAt = (day: string) => dueMs(day, timeZone);
  const due = (at: number, day: string) => {
    const ms = beginsAt(day);
    if (nextDue[at] === 0 || ms < (nextDue[at] as number)) nextDue[at] = ms;
  };
  for (const [at, day] of plans.seasonChange) due(at, day);
  const context = { plans, delivers: sources.delivers, sourceIds, due, beginsAt };
  const horizons = horizonsOf(g, context);
  const pegs = await asked.supply(g, context, horizons);
  const { policy, levels, plan, made, figures, calendar } = plans;
  return {
    ...{ itemIds: g.itemIds, locationIds: g.locationIds, arrays: g.arrays, sourceIds, nextDue, pegs },
    ...{ policy, levels, plan, made, figures, calendar, calendars },
    slotOf: (itemId, locationId) => {
      const [i, l] = [g.itemIndex.get(itemId), g.locationIndex.get(locationId)];
      return i === undefined || l === undefined ? null : i * g.width + l;
    },
    orderRule: (at) => ({
      minimum: g.arrays.orderMinimum[at] as number,
      packMicro: g.arrays.packMicro[at] as number,
      multiplePacks: g.arrays.multiplePacks[at] as number,
      mode: roundings[g.arrays.rounding[at] as number] as OrderRule['mode'],
    }),
  };
}

const starts = new Map<string, number>();
/** The instant a day begins in a time zone; the same few days are asked for by many slots. */
function dueMs(day: string, timeZone: string): number {
  const key = `${day} ${timeZone}`;
  const had = starts.get(key);
  if (had !== undefined) return had;
  if (starts.size > 5000) starts.clear();
  const ms = startOfDay(day, timeZone).getTime();
  starts.set(key, ms);
  return ms;
}
