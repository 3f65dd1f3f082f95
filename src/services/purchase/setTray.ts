import { type Actor, may } from '@/core/people';
import { err, ok, type Result } from '@/core/result';
import { recordChanges } from '@/data/repositories/bookkeeping';
import { readSuppliers } from '@/data/repositories/catalogue';
import { clearTrayChoice, putTrayChoice, readOpenDrafts } from '@/data/repositories/trayChoices';
import { command, type Request } from '../command';
import type { Deps } from '../deps';
import type { Failure } from '../failure';

/** Held back, and what it shall become: by rule, a new order, or an addition to a draft. */
export type SetTray = {
  readonly supplierId: number;
  readonly held: boolean;
  readonly becomes: 'by_rule' | 'new' | 'joins';
  readonly orderId: number | null;
};

/** Says what becomes of a tray when orders are made. Errors: forbidden, not_found (supplier, or the draft is none any more). */
export async function setTray(deps: Deps, actor: Actor, request: Request<SetTray>): Promise<Result<null, Failure>> {
  const allowed = may(actor, 'orders.edit');
  if (!allowed.ok) return allowed;
  const { supplierId, held, becomes } = request.input;
  const orderId = becomes === 'joins' ? request.input.orderId : null;
  return command(deps, actor, 'set-tray', request, async (tx, now) => {
    const supplier = (await readSuppliers(tx)).find((s) => s.id === supplierId);
    if (!supplier) return err({ kind: 'not_found', what: 'supplier' });
    const draft = (await readOpenDrafts(tx)).find((d) => d.id === orderId && d.supplierId === supplierId);
    if (becomes === 'joins' && !draft) return err({ kind: 'not_found', what: 'order' });
    if (!held && becomes === 'by_rule') await clearTrayChoice(tx, supplierId);
    else
      await putTrayChoice(tx, {
        ...{ supplierId, held: held ? 1 : 0, becomes, orderId, userId: actor.userId, at: now },
      });
    await recordChanges(tx, actor.userId, now, [
      {
        entity: 'supplier',
        entityId: supplierId,
        action: 'tray',
        after: { held, becomes, ...(orderId ? { orderId } : {}) },
      },
    ]);
    return ok(null);
  });
}
