import { type Actor, may } from '@/core/people';
import { err, ok, type Result } from '@/core/result';
import { nextCount } from '@/core/stock';
import { drawNumber, recordChanges } from '@/data/repositories/bookkeeping';
import { readCompany } from '@/data/repositories/company';
import { insertCount, lockCountPlan, readPlanItems, setNextCount } from '@/data/repositories/counts';
import type { Tx } from '@/data/sql';
import { command, type Request } from '../command';
import { type Deps, todayOf } from '../deps';
import { type Failure, invalidField } from '../failure';
import { numberText, periodOf } from '../purchase/orderNumber';
import { itemsToCount, type WhatToCount } from './countScope';

type Once = WhatToCount & { readonly name: string; readonly blind: boolean };
/** A count of a rhythm, or one for this once. */
export type BeginCount = { readonly planId: number } | Once;

/** A sheet to count by: its items in the order of the shelves. Nothing moves by it. A rhythm's next day is set.
 *  Errors: forbidden, not_found, nothing_to_count, too_much_to_count, invalid_field name. */
export async function beginCount(
  deps: Deps,
  actor: Actor,
  request: Request<BeginCount>,
): Promise<Result<{ countId: number; count: string }, Failure>> {
  const allowed = may(actor, 'stock.count');
  if (!allowed.ok) return allowed;
  return command(deps, actor, 'begin-count', request, async (tx, now) => {
    const today = todayOf(deps, await readCompany(tx));
    const asked = await askedFor(tx, request.input, today);
    if (!asked) return err({ kind: 'not_found', what: 'count' });
    const { planId, blind, locationId } = asked;
    const name = asked.name.trim();
    if (name === '') return err(invalidField('name', { kind: 'name_missing' }));
    const here = may(actor, 'stock.count', { locationIds: [locationId] });
    if (!here.ok) return here;
    const items = await itemsToCount(tx, actor, asked);
    if (!items.ok) return items;
    const period = periodOf(today);
    const count = numberText('C', period, await drawNumber(tx, 'CN', period));
    const countId = await insertCount(
      tx,
      { number: count, name, locationId, planId, blind, userId: actor.userId, at: now, businessDate: today },
      items.value,
    );
    await recordChanges(tx, actor.userId, now, [
      { entity: 'stock_count', entityId: countId, action: 'begun', after: { count, name, lines: items.value.length } },
    ]);
    return ok({ countId, count });
  });
}

async function askedFor(tx: Tx, input: BeginCount, today: string): Promise<(Once & { planId: number | null }) | null> {
  if (!('planId' in input)) return { ...input, planId: null };
  const plan = await lockCountPlan(tx, input.planId);
  if (!plan) return null;
  await setNextCount(tx, plan.id, nextCount(plan.nextOn, plan.everyDays, today));
  const { name, locationId, what, category, shelf } = plan;
  return {
    ...{ planId: plan.id, name, locationId, what, category, shelf, blind: plan.blind === 1 },
    itemIds: what === 'marked' ? await readPlanItems(tx, plan.id) : [],
  };
}
