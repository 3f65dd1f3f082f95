import { readLimits, type TypedLimits, thousandthsOf } from '@/core/classes';
import { decimalsOf, minorToDecimal, parsePrice } from '@/core/money';
import { type Actor, may } from '@/core/people';
import type { PromiseRule } from '@/core/promise';
import { err, ok, type Result } from '@/core/result';
import { recordChanges } from '@/data/repositories/bookkeeping';
import {
  type ClassLimits,
  readClassLimits,
  readCompany,
  setDemandAsOf,
  updateClassLimits,
} from '@/data/repositories/company';
import { readRecountLimits, updateRecountLimits } from '@/data/repositories/counts';
import { type OrderRules, readOrderRules, updateOrderRules } from '@/data/repositories/orderLife';
import { type PromiseRules, readPromiseRules, updatePromiseRules } from '@/data/repositories/promises';
import { readWeighing, updateWeighing, type WeighingRow } from '@/data/repositories/ways';
import { readSnapshot } from '@/data/transaction';
import { command, type Request } from '../command';
import type { Deps } from '../deps';
import { type Failure, invalidField } from '../failure';
import { leaveToWorker } from '../work/leaveToWorker';

/** Limits as they are typed: shares in percent; the amount in the company's currency. */
export type TypedSettings = TypedLimits & {
  readonly leadTimeRule: 'measured' | 'stated';
  readonly least: string;
  readonly empirical: string;
  readonly recountShare: string;
  readonly recountAmount: string;
  /** Days ahead that customers' orders are given stock, and how much may be promised. */
  readonly promiseDays: string;
  readonly promiseRule: PromiseRule;
  /** What weighs ways to cover a need: percent a year, placing an order, sending to another place. */
  readonly carrying: string;
  readonly orderCost: string;
  readonly transport: string;
  /** From which sum of an order on somebody else approves it than who entered it ('' = never); days to wait for a confirmation. */
  readonly fourEyes: string;
  readonly confirmDays: string;
};
export type LimitsView = { readonly typed: TypedSettings; readonly currency: string; readonly may: boolean };

/** The limits that classes, lead times, second counts and promises go by. Errors: forbidden. */
export async function readLimitSettings(deps: Deps, actor: Actor): Promise<Result<LimitsView, Failure>> {
  const allowed = may(actor, 'stock.read');
  if (!allowed.ok) return allowed;
  return readSnapshot(deps.pool, async (tx) => {
    const { currency } = await readCompany(tx);
    const typed = typedOf(
      await readClassLimits(tx),
      await readRecountLimits(tx),
      await readPromiseRules(tx),
      await readWeighing(tx),
      await readOrderRules(tx),
      currency,
    );
    return ok({ typed, currency, may: may(actor, 'setup.edit').ok });
  });
}

const percent = (thousandths: number) => String(thousandths / 10);

function typedOf(
  l: ClassLimits,
  recount: { share: number; minor: number },
  promise: PromiseRules,
  weighing: WeighingRow,
  orders: OrderRules,
  currency: string,
): TypedSettings {
  return {
    ...{ a: percent(l.abcA), b: percent(l.abcB), x: String(l.xyzX / 1000), y: String(l.xyzY / 1000) },
    ...{ leadTimeRule: l.leadTimeRule, least: String(l.leadTimeLeast), empirical: String(l.leadTimeEmpirical) },
    recountShare: percent(recount.share),
    recountAmount: minorToDecimal(recount.minor, currency),
    ...{ promiseDays: String(promise.days), promiseRule: promise.rule, carrying: percent(weighing.carrying) },
    orderCost: minorToDecimal(weighing.order, currency),
    transport: minorToDecimal(weighing.transport, currency),
    fourEyes: orders.fourEyes === null ? '' : minorToDecimal(orders.fourEyes, currency),
    confirmDays: String(orders.confirmDays),
  };
}

/** Sets them; the worker makes classes again and reckons everything by them.
 *  `was` is what the person saw. Errors: forbidden, changed_meanwhile, invalid_field by name. */
