import { type Actor, may } from '@/core/people';
import { effectivePolicy, supplyLoop } from '@/core/policy';
import { err, ok, type Result } from '@/core/result';
import { readItemsByIds } from '@/data/repositories/catalogue';
import { readCompany, readLocations } from '@/data/repositories/company';
import { readSupplyChain } from '@/data/repositories/network';
import { lockSettings } from '@/data/repositories/policies';
import { readItemSettings, readWiderLevels, scopeKey } from '@/data/repositories/policySettings';
import type { Tx } from '@/data/sql';
import { command, type Request } from '../command';
import { type Deps, todayOf } from '../deps';
import type { Failure } from '../failure';
import { recordUndo } from '../undo/recordUndo';
import { cellsOf, type EditedSetting, editedSettings, type PolicyEdit, staleEdit } from './policyEdits';
import { writePolicies } from './writePolicies';

export type SavePolicies = { readonly edits: readonly PolicyEdit[] };

/** Saves cells of the policy sheet, all of them or none. Errors: forbidden (by place, too), not_found, changed_meanwhile,
 *  wrong_cells (what is wrong with each), supply_loop. */
export async function savePolicies(
  deps: Deps,
  actor: Actor,
  request: Request<SavePolicies>,
): Promise<Result<{ readonly saved: number }, Failure>> {
  const { edits } = request.input;
  const places = [...new Set(edits.flatMap((e) => (e.locationId === null ? [] : [e.locationId])))];
  const allowed = may(actor, 'policies.edit', { locationIds: places });
  if (!allowed.ok) return allowed;
  if (actor.locations !== null && edits.some((e) => e.locationId === null))
    return err({ kind: 'forbidden', right: 'policies.edit', because: 'location' });
  return command(deps, actor, 'save-policies', request, async (tx, now) => {
    const items = await readItemsByIds(tx, [...new Set(edits.map((e) => e.itemId))]);
    if (edits.some((e) => !items.has(e.itemId))) return err({ kind: 'not_found', what: 'item' });
    const locations = await readLocations(tx);
    if (places.some((id) => !locations.some((l) => l.id === id))) return err({ kind: 'not_found', what: 'location' });
    const unkept = edits.flatMap((e, row) => {
      const item = items.get(e.itemId);
      if (item?.stockKept !== 0) return [];
      return [
        { row, column: Object.keys(e.now)[0] ?? 'min', fault: { kind: 'stock_not_kept' as const, item: item.name } },
      ];
    });
    if (unkept.length > 0) return err({ kind: 'wrong_cells', faults: unkept });
    const kept = await lockSettings(tx, edits);
    const stale = staleEdit(edits, kept);
    if (stale) return err({ kind: 'changed_meanwhile', what: 'policy', who: null, now: stale.now });
    const today = todayOf(deps, await readCompany(tx));
    const wider = await widerKinds(tx, today);
    const { rows, faults } = editedSettings(edits, kept, (id) => wider(items.get(id)?.categoryId ?? 0));
    if (faults.length > 0) return err({ kind: 'wrong_cells', faults });
    await writePolicies(tx, actor, now, rows);
    const loop = await loopIn(tx, rows, today);
    if (loop) return err(loop);
    await recordUndo(tx, actor, request.key, 'save-policies', now, {
      kind: 'policies',
      rows: rows.map((r) => ({
        itemId: r.itemId,
        locationId: r.locationId,
        before: cellsOf(r.before),
        after: cellsOf(r.after),
      })),
    });
    return ok({ saved: rows.length });
  });
}

/** The kind that category and company say. */
export async function widerKinds(tx: Tx, today: string) {
  const levels = await readWiderLevels(tx);
  return (categoryId: number) => {
    const { kind } = effectivePolicy(levels(categoryId), today);
    return kind === 'none' ? null : kind;
  };
}

/** A circle of places that would send an item to one another, after settings were written. */
async function loopIn(tx: Tx, rows: readonly EditedSetting[], today: string): Promise<Failure | null> {
  const touched = rows.filter(
    (r) => r.before?.supply !== r.after?.supply || r.before?.supplyPlace !== r.after?.supplyPlace,
  );
  if (touched.length === 0) return null;
  const ids = [...new Set(touched.map((r) => r.itemId))];
  const [wider, settings, chain] = [
    await readWiderLevels(tx),
    await readItemSettings(tx, ids),
    await readSupplyChain(tx),
  ];
  const items = await readItemsByIds(tx, ids);
  for (const itemId of ids) {
    const item = items.get(itemId);
    const every = settings.get(scopeKey(itemId, null));
    const by = new Map(
      chain.map(({ locationId, suppliedBy }) => {
        const own = settings.get(scopeKey(itemId, locationId));
        const policy = effectivePolicy(
          [
            ...(own ? [{ origin: 'location' as const, setting: own }] : []),
            ...(every ? [{ origin: 'item' as const, setting: every }] : []),
            ...wider(item?.categoryId ?? 0),
          ],
          today,
        );
        return [locationId, policy.supply === 'place' ? (policy.supplyPlace ?? suppliedBy) : null];
      }),
    );
    const loop = supplyLoop(by);
    if (loop) {
      const name = (id: number) => chain.find((c) => c.locationId === id)?.name ?? '';
      return { kind: 'supply_loop', item: item?.name ?? '', through: loop.map(name) };
    }
  }
  return null;
}
