import { fromDecimal } from '@/core/quantity';
import type { SourceAtPlace } from '@/core/sourcing';
import { Asking } from '../asking';
import type { Tx } from '../sql';
import { LIVE } from './orderStates';

export type PlaceTerms = { readonly preference: number | null; readonly share: number | null };

type PlaceRow = { sourceId: number; locationId: number; preference: number | null; share: string | null };
type BoughtRow = { sourceId: number; locationId: number; q: string };

export type SourcePlaces = {
  readonly placed: ReadonlyMap<number, ReadonlyMap<number, PlaceTerms>>;
  readonly bought: ReadonlyMap<string, number>;
};

/** Rank and share where a place differs, by source and place; and what each place has bought from sources that have a share
 *  (millionths, by 'source/place'): orders that stand and lines in trays. Only of these items, or of all. */
export const readSourcePlaces = (tx: Tx, only: readonly number[] | null): Promise<SourcePlaces> =>
  askSourcePlaces(new Asking(tx, 'together'), only)();

/** The same, asked for beside other things. */
export function askSourcePlaces(ask: Asking, only: readonly number[] | null): () => Promise<SourcePlaces> {
  if (only?.length === 0) return async () => ({ placed: new Map(), bought: new Map() });
  const of = only === null ? '' : 'AND s.item_id IN (?)';
  const values = only === null ? [] : [only];
  const rows = ask.rows<PlaceRow>(
    `SELECT x.source_id AS sourceId, x.location_id AS locationId, x.preference, x.share_percent AS share
       FROM ${only === null ? 'source_place x JOIN source s ON s.id = x.source_id' : 'source s FORCE INDEX (source_pair) STRAIGHT_JOIN source_place x ON x.source_id = s.id'} WHERE TRUE ${of}`,
    values,
  );
  const shares = ask.arrays<[number]>(
    `SELECT s.id FROM source s WHERE s.share_percent IS NOT NULL ${of} LIMIT 1`,
    values,
  );
  return async () => {
    const placed = new Map<number, Map<number, PlaceTerms>>();
    for (const { sourceId, locationId, preference, share } of await rows()) {
      const own = placed.get(sourceId) ?? new Map<number, PlaceTerms>();
      own.set(locationId, { preference, share: share === null ? null : Number(share) });
      placed.set(sourceId, own);
    }
    return { placed, bought: anyShared(await shares(), placed) ? await boughtOf(ask, of, values) : new Map() };
  };
}

const anyShared = (shares: readonly unknown[], placed: ReadonlyMap<number, ReadonlyMap<number, PlaceTerms>>): boolean =>
  shares.length > 0 || [...placed.values()].some((terms) => [...terms.values()].some((t) => t.share !== null));

/** What was bought of sources that have a share; asked only where there are any. */
async function boughtOf(ask: Asking, of: string, values: readonly (readonly number[])[]): Promise<Map<string, number>> {
  const shared = `(s.share_percent IS NOT NULL OR EXISTS (SELECT 1 FROM source_place x WHERE x.source_id = s.id AND x.share_percent IS NOT NULL))`;
  const sums = ask.rows<BoughtRow>(
    `SELECT y.sourceId, y.locationId, SUM(y.q) AS q FROM (
       SELECT s.id AS sourceId, d.location_id AS locationId, d.base_quantity - d.cancelled_quantity AS q
         FROM source s JOIN order_line l ON l.source_id = s.id JOIN purchase_order o ON o.id = l.order_id
         JOIN delivery_part d ON d.order_line_id = l.id
        WHERE ${shared} AND o.state IN ${LIVE} AND d.location_id IS NOT NULL ${of}
       UNION ALL
       SELECT s.id, t.location_id, t.base_quantity FROM source s JOIN tray_line t ON t.source_id = s.id
        WHERE ${shared} AND t.state = 'in_tray' ${of}) y GROUP BY y.sourceId, y.locationId`,
    [...values, ...values],
  );
  return new Map((await sums()).map((r) => [`${r.sourceId}/${r.locationId}`, fromDecimal(r.q)]));
}

/** A source as it stands for a place. */
export const sourceAt = <T extends SourceAtPlace>(source: T, terms: PlaceTerms | undefined, bought: number): T => ({
  ...source,
  preference: terms?.preference ?? source.preference,
  share: terms?.share ?? source.share,
  bought,
  here: terms !== undefined && (terms.preference !== null || terms.share !== null),
});
