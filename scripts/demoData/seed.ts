import type { Pool } from 'mysql2/promise';
import { addDays, businessDate } from '@/core/calendar';
import type { Actor } from '@/core/people';
import { checked, MICRO, units } from '@/core/quantity';
import { ok, unwrap } from '@/core/result';
import { write } from '@/data/transaction';
import { measureAllDemand } from '@/services/demand/measureDemand';
import { type Deps, stamp } from '@/services/deps';
import { fullNeedRun } from '@/services/planning/recompute';
import { postMovements, type StockChange } from '@/services/stock/postMovements';
import { type Placed, writeCatalogue } from './catalogue';
import { company } from './company';
import { enrich } from './enrich';
import { pastOrders, placeOrder } from './history';
import { seeded } from './random';

/** Item and place of the shortages of the demo, as a share of the minimum that is left. */
const short: Readonly<Record<string, number>> = {
  '10412-07/HS': 0.43,
  '10412-11/HS': 0,
  '10412-01/OM': 0.8,
  '10412-03/WY': 0.5,
  '10530-03/MH': 0.25,
  '10688-02/HS': 0.9,
  '22017-01/WY': 0.7,
  '22155-01/OM': 0.42,
  '22290-01/HS': 0.3,
  '25100-04/HS': 1,
  '28305-02/OM': 0.6,
  '29000-01/HS': 0.4,
  '31080-03/HS': 0.5,
  '31300-02/OM': 0.25,
  '40933-01/HS': 0.5,
  '40950-01/OM': 0.33,
  // Of the whole range.
  '28530-03/HS': 0.6,
  '28530-11/OM': 0.25,
  '29330-05/HS': 0.5,
  '29330-17/WY': 0.66,
  '31520-02/OM': 0.4,
  '35010-04/HS': 0.5,
  '40430-02/HS': 0,
  '28420-06/WY': 0.7,
};

/** More than the maximum, by this factor: goods that did not sell as was thought. */
const over: Readonly<Record<string, number>> = {
  '22520-09/WY': 1.6,
  '25310-14/HS': 1.35,
  '11230-03/OM': 1.8,
  '40320-01/WY': 2.5,
};

/** One piece more was sold than was booked: stock below zero, to be put right by the next receipt. */
const negative = '29000-04/MH';

const key = (p: Placed) => `${p.number}/${p.code}`;
const isMetre = (p: Placed) => p.family.unit[0] === 'MTR';

/** Closing stock of a pair, in millionths. */
function closing(p: Placed, random: () => number): number {
  const share = short[key(p)];
  if (key(p) === negative) return units(-2);
  const more = over[key(p)];
  if (more !== undefined) return Math.round((p.max * more) / MICRO) * MICRO;
  const level = share !== undefined ? p.min * share : p.min + (p.max - p.min) * (0.15 + 0.8 * random());
  const step = isMetre(p) ? MICRO / 10 : MICRO;
  const rounded = Math.round(level / step) * step;
  return share !== undefined ? Math.min(rounded, p.min) : Math.max(rounded, p.min + step);
}

/** Sales week by week that never take more than there is; what could not be sold is sold when goods have come, the rest in
 *  the last week. `came` is what was received before a week's sale, since the opening. */
function fromStock(sales: readonly number[], opening: number, came: (week: number) => number): number[] {
  let sold = 0;
  let waiting = 0;
  return sales.map((wanted, w) => {
    const all = wanted + waiting;
    const now = w === sales.length - 1 ? all : Math.max(0, Math.min(all, opening + came(w) - sold));
    waiting = all - now;
    sold += now;
    return now;
  });
}

/** Writes the demo company into an empty database: stock by movements over the last 13 weeks, past and open orders through the
 *  same use cases the application has; `small` leaves it at the 81 items that most tests work with. Deterministic for a day. */
export async function seedDemo(pool: Pool, now: Date, { small = false } = {}): Promise<void> {
  const today = businessDate(now, company.timeZone);
  const random = seeded(20261123);
  const at = (daysAgo: number) => new Date(now.getTime() - daysAgo * 86_400_000);
  const depsAt = (daysAgo: number): Deps => ({ pool, clock: () => at(daysAgo) });
  const placed = unwrap(await write(pool, async (tx) => ok(await writeCatalogue(tx, today, null, 4, !small))));
  const buyer: Actor = {
    userId: 1,
    name: 'Mira Rook',
    initials: 'MR',
    role: 'buyer',
    locations: null,
    approvalLimit: null,
  };

  const plans = pastOrders(placed);
  const received = new Map<string, number>();
  for (const o of plans) for (const l of o.lines) received.set(l.pair, (received.get(l.pair) ?? 0) + l.receivedBase);

  if (!small) unwrap(await write(pool, async (tx) => ok(await enrich(tx, placed, today))));

  const weeks = 13;
  const changes: StockChange[] = [];
  const later: StockChange[] = [];
  for (const p of placed) {
    const end = closing(p, random);
    const step = isMetre(p) ? MICRO / 10 : MICRO;
    const sales = Array.from({ length: weeks }, () => Math.round(((p.max - p.min) * 0.22 * random()) / step) * step);
    const sold = sales.reduce((a, b) => a + b, 0);
    const opening = checked(end + sold - (received.get(key(p)) ?? 0));
    const { itemId, locationId } = p;
    const cost = (q: number) => Math.round((q / MICRO) * p.cost);
    const pair = { itemId, locationId };
    const started = Math.max(opening, step);
    const noDocument = (kind: 'opening' | 'sales_day') => ({ kind, id: null, line: null });
    changes.push({
      ...pair,
      kind: 'opening',
      businessDate: addDays(today, -7 * weeks - 1),
      quantity: started,
      value: cost(started),
      document: noDocument('opening'),
    });
    sales[0] = (sales[0] as number) + started - opening;
    const came = (w: number) =>
      plans
        .filter((o) => o.receivedAfter !== null && o.daysAgo - o.receivedAfter >= 7 * (weeks - w))
        .flatMap((o) => o.lines.filter((l) => l.pair === key(p)))
        .reduce((sum, l) => sum + l.receivedBase, 0);
    for (const [w, quantity] of fromStock(sales, started, came).entries()) {
      if (quantity === 0) continue;
      const sale: StockChange = {
        ...pair,
        kind: 'sale',
        businessDate: addDays(today, -7 * (weeks - w)),
        quantity: -quantity,
        value: null,
        document: noDocument('sales_day'),
        lastCost: { quantity: MICRO, value: p.cost },
      };
      (w < 6 ? changes : later).push(sale);
    }
  }
  unwrap(await write(pool, (tx) => postMovements(tx, null, stamp(at(91)), addDays(today, -91), changes)));
  for (const o of plans.filter((x) => x.daysAgo > 30)) await placeOrder(pool, depsAt, buyer, o);
  unwrap(await write(pool, (tx) => postMovements(tx, null, stamp(at(1)), addDays(today, -1), later)));
  for (const o of plans.filter((x) => x.daysAgo <= 30)) await placeOrder(pool, depsAt, buyer, o);
  // Changes were written order by order; they are numbered as they happened.
  await pool.query(`UPDATE change_record c JOIN (SELECT id, ROW_NUMBER() OVER (ORDER BY at, id) AS n FROM change_record) x
                      ON x.id = c.id SET c.id = 1000000 + x.n`);
  await pool.query('UPDATE change_record SET id = id - 1000000 ORDER BY id');
  await measureAllDemand({ pool, clock: () => now });
  await fullNeedRun({ pool, clock: () => now });
}
