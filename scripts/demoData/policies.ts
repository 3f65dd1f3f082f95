import { addDays } from '@/core/calendar';
import type { SqlValue, Tx } from '@/data/sql';
import type { Placed } from './catalogue';
import { isUnrecorded } from './counts';
import { seeded } from './random';

/** Items by number, with the kind of policy one of their places has and what it needs. */
const kinds: readonly (readonly [
  number: string,
  place: string,
  kind: string,
  more: Readonly<Record<string, SqlValue>>,
])[] = [
  ['31520-05', 'HS', 'fixed_quantity', { min_quantity: 4, max_quantity: null, fixed_quantity: 6 }],
  ['31520-06', 'OM', 'fixed_quantity', { min_quantity: 3, max_quantity: null, fixed_quantity: 6 }],
  ['11340-02', 'WY', 'periodic', { min_quantity: null, max_quantity: null }],
  ['22520-03', 'WY', 'periodic', { min_quantity: null, max_quantity: 90 }],
  ['28410-03', 'HS', 'days_of_cover', { min_quantity: null, max_quantity: null, cover_days: 21 }],
  [
    '28410-04',
    'OM',
    'days_of_cover',
    { min_quantity: null, max_quantity: null, cover_days: 21, target_thousandths: 980 },
  ],
  ['35010-06', 'HS', 'lot_for_lot', { min_quantity: null, max_quantity: null, window_days: 14, safety_quantity: 1 }],
  ['70220-01', 'HS', 'per_demand', { min_quantity: null, max_quantity: null }],
  ['28420-01', 'HS', 'phase_out', { min_quantity: null, max_quantity: null }],
];

/** Policies beyond min/max, a season, defaults of categories; thread comes to the shops from the warehouse. */
export async function writePolicies(tx: Tx, today: string): Promise<void> {
  for (const [number, place, kind, more] of kinds) {
    const sets = Object.keys(more).map((c) => `p.${c} = :${c}`);
    await tx.run(
      `UPDATE policy p JOIN item i ON i.id = p.item_id JOIN location l ON l.id = p.location_id
          SET p.kind = :kind, ${sets.join(', ')} WHERE i.number = :number AND l.code = :place`,
      { kind, number, place, ...more },
    );
  }
  await tx.run(
    `INSERT INTO policy_default (category_id, supply)
     SELECT id, 'place' FROM category WHERE name = 'Thread'`,
  );
  await tx.run(
    `INSERT INTO policy_default (category_id, target_kind, target_thousandths)
     SELECT id, 'fill_rate', 970 FROM category WHERE name = 'Needles'`,
  );
  // Wool sells in the cold months.
  const year = Number(today.slice(0, 4));
  await tx.run(
    `INSERT INTO policy_season (item_id, location_id, from_day, to_day, every_year, min_quantity, max_quantity)
     SELECT i.id, NULL, :from, :to, 1, 34, 90 FROM item i WHERE i.number IN ('10412-05', '10412-06')`,
    { from: `${year}-10-01`, to: `${year + 1}-02-28` },
  );
  // Machines on show, and one that is kept back.
  await tx.run(
    `UPDATE policy p JOIN item i ON i.id = p.item_id JOIN location l ON l.id = p.location_id
        SET p.display_minimum = 1 WHERE i.number LIKE '70110%' AND l.code = 'HS'`,
  );
  await tx.run(
    `UPDATE policy p JOIN item i ON i.id = p.item_id JOIN location l ON l.id = p.location_id
        SET p.reserve_quantity = 10 WHERE i.number = '10412-12' AND l.code = 'WY'`,
  );
}

const DAYS = 548;

/** Daily use of a year and a half before stock was kept here, on the days on which something sold: steady, with a season
 *  (yarn in autumn and winter), rising, or now and then; one with a hole, one with a freak sale to a school. */
export async function writeHistory(tx: Tx, placed: readonly Placed[], today: string, until: string): Promise<void> {
  const random = seeded(20261126);
  const rows: SqlValue[][] = [];
  for (const p of placed) {
    const perDay = (((p.max - p.min) / 1e6) * 0.11) / 7;
    const metres = p.family.unit[0] === 'MTR';
    const rare = perDay < 0.06;
    for (let d = DAYS; d > 0; d -= 1) {
      const day = addDays(today, -d);
      if (day >= until) break;
      if (new Date(`${day}T00:00:00Z`).getUTCDay() === 0) continue;
      if (p.number === '10412-09' && d > 300 && d < 340) continue;
      const month = Number(day.slice(5, 7));
      const season = p.family.category === 'Yarn' ? (month >= 9 || month <= 2 ? 1.5 : 0.6) : 1;
      const trend = p.family.category === 'Fastenings' ? 1.25 - d / 1500 : 1;
      const mean = perDay * season * trend;
      // A customer comes; most take one or two, some a handful.
      const chance = rare ? mean : Math.min(0.85, mean / 2);
      if (random() >= chance) continue;
      const size = rare ? 1 : 1 + Math.floor(-Math.log(1 - random()) * Math.max(0.5, mean / chance - 1) + 0.5);
      if (!isUnrecorded(p.number))
        rows.push([p.itemId, p.locationId, day, metres ? (size * (0.5 + random())).toFixed(1) : size]);
    }
    if (p.number === '10412-10' && p.code === 'HS') rows.push([p.itemId, p.locationId, addDays(today, -207), 240]);
  }
  const seen = new Set<string>();
  const unique = rows.filter((r) => {
    const key = `${r[0]}/${r[1]}/${r[2]}`;
    return Number(r[3]) > 0 && !seen.has(key) && seen.add(key);
  });
  for (let i = 0; i < unique.length; i += 20_000)
    await tx.load('daily_demand', ['item_id', 'location_id', 'day', 'quantity'], unique.slice(i, i + 20_000));
}
