import type { AlertMatter, AlertRule } from '@/core/people';
import { atLocations, list, type SqlValues, type Tx } from '../sql';

/** What is so now of each matter: its key, what it is about, and where. */
const matters: Readonly<Record<AlertMatter, string>> = {
  below_zero: `SELECT CONCAT(l.item_id, '/', l.location_id) AS k, l.item_id, l.location_id, NULL AS ref_id
                 FROM level l JOIN location p ON p.id = l.location_id AND p.kind <> 'transit' WHERE l.on_hand < 0`,
  below_min: `SELECT CONCAT(item_id, '/', location_id) AS k, item_id, location_id, NULL AS ref_id
                FROM item_location_state WHERE below_min = 1`,
  above_max: `SELECT CONCAT(item_id, '/', location_id) AS k, item_id, location_id, NULL AS ref_id
                FROM item_location_state WHERE excess > 0`,
  transfer_asked: `SELECT CONCAT('T', id) AS k, NULL AS item_id, from_location_id AS location_id, id AS ref_id
                     FROM transfer WHERE state = 'requested'`,
  count_due: `SELECT CONCAT('C', id, '/', next_on) AS k, NULL AS item_id, location_id, id AS ref_id
                FROM count_plan WHERE next_on <= :today`,
};
const valuesOf = (matter: AlertMatter, today: string): SqlValues => (matter === 'count_due' ? { today } : {});

/** Raises what is so and not yet told, at these places. What is so is read first and written then: a write that reads levels
 *  itself would lock them, beside every sale. Nobody else raises alerts of this person meanwhile (lockAlerts). */
export async function raiseMatter(
  tx: Tx,
  a: { userId: number; matter: AlertMatter; locationIds: readonly number[] | null; now: string; today: string },
): Promise<number> {
  const at = atLocations('c.location_id', a.locationIds);
  const fresh = await tx.rows<{ k: string; itemId: number | null; locationId: number; refId: number | null }>(
    `SELECT c.k, c.item_id AS itemId, c.location_id AS locationId, c.ref_id AS refId FROM (${matters[a.matter]}) c
       LEFT JOIN alert x ON x.user_id = :userId AND x.matter = :matter AND x.matter_key = c.k AND x.live = 1
      WHERE x.id IS NULL ${at.sql} ORDER BY c.k`,
    { userId: a.userId, matter: a.matter, ...valuesOf(a.matter, a.today), ...at.values },
  );
  await tx.insertMany(
    'INSERT INTO alert (user_id, matter, matter_key, item_id, location_id, ref_id, raised_at)',
    fresh.map((f) => [a.userId, a.matter, f.k, f.itemId, f.locationId, f.refId, a.now]),
  );
  return fresh.length;
}

/** Ends what is not so any more, whoever was told; read first and written then, as above. */
export async function endMatter(tx: Tx, matter: AlertMatter, now: string, today: string): Promise<void> {
  const over = await tx.rows<{ id: number }>(
    `SELECT x.id FROM alert x LEFT JOIN (${matters[matter]}) c ON c.k = x.matter_key
      WHERE x.matter = :matter AND x.live = 1 AND c.k IS NULL ORDER BY x.id`,
    { matter, ...valuesOf(matter, today) },
  );
  if (over.length === 0) return;
  const values = [now, over.map((x) => x.id)];
  await tx.tell([{ sql: 'UPDATE alert SET ended_at = ? WHERE id IN (?) AND live = 1', values }]);
}

/** Ends what a person does not want to hear of any more. */
export async function endUnwanted(tx: Tx, userId: number, wanted: readonly AlertMatter[], now: string): Promise<void> {
  const kept = wanted.map((m) => `'${m}'`).join(', ');
  await tx.run(
    `UPDATE alert SET ended_at = :now WHERE user_id = :userId AND live = 1 ${kept ? `AND matter NOT IN (${kept})` : ''}`,
    { userId, now },
  );
}

export type RuleRow = AlertRule & { readonly userId: number; readonly mail: string };
const ruleSql = `SELECT r.user_id AS userId, r.matter, r.how, r.by_mail = 1 AS byMail, u.mail
  FROM alert_rule r JOIN app_user u ON u.id = r.user_id AND u.active = 1`;
