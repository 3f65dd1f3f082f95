import { parseDate } from '@/core/calendar';
import { type Actor, may } from '@/core/people';
import { err, ok, type Result } from '@/core/result';
import { recordChanges } from '@/data/repositories/bookkeeping';
import { readCompany } from '@/data/repositories/company';
import { findPlanNamed, insertCountPlan } from '@/data/repositories/counts';
import { command, type Request } from '../command';
import { type Deps, todayOf } from '../deps';
import { type Failure, invalidField } from '../failure';
import { itemsToCount, type WhatToCount } from './countScope';

export type PlanCount = WhatToCount & {
  readonly name: string;
  readonly blind: boolean;
  readonly everyDays: number;
  /** As typed; '' = today. */
  readonly firstOn: string;
};

/** What is counted again and again from now on, every so many days. What belongs to it is looked up when it is begun; only
 *  marked items are kept with it.
 *  Errors: forbidden, not_found, nothing_to_count, too_much_to_count, name_taken,
 *  invalid_field name|firstOn. */
export async function planCount(
  deps: Deps,
  actor: Actor,
  request: Request<PlanCount>,
): Promise<Result<{ planId: number }, Failure>> {
  const { locationId, what, category, shelf, itemIds, everyDays, blind } = request.input;
  const allowed = may(actor, 'stock.count', { locationIds: [locationId] });
  if (!allowed.ok) return allowed;
  const name = request.input.name.trim();
  if (name === '') return err(invalidField('name', { kind: 'name_missing' }));
  return command(deps, actor, 'plan-count', request, async (tx, now) => {
    const today = todayOf(deps, await readCompany(tx));
    const typed = request.input.firstOn.trim();
    const first = typed === '' ? ok(today) : parseDate(typed, today);
    if (!first.ok) return err(invalidField('firstOn', { kind: 'not_a_date', text: typed }));
    if (await findPlanNamed(tx, locationId, name)) return err({ kind: 'name_taken', name });
    const found = await itemsToCount(tx, actor, request.input);
    if (!found.ok) return found;
    const planId = await insertCountPlan(
      tx,
      { name, locationId, what, category, shelf: shelf.trim(), everyDays, blind, nextOn: first.value },
      what === 'marked' ? itemIds : [],
    );
    await recordChanges(tx, actor.userId, now, [
      { entity: 'count_plan', entityId: planId, action: 'made', after: { name, everyDays, nextOn: first.value } },
    ]);
    return ok({ planId });
  });
}
