import { roundings } from '@/core/netting';
import { contentMicro, type Pack, packContent } from '@/core/packs';
import { MICRO } from '@/core/quantity';
import { chooseSource, type SourceAtPlace } from '@/core/sourcing';
import { fraction } from '@/core/units';
import type { Asking } from '../../asking';
import { askSourcePlaces, type SourcePlaces, sourceAt } from '../sourcePlaces';
import { among, type Ground, micro } from './ground';

type SourceCells = [
  itemId: number,
  id: number,
  preference: number,
  packId: number | null,
  minimum: number,
  multiple: number,
  rounding: (typeof roundings)[number],
  supplierId: number,
  leadDays: number,
  leadKind: 'working' | 'calendar',
  supplierActive: number,
  share: number | null,
  placed: number,
];

/** How a source delivers. */
export type Delivers = {
  readonly supplierId: number;
  readonly stated: { readonly days: number; readonly kind: 'working' | 'calendar' };
};

export type SourcesRead = {
  /** Preferred source per slot; 0 = none. */
  readonly sourceIds: Uint32Array;
  readonly delivers: ReadonlyMap<number, Delivers>;
  /** Content of a pack, in millionths. */
  readonly packMicro: (packId: number) => number;
};

type PackCells = [id: number, name: string, num: number, den: number, of: number | null];

/** The source that each slot buys from, and its order rule in the arrays.
 *  Errors: throws when a usual pack is no whole number of millionths (refused when packs are entered). */
export function askSlotSources(ask: Asking, only: readonly number[] | null): (g: Ground) => Promise<SourcesRead> {
  const where = among(only);
  const packs = ask.arrays<PackCells>(
    `SELECT id, name, count_num, count_den, of_pack_id FROM pack ${where('item_id')}`,
  );
  const sources = ask.arrays<SourceCells>(
    `SELECT s.item_id, s.id, s.preference, s.pack_id, ${micro('s.minimum_quantity')}, s.multiple_packs, s.rounding,
            s.supplier_id, COALESCE(s.lead_time_days, p.lead_time_days), p.lead_time_kind, p.status = 'active',
            CAST(s.share_percent AS DOUBLE),
            ${only === null ? '1' : 'EXISTS (SELECT 1 FROM source_place x WHERE x.source_id = s.id)'}
       FROM source s JOIN supplier p ON p.id = s.supplier_id ${where('s.item_id')} ORDER BY s.item_id`,
  );
  return async (g) => {
    const rows = await sources();
    // Places seldom differ, and seldom share.
    const differ =
      only === null || rows.some(([, , , , , , , , , , , share, placed]) => share !== null || placed === 1);
    return sourcesOf(g, await packs(), rows, differ ? await askSourcePlaces(ask, only)() : NOWHERE);
  };
}
const NOWHERE: SourcePlaces = { placed: new Map(), bought: new Map() };

function sourcesOf(
  g: Ground,
  packRows: readonly PackCells[],
  sources: readonly SourceCells[],
  { placed, bought }: SourcePlaces,
): SourcesRead {
  const { arrays, width, locationIds, itemIndex } = g;
  const packs = new Map<number, Pack>();
  for (const [id, name, num, den, of] of packRows) {
    packs.set(id, { id, name, count: fraction(num, den), of });
  }
  const packMicro = (packId: number): number => {
    const content = packContent(packs, packId);
    const exact = content.ok ? contentMicro(content.value, packs.get(packId)?.name) : content;
    if (!exact.ok) throw new Error(`pack ${packId}: ${JSON.stringify(exact.error)}`);
    return exact.value;
  };
  const sourceIds = new Uint32Array(arrays.count);
  const delivers = new Map<number, Delivers>();
  arrays.packMicro.fill(MICRO);
  arrays.multiplePacks.fill(1);
  for (let i = 0; i < sources.length; ) {
    const item = (sources[i] as SourceCells)[0];
    const ranked: (SourceAtPlace & { cells: SourceCells })[] = [];
    for (; i < sources.length && (sources[i] as SourceCells)[0] === item; i += 1) {
      const cells = sources[i] as SourceCells;
      const [, id, preference, , , , , supplierId, days, kind, active, share] = cells;
      delivers.set(id, { supplierId, stated: { days, kind } });
      ranked.push({ id, preference, supplierActive: active === 1, share, bought: 0, here: false, cells });
    }
    const from = (itemIndex.get(item) as number) * width;
    const use = ({ cells }: { cells: SourceCells }, first: number, end: number) => {
      const [, id, , packId, minimum, multiple, rounding] = cells;
      sourceIds.fill(id, first, end);
      arrays.orderMinimum.fill(minimum, first, end);
      arrays.packMicro.fill(packId === null ? MICRO : packMicro(packId), first, end);
      arrays.multiplePacks.fill(multiple, first, end);
      arrays.rounding.fill(roundings.indexOf(rounding), first, end);
    };
    // Where no place differs and nothing is shared, one choice serves all places of the item.
    if (ranked.every((s) => s.share === null && !placed.has(s.id))) {
      const best = chooseSource(ranked);
      if (best) use(best.source, from, from + width);
      continue;
    }
    for (const [l, locationId] of locationIds.entries()) {
      const here = ranked.map((s) =>
        sourceAt(s, placed.get(s.id)?.get(locationId), bought.get(`${s.id}/${locationId}`) ?? 0),
      );
      const best = chooseSource(here);
      if (best) use(best.source, from + l, from + l + 1);
    }
  }
  return { sourceIds, delivers, packMicro };
}
