import {
  type NeedRunInput,
  type NeedRunOutput,
  needRun,
  needStates,
  type SlotPlan,
  type SlotStock,
  slotOfPlan,
  slotPlan,
  stateFingerprints,
} from '@/core/netting';
import type { Pair } from '@/data/repositories/levels';
import type { MovedState } from '@/data/repositories/movedStates';
import type { NeedInputs } from '@/data/repositories/needInputs';
import type { PlannedState } from '@/data/repositories/planning';
import { stamp } from '../deps';
import { sixDecimals } from './freshNeeds';

export type Run = {
  readonly arrays: NeedRunInput;
  readonly out: NeedRunOutput;
  readonly fingerprints: Float64Array;
};

export function runOf(inputs: NeedInputs): Run {
  const { arrays, sourceIds, locationIds, nextDue, pegs } = inputs;
  const out = needRun(arrays);
  return { arrays, out, fingerprints: stateFingerprints(arrays, out, sourceIds, locationIds, nextDue, pegs) };
}

/** Computed rows of the given pairs; transit has levels but no needs. */
export function statesOf(inputs: NeedInputs, run: Run, pairs: readonly Pair[]): PlannedState[] {
  return pairs.flatMap(({ itemId, locationId }) => {
    const at = inputs.slotOf(itemId, locationId);
    if (at === null) return [];
    const pegs = inputs.pegs.get(at) ?? [];
    const plan = pegs.length > 0 ? null : slotPlan(run.arrays, run.out.planned[at] as number, at, inputs.made(at));
    return [
      stateAt(run, at, {
        ...{ itemId, locationId, plan: plan && JSON.stringify(plan) },
        sourceId: inputs.sourceIds[at] || null,
        supplyLocationId: inputs.locationIds[(run.arrays.suppliedBy[at] as number) - 1] ?? null,
        nextDueAt: inputs.nextDue[at] ? stamp(new Date(inputs.nextDue[at] as number)).slice(0, 19) : null,
        pegged: sixDecimals(pegs.reduce((sum, p) => sum + p.pegged, 0)),
      }),
    ];
  });
}

/** A pair of which only the stock has moved, run by itself on the plan that is kept with its state: the same sum, and the same
 *  fingerprint, without reading again what has not changed. */
export const stateOfMoved = (m: MovedState): PlannedState =>
  stateOnPlan(m, { onHand: m.onHand, blocked: m.blocked, promised: m.allocated });

/** A pair run by itself on a plan. */
export function stateOnPlan(
  planned: Pick<PlannedState, 'itemId' | 'locationId' | 'sourceId' | 'supplyLocationId' | 'nextDueAt'> & {
    readonly plan: string;
  },
  stock: SlotStock,
): PlannedState {
  const { itemId, locationId, plan, sourceId, supplyLocationId, nextDueAt } = planned;
  const arrays = slotOfPlan(JSON.parse(plan) as SlotPlan, stock, supplyLocationId !== null);
  const out = needRun(arrays);
  const places = supplyLocationId === null ? [locationId] : [locationId, supplyLocationId];
  const due = nextDueAt === null ? 0 : Date.parse(`${nextDueAt.replace(' ', 'T')}Z`);
  const fingerprints = stateFingerprints(
    arrays,
    out,
    Uint32Array.of(sourceId ?? 0, 0),
    places,
    Float64Array.of(due, 0),
  );
  const kept = { itemId, locationId, plan, sourceId, supplyLocationId, nextDueAt, pegged: sixDecimals(0) };
  return stateAt({ arrays, out, fingerprints }, 0, kept);
}

/** What a run found at a slot, as it is stored. */
function stateAt(
  { arrays: a, out, fingerprints }: Run,
  at: number,
  known: Pick<
    PlannedState,
    'itemId' | 'locationId' | 'plan' | 'sourceId' | 'supplyLocationId' | 'nextDueAt' | 'pegged'
  >,
): PlannedState {
  const decimal = (array: Float64Array) => sixDecimals(array[at] as number);
  return {
    ...known,
    onHand: decimal(a.onHand),
    blocked: decimal(a.blocked),
    onTheWay: decimal(a.onTheWay),
    inTrays: decimal(a.inTrays),
    owed: decimal(a.owed),
    backordered: decimal(a.backordered),
    planned: decimal(out.planned),
    position: decimal(out.position),
    level: a.rule[at] === 1 ? decimal(a.level) : null,
    max: a.rule[at] === 1 && (a.max[at] as number) >= 0 ? decimal(a.max) : null,
    shortage: decimal(out.shortage),
    suggested: decimal(out.quantity),
    coverDays: (out.cover[at] as number) < 0 ? null : ((out.cover[at] as number) / 10).toFixed(1),
    excess: decimal(out.excess),
    belowMin: out.below[at] as number,
    needState: needStates[out.state[at] as number] as PlannedState['needState'],
    fingerprint: fingerprints[at] as number,
  };
}
