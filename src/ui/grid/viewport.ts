/** A browser's element ends near 33 million pixels, another's near 18; below this every one scrolls. */
export const MAX_HEIGHT = 8_000_000;

/** A list of `count` rows of one height, seen through a window of `height` pixels. */
export type Extent = { readonly count: number; readonly rowHeight: number; readonly height: number };

const total = ({ count, rowHeight }: Extent): number => count * rowHeight;

/** The height of the element that is scrolled: that of all rows, as far as a browser can. */
export const scrollHeight = (e: Extent): number => Math.min(total(e), MAX_HEIGHT);

/** How far down in the rows, in pixels, a scroll position is. While all rows fit into an element it is the position itself;
 *  beyond that the scroll bar is scaled, from the first row at its top to the last at its end. */
export function offsetOf(e: Extent, scrollTop: number): number {
  const [most, whole] = [scrollHeight(e) - e.height, total(e) - e.height];
  if (most <= 0 || whole <= 0) return 0;
  return whole === most ? clamp(scrollTop, most) : clamp((scrollTop / most) * whole, whole);
}

/** The scroll position that shows this offset at the top of the window; the inverse of offsetOf. */
export function scrollTopOf(e: Extent, offset: number): number {
  const [most, whole] = [scrollHeight(e) - e.height, total(e) - e.height];
  if (most <= 0 || whole <= 0) return 0;
  return whole === most ? clamp(offset, most) : (clamp(offset, whole) / whole) * most;
}

const clamp = (value: number, most: number): number => Math.max(0, Math.min(value, most));

/** Rows that show at an offset, with some more on both sides: first, and one past the last. */
export function rowsAt(e: Extent, offset: number, overscan = 8): { first: number; end: number } {
  const first = Math.max(0, Math.floor(offset / e.rowHeight) - overscan);
  const end = Math.min(e.count, Math.ceil((offset + e.height) / e.rowHeight) + overscan);
  return { first, end: Math.max(first, end) };
}

/** The offset that brings a row into the window with the least movement; null when it shows already. */
export function offsetToShow(e: Extent, offset: number, row: number): number | null {
  const top = row * e.rowHeight;
  if (top < offset) return top;
  if (top + e.rowHeight > offset + e.height) return Math.max(0, top + e.rowHeight - e.height);
  return null;
}
