/** Keys of a scanner follow each other faster than any hand. */
export const FASTEST_HAND_MS = 35;
export const SHORTEST_CODE = 8;

export type Scanned = { readonly code: string };

/** Tells a scanner from a hand: eight or more characters, each less than 35 ms after the one before, then Enter. Given
 *  every key with its time, it says when a scan has just ended; `begins` says when one may be starting, so that the caller
 *  can remember what stood in the field and put it back. */
export class ScanWatch {
  private code = '';
  private last = Number.NEGATIVE_INFINITY;

  /** Whether a key at this time is the first of its run. */
  begins = (atMs: number): boolean => atMs - this.last >= FASTEST_HAND_MS;

  key(key: string, atMs: number): Scanned | null {
    const quick = atMs - this.last < FASTEST_HAND_MS;
    this.last = atMs;
    if (key === 'Enter') {
      const code = quick ? this.code : '';
      this.code = '';
      return code.length >= SHORTEST_CODE ? { code } : null;
    }
    if (key.length !== 1) {
      // Shift and the like come between the characters of a scan.
      if (key !== 'Shift') this.code = '';
      return null;
    }
    this.code = quick ? this.code + key : key;
    return null;
  }
}
