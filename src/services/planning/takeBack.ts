import { type Actor, may } from '@/core/people';
import { err, ok, type Result } from '@/core/result';
import { lockTrayLines } from '@/data/repositories/trays';
import { command, type Request } from '../command';
import type { Deps } from '../deps';
import type { Failure } from '../failure';
import { recordUndo } from '../undo/recordUndo';
import { withdraw } from './withdraw';

/** Takes a line out of its tray: the decision is withdrawn and the need is open again.
 *  Errors: forbidden, not_found, changed_meanwhile (already on an order or taken back). */
export async function takeBack(
  deps: Deps,
  actor: Actor,
  request: Request<{ readonly trayLineId: number }>,
): Promise<Result<null, Failure>> {
  const allowed = may(actor, 'needs.decide');
  if (!allowed.ok) return allowed;
  return command(deps, actor, 'take-back', request, async (tx, now) => {
    const [line] = await lockTrayLines(tx, [request.input.trayLineId]);
    if (!line) return err({ kind: 'not_found', what: 'tray' });
    if (line.state !== 'in_tray') return err({ kind: 'changed_meanwhile', what: 'tray', who: null, now: line.state });
    const place = may(actor, 'needs.decide', { locationIds: [line.locationId] });
    if (!place.ok) return place;
    const withdrawn = await withdraw(tx, actor, now, line);
    await recordUndo(tx, actor, request.key, 'take-back', now, {
      kind: 'taken_back',
      trayLineId: line.id,
      ...withdrawn,
    });
    return ok(null);
  });
}
