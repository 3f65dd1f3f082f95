import { type Actor, type AlertRule, may } from '@/core/people';
import { ok, type Result } from '@/core/result';
import { type AlertRow, readAlertRows, readMailOf, readRulesOf } from '@/data/repositories/alerts';
import { readSnapshot } from '@/data/transaction';
import type { Deps } from '../deps';
import type { Failure } from '../failure';

const MOST = 500;

/** The person's alerts that last, newest first. Errors: forbidden. */
export async function readAlerts(deps: Deps, actor: Actor): Promise<Result<readonly AlertRow[], Failure>> {
  const allowed = may(actor, 'stock.read');
  if (!allowed.ok) return allowed;
  return ok(await readSnapshot(deps.pool, (tx) => readAlertRows(tx, actor.userId, 0, MOST)));
}

export type AlertSettings = { readonly mail: string; readonly rules: readonly AlertRule[] };

/** What the person wants to hear of, and where. Errors: forbidden. */
export async function readAlertSettings(deps: Deps, actor: Actor): Promise<Result<AlertSettings, Failure>> {
  const allowed = may(actor, 'stock.read');
  if (!allowed.ok) return allowed;
  return readSnapshot(deps.pool, async (tx) =>
    ok({
      mail: await readMailOf(tx, actor.userId),
      rules: (await readRulesOf(tx, actor.userId)).map(({ matter, how, byMail }) => ({ matter, how, byMail })),
    }),
  );
}
