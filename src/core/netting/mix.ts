/** One step of a 32-bit mix (the finaliser of MurmurHash3, Appleby, public domain; constants from memory). */
export function mix(hash: number, word: number): number {
  let h = Math.imul(hash ^ word, 0x85ebca6b);
  h ^= h >>> 13;
  h = Math.imul(h, 0xc2b2ae35);
  return h ^ (h >>> 16);
}

/** The upper half of a safe integer, beside `value | 0`. */
export const high = (value: number) => Math.floor(value / 4_294_967_296) | 0;
