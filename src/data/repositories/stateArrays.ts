import type { Tx } from '../sql';
import type { NeedInputs } from './needInputs';

/** Stored states in the slots of a need run's inputs; `known` is 0 where nothing is stored yet. */
export async function readStateArrays(tx: Tx, inputs: Pick<NeedInputs, 'itemIds' | 'locationIds'>) {
  const width = inputs.locationIds.length;
  const count = inputs.itemIds.length * width;
  const items = new Map(inputs.itemIds.map((id, i) => [id, i * width]));
  const locations = new Map(inputs.locationIds.map((id, i) => [id, i]));
  const f = () => new Float64Array(count);
  const stored = {
    known: new Uint8Array(count),
    onHand: f(),
    blocked: f(),
    onTheWay: f(),
    inTrays: f(),
    owed: f(),
    position: f(),
    shortage: f(),
    suggested: f(),
    state: new Uint8Array(count),
    sourceIds: new Uint32Array(count),
  };
  const micro = (column: string) => `CAST(${column} * 1000000 AS SIGNED)`;
  const rows = (await tx.arrays(
    `SELECT item_id, location_id, ${micro('on_hand')}, ${micro('blocked')}, ${micro('on_the_way')}, ${micro('in_trays')},
            ${micro('owed')}, ${micro('position_quantity')}, ${micro('shortage')}, ${micro('suggested')},
            COALESCE(source_id, 0), need_state + 0 FROM item_location_state`,
  )) as number[][];
  for (const [
    item,
    location,
    onHand,
    blocked,
    onTheWay,
    inTrays,
    owed,
    position,
    shortage,
    suggested,
    source,
    state,
  ] of rows) {
    const at = (items.get(item as number) as number) + (locations.get(location as number) as number);
    stored.known[at] = 1;
    stored.onHand[at] = onHand as number;
    stored.blocked[at] = blocked as number;
    stored.onTheWay[at] = onTheWay as number;
    stored.inTrays[at] = inTrays as number;
    stored.owed[at] = owed as number;
    stored.position[at] = position as number;
    stored.shortage[at] = shortage as number;
    stored.suggested[at] = suggested as number;
    stored.sourceIds[at] = source as number;
    // ENUM + 0 counts from 1, in the order of needStates.
    stored.state[at] = (state as number) - 1;
  }
  return stored;
}
