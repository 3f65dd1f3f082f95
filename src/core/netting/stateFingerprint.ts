import { policyKinds } from '@/core/policy';
import type { NeedRunInput, NeedRunOutput } from './needRun';
import { type LevelPlan, type PlanTerm, planTermLabels } from './plan';

// Looked up once: in some surroundings (a context of its own, as tests run in) each look at a global costs more than the sum.
const { imul, floor } = Math;

/** One step of a 32-bit mix (the finaliser of MurmurHash3, Appleby, public domain; constants from memory). It stands beside its
 *  callers: a run calls it fifty million times, and a call across modules costs more than the step. */
function mix(hash: number, word: number): number {
  let h = imul(hash ^ word, 0x85ebca6b);
  h ^= h >>> 13;
  h = imul(h, 0xc2b2ae35);
  return h ^ (h >>> 16);
}

const LOW = 1_048_576;
const high = (value: number) => floor(value / 4_294_967_296) | 0;
const mixNumber = (hash: number, value: number) => mix(mix(hash, value | 0), high(value));

const kinds: readonly string[] = policyKinds;
/** What a level is made of as one number of 32 bits: kept plans are new when their sum is, also where it comes to the same. */
export function termsDigest(kind: LevelPlan['kind'], terms: readonly PlanTerm[]): number {
  let h = mix(0x3c6ef372, kinds.indexOf(kind) + 1);
  for (const { label, quantity, over } of terms) {
    h = mixNumber(mixNumber(h, planTermLabels.indexOf(label)), quantity);
    // Days may have a part.
    h = mixNumber(mixNumber(h, over?.perDay ?? -1), Math.round((over?.days ?? -1) * 1_000_000));
  }
  return h >>> 0;
}

/** A line that is bought for one to one, by what it is told by. */
export type PegBalanceOf = { readonly key: number; readonly pegged: number; readonly rest: number };

/** 52-bit digests of everything computed and of the plan behind it, one per slot: equal states have equal digests, different
 *  ones differ except once in about 4×10¹⁵. They spare a need run from reading back ten columns of every stored pair. The location is part
 *  of each, so that the digests of one item can be taken together (`itemDigest`) without two places changing roles.
 *  What is bought one to one for lines asked of a slot (`pegs`, few), and what is said beside its policy, is mixed into the digests of those slots.
 *  Units: quantities in millionths; `nextDue` in milliseconds since 1970, 0 = never; slots as in NeedRunInput,
 *  `locationIds` repeating within them. */
export function stateFingerprints(
  input: NeedRunInput,
  out: NeedRunOutput,
  sourceIds: Uint32Array,
  locationIds: readonly number[],
  nextDue: Float64Array,
  pegs: ReadonlyMap<number, readonly PegBalanceOf[]> = new Map(),
): Float64Array {
  const quantities = [
    input.onHand,
    input.blocked,
    input.onTheWay,
    input.inTrays,
    input.owed,
    input.backordered,
    input.level,
    input.max,
    input.perDay,
    input.refillTo,
    input.fixed,
    input.orderMinimum,
    input.packMicro,
    input.multiplePacks,
    input.decidedShortage,
    input.decidedOpen,
    out.planned,
    out.position,
    out.shortage,
    out.quantity,
    out.cover,
    out.excess,
    nextDue,
  ];
  const width = locationIds.length;
  const digests = new Float64Array(input.count);
  for (let at = 0; at < input.count; at += 1) {
    let a = mix(0x9747b28c, sourceIds[at] as number);
    let b = mix(
      0x1b873593,
      (locationIds[at % width] as number) * 8 + (out.state[at] as number) * 2 + (out.below[at] as number),
    );
    const from = input.suppliedBy[at] as number;
    a = mix(a, from === 0 ? 0 : (locationIds[from - 1] as number));
    a = mix(
      a,
      (((input.rule[at] as number) * 2 + (input.atOrBelow[at] as number)) * 4 + (input.rounding[at] as number)) * 2 +
        (input.decidedInWindow[at] as number),
    );
    for (let c = 0; c < quantities.length; c += 1) {
      const value = (quantities[c] as Float64Array)[at] as number;
      a = mix(mix(a, value | 0), high(value));
      b = mix(b + a, value | 0);
    }
    a = mix(a, input.madeOf[at] as number);
    b = mix(b + a, input.madeOf[at] as number);
    const beside = input.beside.get(at);
    if (beside)
      for (const value of [beside.byHand, beside.aside, beside.waited]) {
        a = mix(mix(a, value | 0), high(value));
        b = mix(b + a, value | 0);
      }
    const own = pegs.get(at);
    if (own)
      for (const { key, pegged, rest } of own)
        for (const value of [key, pegged, rest]) {
          a = mix(mix(a, value | 0), high(value));
          b = mix(b + a, value | 0);
        }
    digests[at] = (a >>> 0) * LOW + (b >>> 12);
  }
  return digests;
}

/** The exclusive or of fingerprints, as SQL's BIT_XOR makes it of the stored ones; 0 for none. */
export function itemDigest(fingerprints: Float64Array): number {
  let [above, below] = [0, 0];
  for (let i = 0; i < fingerprints.length; i += 1) {
    const f = fingerprints[i] as number;
    const part = floor(f / LOW);
    above ^= part;
    below ^= f - part * LOW;
  }
  return (above >>> 0) * LOW + below;
}