/** What people who can sign in want to hear of, so soon. */
export const readRulesFor = async (tx: Tx, how: AlertRule['how']) =>
  ruled(await tx.rows<RuleRow>(`${ruleSql} WHERE r.how = :how ORDER BY r.user_id, r.matter`, { how }));
export const readRulesOf = async (tx: Tx, userId: number) =>
  ruled(await tx.rows<RuleRow>(`${ruleSql} WHERE r.user_id = :userId ORDER BY r.matter`, { userId }));
const ruled = (rows: readonly RuleRow[]) => rows.map((r) => ({ ...r, byMail: Number(r.byMail) === 1 }));

export async function replaceRules(tx: Tx, userId: number, rules: readonly AlertRule[]): Promise<void> {
  await tx.run('DELETE FROM alert_rule WHERE user_id = :userId', { userId });
  await tx.insertMany(
    'INSERT INTO alert_rule (user_id, matter, how, by_mail)',
    rules.map((r) => [userId, r.matter, r.how, r.byMail ? 1 : 0]),
  );
}
export const readMailOf = async (tx: Tx, userId: number) =>
  (await tx.row<{ mail: string }>('SELECT mail FROM app_user WHERE id = :userId', { userId }))?.mail ?? '';
export const setMailOf = (tx: Tx, userId: number, mail: string) =>
  tx.run('UPDATE app_user SET mail = :mail WHERE id = :userId', { userId, mail });

export type AlertRow = {
  readonly id: number;
  readonly matter: AlertMatter;
  readonly itemId: number | null;
  readonly refId: number | null;
  readonly raisedAt: string;
  readonly seen: number;
  readonly itemNumber: string | null;
  readonly itemName: string | null;
  readonly unit: string | null;
  readonly location: string | null;
  readonly onHand: string | null;
  readonly level: string | null;
  readonly max: string | null;
  readonly excess: string | null;
  /** Of a transfer its number, of a count its name. */
  readonly about: string | null;
};

/** Holds the alerts of a person, so that two workers don't tell the same; the last one there is. */
export async function lockAlerts(tx: Tx, userId: number): Promise<number> {
  await tx.row('SELECT id FROM app_user WHERE id = :userId FOR UPDATE', { userId });
  const last = await tx.row<{ id: number | null }>('SELECT MAX(id) AS id FROM alert WHERE user_id = :userId', {
    userId,
  });
  return Number(last?.id ?? 0);
}

/** Alerts of a person that last, newest first; only those after one. */
export function readAlertRows(tx: Tx, userId: number, after: number, limit: number): Promise<AlertRow[]> {
  return tx.rows<AlertRow>(
    `SELECT a.id, a.matter, a.item_id AS itemId, a.ref_id AS refId, a.raised_at AS raisedAt, a.seen_at IS NOT NULL AS seen,
            i.number AS itemNumber, i.name AS itemName, i.unit_name AS unit, p.name AS location, l.on_hand AS onHand,
            s.level_quantity AS level, s.max_quantity AS max, s.excess,
            COALESCE(t.number, c.name) AS about
       FROM alert a LEFT JOIN item i ON i.id = a.item_id LEFT JOIN location p ON p.id = a.location_id
       LEFT JOIN level l ON l.item_id = a.item_id AND l.location_id = a.location_id
       LEFT JOIN item_location_state s ON s.item_id = a.item_id AND s.location_id = a.location_id
       LEFT JOIN transfer t ON a.matter = 'transfer_asked' AND t.id = a.ref_id
       LEFT JOIN count_plan c ON a.matter = 'count_due' AND c.id = a.ref_id
      WHERE a.user_id = :userId AND a.live = 1 AND a.id > :after
      ORDER BY a.id DESC LIMIT ${Math.trunc(limit)}`,
    { userId, after },
  );
}

export async function markSeen(tx: Tx, userId: number, ids: readonly number[], now: string): Promise<void> {
  const some = list('id', ids);
  if (some)
    await tx.run(
      `UPDATE alert SET seen_at = :now WHERE user_id = :userId AND seen_at IS NULL AND id IN (${some.sql})`,
      { userId, now, ...some.values },
    );
}

/** Takes alerts away that ended before a moment. */
export const deleteOldAlerts = (tx: Tx, before: string) =>
  tx.run('DELETE FROM alert WHERE ended_at < :before', { before });
