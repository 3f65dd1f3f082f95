import type { NeedRunInput, NeedRunOutput } from './needRun';

/** One step of a 32-bit mix (the finaliser of MurmurHash3, Appleby, public domain; constants from memory). */
function mix(hash: number, word: number): number {
  let h = Math.imul(hash ^ word, 0x85ebca6b);
  h ^= h >>> 13;
  h = Math.imul(h, 0xc2b2ae35);
  return h ^ (h >>> 16);
}

/** A 52-bit digest of everything computed for one pair: equal states have equal digests, different ones differ except
 *  once in about 4×10¹⁵. It spares a need run from reading back ten columns of every stored pair.
 *  Units: quantities in millionths; slots as in NeedRunInput. */
export function stateFingerprint(input: NeedRunInput, out: NeedRunOutput, sourceId: number, at: number): number {
  let [a, b] = [0x9747b28c, 0x1b873593];
  const add = (value: number) => {
    const low = value | 0;
    const high = Math.floor(value / 4_294_967_296) | 0;
    a = mix(mix(a, low), high);
    b = mix(mix(b, high ^ 0x5bd1e995), low);
  };
  add(input.onHand[at] as number);
  add(input.blocked[at] as number);
  add(input.onTheWay[at] as number);
  add(input.inTrays[at] as number);
  add(input.owed[at] as number);
  add(out.position[at] as number);
  add(out.shortage[at] as number);
  add(out.quantity[at] as number);
  add(sourceId);
  add(out.state[at] as number);
  return (a >>> 0) * 1_048_576 + (b >>> 12);
}
