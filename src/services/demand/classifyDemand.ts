import { abcClasses, xyzClass } from '@/core/classes';
import { ok } from '@/core/result';
import { readClassLimits } from '@/data/repositories/company';
import { readClassFigures, updateClasses } from '@/data/repositories/demand';
import { readSnapshot, write } from '@/data/transaction';
import type { Deps } from '../deps';

const ROWS_A_STEP = 5000;

/** Classes of everything that is sold: ABC by what a year of it costs, place by place, XYZ by how unevenly it sells from week
 *  to week, with the limits of the company. Returns how many changed. */
export async function classifyDemand(deps: Deps): Promise<number> {
  const changed = await readSnapshot(deps.pool, async (tx) => {
    const limits = await readClassLimits(tx);
    const all = await readClassFigures(tx);
    const changes: { itemId: number; locationId: number; abc: string; xyz: string }[] = [];
    for (let from = 0; from < all.length; ) {
      let end = from;
      while (end < all.length && all[end]?.[1] === all[from]?.[1]) end += 1;
      const place = all.slice(from, end);
      const abc = abcClasses(
        place.map((r) => r[2]),
        limits.abcA,
        limits.abcB,
      );
      for (const [i, [itemId, locationId, , variation, hadAbc, hadXyz]] of place.entries()) {
        const xyz = xyzClass(variation, limits.xyzX, limits.xyzY);
        const now = abc[i] as string;
        if (now !== hadAbc || xyz !== hadXyz) changes.push({ itemId, locationId, abc: now, xyz });
      }
      from = end;
    }
    return changes;
  });
  for (let from = 0; from < changed.length; from += ROWS_A_STEP)
    await write<void, never>(deps.pool, async (tx) => {
      await updateClasses(tx, changed.slice(from, from + ROWS_A_STEP));
      return ok(undefined);
    });
  return changed.length;
}
