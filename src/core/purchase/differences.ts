/** A delivery of a line as the supplier was told of it: packs in millionths. */
export type SaidPart = {
  readonly partId: number;
  readonly packs: number;
  readonly date: string | null;
  readonly placeId: number | null;
};

/** A line as the supplier was told of it. */
export type SaidLine = {
  readonly lineId: number;
  readonly lineNo: number;
  readonly description: string;
  readonly packName: string;
  /** Price as text, with what it is per; null = none was said. */
  readonly price: string | null;
  readonly freeOfCharge: boolean;
  /** Taken off the line, in percent. */
  readonly discount: string;
  readonly parts: readonly SaidPart[];
};

export type LineDifference = {
  readonly lineNo: number;
  readonly description: string;
  readonly packName: string;
} & (
  | { readonly kind: 'added'; readonly now: number }
  | { readonly kind: 'taken_off'; readonly was: number }
  | { readonly kind: 'quantity'; readonly was: number; readonly now: number }
  | { readonly kind: 'price'; readonly was: string | null; readonly now: string | null }
  | { readonly kind: 'discount'; readonly was: string; readonly now: string }
  | { readonly kind: 'date'; readonly was: readonly string[]; readonly now: readonly string[] }
  | { readonly kind: 'place' }
);

const packsOf = (l: SaidLine) => l.parts.reduce((sum, p) => sum + p.packs, 0);
const counts = (l: SaidLine) => packsOf(l) > 0;
const datesOf = (l: SaidLine) => [...new Set(l.parts.flatMap((p) => (p.packs > 0 && p.date ? [p.date] : [])))].sort();
/** How much goes where; parts of one place together. */
const placesOf = (l: SaidLine) => {
  const byPlace = new Map<number | null, number>();
  for (const p of l.parts) if (p.packs > 0) byPlace.set(p.placeId, (byPlace.get(p.placeId) ?? 0) + p.packs);
  return [...byPlace].sort(([a], [b]) => (a ?? 0) - (b ?? 0));
};
const priceOf = (l: SaidLine) => (l.freeOfCharge ? 'free of charge' : l.price);
const same = (a: unknown, b: unknown) => JSON.stringify(a) === JSON.stringify(b);

/** What an order says otherwise than its supplier was told: line by line in their order, lines taken off last.
 *  A line that is new says only that; a place is said where the split over places differs at the same quantity.
 *  Source: common practice (a change order lists what differs). */
export function differences(said: readonly SaidLine[], now: readonly SaidLine[]): LineDifference[] {
  const before = new Map(said.filter(counts).map((l) => [l.lineId, l]));
  const found: LineDifference[] = [];
  for (const l of now.filter(counts)) {
    const { lineNo, description, packName } = l;
    const head = { lineNo, description, packName };
    const was = before.get(l.lineId);
    before.delete(l.lineId);
    if (!was) {
      found.push({ ...head, kind: 'added', now: packsOf(l) });
      continue;
    }
    if (packsOf(was) !== packsOf(l)) found.push({ ...head, kind: 'quantity', was: packsOf(was), now: packsOf(l) });
    else if (!same(placesOf(was), placesOf(l))) found.push({ ...head, kind: 'place' });
    if (priceOf(was) !== priceOf(l)) found.push({ ...head, kind: 'price', was: priceOf(was), now: priceOf(l) });
    if (was.discount !== l.discount) found.push({ ...head, kind: 'discount', was: was.discount, now: l.discount });
    if (!same(datesOf(was), datesOf(l))) found.push({ ...head, kind: 'date', was: datesOf(was), now: datesOf(l) });
  }
  for (const { lineNo, description, packName, ...l } of before.values())
    found.push({
      lineNo,
      description,
      packName,
      kind: 'taken_off',
      was: packsOf({ lineNo, description, packName, ...l }),
    });
  return found;
}
