import type { Actor } from '@/core/people';
import { recordChanges } from '@/data/repositories/bookkeeping';
import { readLocations } from '@/data/repositories/company';
import { markDirty } from '@/data/repositories/planning';
import { deletePolicy, insertMinMax, type PolicyRow, updateMinMax } from '@/data/repositories/policies';
import type { Tx } from '@/data/sql';

/** Writes minimum and maximum of an item at a place (null = everywhere) over what is there, locked; `after` null takes the
 *  setting away. Recorded, and the pairs it governs are marked. */
export async function writeMinMax(
  tx: Tx,
  actor: Actor,
  now: string,
  change: {
    readonly itemId: number;
    readonly locationId: number | null;
    readonly had: PolicyRow | null;
    readonly after: { readonly min: string | null; readonly max: string | null } | null;
  },
): Promise<void> {
  const { itemId, locationId, had, after } = change;
  if (after === null) {
    if (had) await deletePolicy(tx, had.id);
  } else if (had) await updateMinMax(tx, had.id, after.min, after.max);
  else await insertMinMax(tx, { itemId, locationId, min: after.min, max: after.max });
  await recordChanges(tx, actor.userId, now, [
    {
      entity: 'policy',
      entityId: itemId,
      action: locationId === null ? 'min/max everywhere' : `min/max at ${locationId}`,
      before: had && { min: had.min, max: had.max },
      after: after ?? { min: null, max: null },
    },
  ]);
  const places = locationId === null ? (await readLocations(tx)).map((l) => l.id) : [locationId];
  markDirty(
    tx,
    places.map((id) => ({ itemId, locationId: id })),
  );
}
