import { parseDay } from '@/core/calendar';
import { type Actor, may } from '@/core/people';
import { ok, type Result } from '@/core/result';
import { readCompany } from '@/data/repositories/company';
import { command, type Request } from '../command';
import { type Deps, todayOf } from '../deps';
import type { Failure } from '../failure';
import { recordUndo } from '../undo/recordUndo';
import { loadOrder } from './loadOrder';
import { changeCell, type OrderEdit } from './orderCell';

/** The value as it is kept, and the wanted day as typed where nothing is taken in on it. */
export type EditedOrder = { readonly stored: string | null; readonly insteadOf: string | null };

/** Changes one cell of a draft order, or puts one line back into its tray (that can't be undone as such; the line can be
 *  ordered again). Errors: forbidden, not_found, not_in_this_state, invalid_field, changed_meanwhile (with who and the value now). */
export async function editOrder(
  deps: Deps,
  actor: Actor,
  request: Request<OrderEdit>,
): Promise<Result<EditedOrder, Failure>> {
  const allowed = may(actor, 'orders.edit');
  if (!allowed.ok) return allowed;
  const edit = request.input;
  return command(deps, actor, 'edit-order', request, async (tx, now) => {
    const loaded = await loadOrder(tx, edit.orderId, 'edit');
    if (!loaded.ok) return loaded;
    const today = todayOf(deps, await readCompany(tx));
    const changed = await changeCell(tx, actor, now, today, loaded.value, edit);
    if (!changed.ok) return changed;
    if (edit.field !== 'remove') {
      // A place is recorded by its name and kept by its number.
      const stored = edit.field === 'place' ? edit.now : (changed.value ?? edit.now);
      const back = {
        ...edit,
        was: stored,
        now: edit.was,
        ...(edit.field === 'wantedDate' ? { exact: true as const } : {}),
      };
      await recordUndo(tx, actor, request.key, 'edit-order', now, { kind: 'cell', back });
    }
    const typed = edit.field === 'wantedDate' ? parseDay(edit.now, today) : null;
    const insteadOf = typed?.ok && typed.value !== changed.value ? typed.value : null;
    return ok({ stored: changed.value, insteadOf });
  });
}