export async function setLimits(
  deps: Deps,
  actor: Actor,
  request: Request<TypedSettings & { readonly was: TypedSettings }>,
): Promise<Result<null, Failure>> {
  const allowed = may(actor, 'setup.edit');
  if (!allowed.ok) return allowed;
  const { was, ...typed } = request.input;
  const limits = readLimits(typed);
  if (!limits.ok) return err(invalidField(limits.error.field, limits.error.fault));
  const whole = (text: string) => (/^\d{1,3}$/.test(text.trim()) ? Number(text) : null);
  const [least, empirical] = [whole(typed.least), whole(typed.empirical)];
  if (least === null || least < 1) return err(invalidField('least', { kind: 'not_a_number_of', text: typed.least }));
  if (empirical === null || empirical < least)
    return err(invalidField('empirical', { kind: 'not_a_number_of', text: typed.empirical }));
  const days = whole(typed.promiseDays);
  if (days === null) return err(invalidField('promiseDays', { kind: 'not_a_number_of', text: typed.promiseDays }));
  const share = thousandthsOf(typed.recountShare);
  if (share === null || share > 1000)
    return err(invalidField('recountShare', { kind: 'not_a_share', text: typed.recountShare }));
  const amount = parsePrice(typed.recountAmount);
  if (!amount.ok) return err(invalidField('recountAmount', amount.error));
  const carrying = thousandthsOf(typed.carrying);
  if (carrying === null || carrying > 1000)
    return err(invalidField('carrying', { kind: 'not_a_share', text: typed.carrying }));
  const [orderCost, transport] = [parsePrice(typed.orderCost), parsePrice(typed.transport)];
  if (!orderCost.ok) return err(invalidField('orderCost', orderCost.error));
  if (!transport.ok) return err(invalidField('transport', transport.error));
  const fourEyes = typed.fourEyes.trim() === '' ? ok(null) : parsePrice(typed.fourEyes);
  if (!fourEyes.ok) return err(invalidField('fourEyes', fourEyes.error));
  const confirmDays = whole(typed.confirmDays);
  if (confirmDays === null)
    return err(invalidField('confirmDays', { kind: 'not_a_number_of', text: typed.confirmDays }));
  return command(deps, actor, 'set-limits', request, async (tx, now) => {
    const had = await readClassLimits(tx, true);
    const recount = await readRecountLimits(tx);
    const { currency } = await readCompany(tx);
    const before = typedOf(
      had,
      recount,
      await readPromiseRules(tx),
      await readWeighing(tx),
      await readOrderRules(tx),
      currency,
    );
    if ((Object.keys(before) as (keyof TypedSettings)[]).some((k) => before[k] !== was[k]))
      return err({ kind: 'changed_meanwhile', what: 'record', who: null, now: null });
    const minorOf = (text: string) => Math.round(Number(text) * 10 ** decimalsOf(currency));
    const minor = minorOf(amount.value);
    const after = {
      ...limits.value,
      leadTimeRule: typed.leadTimeRule,
      leadTimeLeast: least,
      leadTimeEmpirical: empirical,
    };
    await updateClassLimits(tx, after);
    await updateRecountLimits(tx, { share, minor });
    await updatePromiseRules(tx, { days, rule: typed.promiseRule });
    await updateWeighing(tx, { carrying, order: minorOf(orderCost.value), transport: minorOf(transport.value) });
    const from = fourEyes.value === null ? null : minorOf(fourEyes.value);
    await updateOrderRules(tx, { fourEyes: from, confirmDays });
    await recordChanges(tx, actor.userId, now, [
      { entity: 'company', entityId: 1, action: 'limits', before, after: typed },
    ]);
    // The worker measures classes and lead times again and reckons everything by them.
    await setDemandAsOf(tx, null);
    await leaveToWorker(tx, 'begin-day', now, actor.userId);
    return ok(null);
  });
}
