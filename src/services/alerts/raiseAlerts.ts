import { randomBytes } from 'node:crypto';
import { type AlertRule, alertMatters } from '@/core/people';
import { fromDecimal, toDecimal } from '@/core/quantity';
import { ok } from '@/core/result';
import {
  type AlertRow,
  endMatter,
  lockAlerts,
  type RuleRow,
  raiseMatter,
  readAlertRows,
  readRulesFor,
} from '@/data/repositories/alerts';
import { readCompany } from '@/data/repositories/company';
import { insertMail } from '@/data/repositories/outbox';
import type { Tx } from '@/data/sql';
import { readSnapshot, write } from '@/data/transaction';
import { type Deps, stamp, todayOf } from '../deps';
import { groupBy } from '../grouping';
import { actorOfUser } from '../people/session';

/** Lines that one mail tells; more are counted. */
const MOST_IN_MAIL = 60;

/** Tells everybody who wants to know, so soon, what is so and was not told before: in the application, and by one mail to
 *  each. What is not so any more ends, so that it is told again when it comes back. Returns how many were raised. */
export async function raiseAlerts(deps: Deps, how: AlertRule['how']): Promise<number> {
  const rules = await readSnapshot(deps.pool, (tx) => readRulesFor(tx, how));
  const { now, today } = await readSnapshot(deps.pool, async (tx) => ({
    now: stamp(deps.clock()),
    today: todayOf(deps, await readCompany(tx)),
  }));
  const wanted = new Set(rules.map((r) => r.matter));
  for (const matter of alertMatters.filter((m) => wanted.has(m)))
    await write<void, never>(deps.pool, async (tx) => {
      await endMatter(tx, matter, now, today);
      return ok(undefined);
    });
  let raised = 0;
  for (const [userId, own] of groupBy(rules, (r) => r.userId)) {
    const actor = await actorOfUser(deps, userId);
    if (!actor) continue;
    const done = await write<number, never>(deps.pool, async (tx) => {
      const last = await lockAlerts(tx, userId);
      let mine = 0;
      const told: RuleRow[] = [];
      for (const rule of own) {
        const n = await raiseMatter(tx, { userId, matter: rule.matter, locationIds: actor.locations, now, today });
        if (n > 0) told.push(rule);
        mine += n;
      }
      const byMail = new Set(told.filter((r) => r.byMail && r.mail !== '').map((r) => r.matter));
      if (byMail.size > 0) await mailTo(tx, own[0] as RuleRow, byMail, last, now);
      return ok(mine);
    });
    if (done.ok) raised += done.value;
  }
  return raised;
}

async function mailTo(tx: Tx, to: RuleRow, matters: ReadonlySet<string>, after: number, now: string): Promise<void> {
  const company = await readCompany(tx);
  const all = (await readAlertRows(tx, to.userId, after, 10_000)).filter((a) => matters.has(a.matter));
  if (all.length === 0) return;
  const { subject, body } = alertMail(all, company.name);
  await insertMail(tx, {
    ...{ messageId: `<alert-${randomBytes(12).toString('hex')}@vorrat.invalid>`, recipient: to.mail, subject, body },
    ...{ entity: 'alert', entityId: to.userId, userId: to.userId, at: now },
  });
}

const heads: Readonly<Record<AlertRow['matter'], string>> = {
  below_zero: 'Below zero',
  below_min: 'At or below the minimum',
  above_max: 'Above the maximum',
  transfer_asked: 'A place asks for goods',
  count_due: 'A count is due',
};

/** The mail that tells new alerts, by matter. Quantities are plain decimals. */
export function alertMail(all: readonly AlertRow[], company: string): { subject: string; body: string } {
  const plain = (q: string | null) => toDecimal(fromDecimal(q ?? '0'));
  const line = (a: AlertRow): string => {
    const what = `${a.itemName} (${a.itemNumber}) at ${a.location}`;
    switch (a.matter) {
      case 'below_zero':
        return `${what}: ${plain(a.onHand)} ${a.unit}`;
      case 'below_min':
        return `${what}: ${plain(a.onHand)} ${a.unit} on hand, minimum ${plain(a.level)}`;
      case 'above_max':
        return `${what}: ${plain(a.excess)} ${a.unit} above the maximum of ${plain(a.max)}`;
      case 'transfer_asked':
        return `${a.about}, from ${a.location}`;
      case 'count_due':
        return `${a.about} at ${a.location}`;
    }
  };
  const shown = all.slice(0, MOST_IN_MAIL);
  const parts = alertMatters.flatMap((m) => {
    const own = shown.filter((a) => a.matter === m);
    return own.length === 0 ? [] : [heads[m], ...own.map((a) => `  ${line(a)}`), ''];
  });
  const [first] = all;
  const subject =
    all.length === 1 && first
      ? `${heads[first.matter]}: ${first.itemName ?? first.about ?? ''}, ${first.location ?? ''}`.slice(0, 200)
      : `${all.length} alerts from ${company}`.slice(0, 200);
  const more = all.length - shown.length;
  return { subject, body: [...parts, ...(more > 0 ? [`and ${more} more, in Vorrat under Alerts`] : [])].join('\n') };
}
