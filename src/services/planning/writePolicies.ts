import type { Actor } from '@/core/people';
import type { PolicyField } from '@/core/policy';
import { recordChanges } from '@/data/repositories/bookkeeping';
import { readLocations } from '@/data/repositories/company';
import { markDirty } from '@/data/repositories/marks';
import { deleteSetting, upsertSettings } from '@/data/repositories/policies';
import type { Tx } from '@/data/sql';
import { cellsOf, type EditedSetting, type SettingCells } from './policyEdits';

/** Writes settings over what is there, locked; recorded, and all pairs of their items are marked: where something is sent
 *  from changes with where it is sent to. */
export async function writePolicies(tx: Tx, actor: Actor, now: string, rows: readonly EditedSetting[]): Promise<void> {
  const places = await readLocations(tx);
  await upsertSettings(
    tx,
    rows.flatMap((r) => (r.after ? [{ itemId: r.itemId, locationId: r.locationId, setting: r.after }] : [])),
  );
  for (const r of rows) if (!r.after) await deleteSetting(tx, r);
  await recordChanges(
    tx,
    actor.userId,
    now,
    rows.flatMap((r) => {
      const [before, after] = [cellsOf(r.before), cellsOf(r.after)];
      const fields = (Object.keys({ ...before, ...after }) as PolicyField[]).filter((f) => before[f] !== after[f]);
      if (fields.length === 0) return [];
      const pick = (cells: SettingCells) => Object.fromEntries(fields.map((f) => [f, cells[f] ?? null]));
      const place = places.find((l) => l.id === r.locationId);
      return [
        {
          entity: 'policy' as const,
          entityId: r.itemId,
          action: r.locationId === null ? 'policy everywhere' : `policy at ${place?.code ?? r.locationId}`,
          before: pick(before),
          after: pick(after),
        },
      ];
    }),
  );
  const items = [...new Set(rows.map((r) => r.itemId))];
  markDirty(
    tx,
    items.flatMap((itemId) => places.map((l) => ({ itemId, locationId: l.id }))),
  );
}
