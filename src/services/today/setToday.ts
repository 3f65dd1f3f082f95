import { type Actor, may } from '@/core/people';
import { ok, type Result } from '@/core/result';
import { putHidden } from '@/data/repositories/today';
import { command, type Request } from '../command';
import type { Deps } from '../deps';
import type { Failure } from '../failure';
import { isTodayMatter } from './readToday';

/** Lines of Today that the person does not want to see; all others are shown. Errors: forbidden. */
export async function setToday(
  deps: Deps,
  actor: Actor,
  request: Request<{ readonly hidden: readonly string[] }>,
): Promise<Result<null, Failure>> {
  const allowed = may(actor, 'stock.read');
  if (!allowed.ok) return allowed;
  return command(deps, actor, 'set-today', request, async (tx) => {
    await putHidden(tx, actor.userId, [...new Set(request.input.hidden.filter(isTodayMatter))]);
    return ok(null);
  });
}
