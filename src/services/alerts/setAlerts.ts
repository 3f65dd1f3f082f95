import { type Actor, isMailAddress, may } from '@/core/people';
import { err, ok, type Result } from '@/core/result';
import { endUnwanted, markSeen, replaceRules, setMailOf } from '@/data/repositories/alerts';
import { command, type Request } from '../command';
import type { Deps } from '../deps';
import { type Failure, invalidField } from '../failure';
import type { AlertSettings } from './readAlerts';

/** What a person wants to hear of; everybody sets their own. Errors: forbidden, invalid_field mail. */
export async function setAlerts(
  deps: Deps,
  actor: Actor,
  request: Request<AlertSettings>,
): Promise<Result<null, Failure>> {
  const allowed = may(actor, 'stock.read');
  if (!allowed.ok) return allowed;
  const { rules } = request.input;
  const mail = request.input.mail.trim();
  if (mail === '' ? rules.some((r) => r.byMail) : !isMailAddress(mail))
    return err(invalidField('mail', { kind: 'not_an_address', text: mail }));
  return command(deps, actor, 'set-alerts', request, async (tx, now) => {
    await setMailOf(tx, actor.userId, mail);
    await replaceRules(tx, actor.userId, rules);
    await endUnwanted(
      tx,
      actor.userId,
      rules.map((r) => r.matter),
      now,
    );
    return ok(null);
  });
}

/** Marks alerts of the person as seen; they stay while the matter lasts. Errors: forbidden. */
export async function seeAlerts(
  deps: Deps,
  actor: Actor,
  request: Request<{ readonly ids: readonly number[] }>,
): Promise<Result<null, Failure>> {
  const allowed = may(actor, 'stock.read');
  if (!allowed.ok) return allowed;
  return command(deps, actor, 'see-alerts', request, async (tx, now) => {
    await markSeen(tx, actor.userId, request.input.ids, now);
    return ok(null);
  });
}
