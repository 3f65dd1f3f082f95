/** A browser's element ends near 33 million pixels, another's near 18; below this every one scrolls. */
export const MAX_HEIGHT = 8_000_000;

/** A row that is higher than the others, because what stands in it wraps, and by how many pixels. */
export type Higher = { readonly index: number; readonly more: number };

/** A list of `count` rows, most of one height, seen through a window of `height` pixels. Higher rows in their order. */
export type Extent = {
  readonly count: number;
  readonly rowHeight: number;
  readonly height: number;
  readonly higher?: readonly Higher[];
};

const moreBefore = ({ higher = [] }: Extent, row: number): number => {
  let more = 0;
  for (const h of higher) {
    if (h.index >= row) break;
    more += h.more;
  }
  return more;
};

/** Where a row begins, in pixels from the first. */
export const topOf = (e: Extent, row: number): number => row * e.rowHeight + moreBefore(e, row);

export const heightOf = (e: Extent, row: number): number =>
  e.rowHeight + (e.higher?.find((h) => h.index === row)?.more ?? 0);

/** Pixels of all rows. */
export const totalHeight = (e: Extent): number => topOf(e, e.count);

/** The row at an offset; the count of rows beyond the last. */
function rowAtOffset(e: Extent, offset: number): number {
  let more = 0;
  for (const h of e.higher ?? []) {
    const top = h.index * e.rowHeight + more;
    if (offset < top) break;
    if (offset < top + e.rowHeight + h.more) return h.index;
    more += h.more;
  }
  return Math.floor((offset - more) / e.rowHeight);
}

/** The height of the element that is scrolled: that of all rows, as far as a browser can. */
export const scrollHeight = (e: Extent): number => Math.min(totalHeight(e), MAX_HEIGHT);

/** How far down in the rows, in pixels, a scroll position is. While all rows fit into an element it is the position itself;
 *  beyond that the scroll bar is scaled, from the first row at its top to the last at its end. */
export function offsetOf(e: Extent, scrollTop: number): number {
  const [most, whole] = [scrollHeight(e) - e.height, totalHeight(e) - e.height];
  if (most <= 0 || whole <= 0) return 0;
  return whole === most ? clamp(scrollTop, most) : clamp((scrollTop / most) * whole, whole);
}

/** The scroll position that shows this offset at the top of the window; the inverse of offsetOf. */
export function scrollTopOf(e: Extent, offset: number): number {
  const [most, whole] = [scrollHeight(e) - e.height, totalHeight(e) - e.height];
  if (most <= 0 || whole <= 0) return 0;
  return whole === most ? clamp(offset, most) : (clamp(offset, whole) / whole) * most;
}

const clamp = (value: number, most: number): number => Math.max(0, Math.min(value, most));

/** Rows on both sides of those in view that are there too, unless a list asks for fewer. */
const ROWS_BESIDE = 8;

/** Rows that show at an offset, with some more on both sides: first, and one past the last. */
export function rowsAt(e: Extent, offset: number, beside = ROWS_BESIDE): { first: number; end: number } {
  const first = Math.max(0, rowAtOffset(e, offset) - beside);
  const end = Math.min(e.count, rowAtOffset(e, Math.max(0, offset + e.height - 1)) + 1 + beside);
  return { first, end: Math.max(first, end) };
}

/** The offset that brings a row into the window with the least movement; null when it shows already. */
export function offsetToShow(e: Extent, offset: number, row: number): number | null {
  const top = topOf(e, row);
  const bottom = top + heightOf(e, row);
  if (top < offset) return top;
  if (bottom > offset + e.height) return Math.max(0, bottom - e.height);
  return null;
}

/** The rows that are higher, after some of them were measured: `needs` is what each needs. The same list when nothing
 *  changed. */
export function measured(
  higher: readonly Higher[],
  rowHeight: number,
  needs: ReadonlyMap<number, number>,
): readonly Higher[] {
  const all = new Map(higher.map((h) => [h.index, h.more]));
  let changed = false;
  for (const [index, need] of needs) {
    const more = Math.max(0, Math.ceil(need - rowHeight));
    if ((all.get(index) ?? 0) === more) continue;
    changed = true;
    if (more === 0) all.delete(index);
    else all.set(index, more);
  }
  if (!changed) return higher;
  return [...all].map(([index, more]) => ({ index, more })).sort((a, b) => a.index - b.index);
}
