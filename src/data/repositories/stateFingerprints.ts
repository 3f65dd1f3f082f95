import type { Tx } from '../sql';
import type { NeedInputs } from './needInputs';

/** Stored fingerprints in the slots of a need run's inputs; −1 where nothing is stored yet. */
export async function readStateFingerprints(
  tx: Tx,
  inputs: Pick<NeedInputs, 'itemIds' | 'locationIds'>,
): Promise<Float64Array> {
  const width = inputs.locationIds.length;
  const stored = new Float64Array(inputs.itemIds.length * width).fill(-1);
  const items = new Map(inputs.itemIds.map((id, i) => [id, i * width]));
  const locations = new Map(inputs.locationIds.map((id, i) => [id, i]));
  const rows = (await tx.arrays('SELECT item_id, location_id, fingerprint FROM item_location_state')) as number[][];
  for (const [item, location, fingerprint] of rows) {
    stored[(items.get(item as number) as number) + (locations.get(location as number) as number)] =
      fingerprint as number;
  }
  return stored;
}
