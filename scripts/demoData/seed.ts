import type { Pool } from 'mysql2/promise';
import { addDays, businessDate } from '@/core/calendar';
import type { Actor } from '@/core/people';
import { checked, MICRO, units } from '@/core/quantity';
import { ok, unwrap } from '@/core/result';
import { write } from '@/data/transaction';
import { raiseAlerts } from '@/services/alerts/raiseAlerts';
import { setAlerts } from '@/services/alerts/setAlerts';
import { measureAllDemand } from '@/services/demand/measureDemand';
import { type Deps, stamp } from '@/services/deps';
import { fullNeedRun } from '@/services/planning/recompute';
import { approveTransfer } from '@/services/stock/approveTransfer';
import { postMovements, type StockChange } from '@/services/stock/postMovements';
import { requestTransfer } from '@/services/stock/requestTransfer';
import { type Placed, writeCatalogue } from './catalogue';
import { company } from './company';
import { countShelves, countUnrecorded, isUnrecorded, type Unrecorded } from './counts';
import { takeCustomerOrders } from './customerOrders';
import { enrich } from './enrich';
import { pastOrders, placeOrder } from './history';
import { writeLots } from './lots';
import { openOrders } from './openOrders';
import { writeHistory } from './policies';
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

/** A week's sale by the days on which it was rung up (0 = its first), never a part smaller than a step. */
function overDays(quantity: number, step: number, random: () => number): (readonly [number, number])[] {
  const byDay = new Map<number, number>();
  let left = quantity;
  while (left > 0) {
    // One or two pieces a customer, now and then a handful.
    const wanted = Math.round((0.6 + 1.9 * random() ** 2) * MICRO);
    const take = Math.min(left, Math.max(step, Math.round(wanted / step) * step));
    const day = Math.floor(6 * random());
    byDay.set(day, (byDay.get(day) ?? 0) + take);
    left -= take;
  }
  return [...byDay].sort(([a], [b]) => a - b);
}

/** Writes the demo company into an empty database: stock by movements over the last 13 weeks, past and open orders through the
 *  same use cases the application has; `small` leaves it at the 81 items that most tests work with. Deterministic for a day. */
export async function seedDemo(pool: Pool, now: Date, { small = false } = {}): Promise<void> {
  const today = businessDate(now, company.timeZone);
  const random = seeded(20261123);
  const days = seeded(20261127);
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

  if (!small) {
    unwrap(await write(pool, async (tx) => ok(await enrich(tx, placed, today))));
    await pool.query("UPDATE item SET use_recorded = 0 WHERE number LIKE '90%'");
  }

  const weeks = 13;
  const changes: StockChange[] = [];
  const later: StockChange[] = [];
  const unrecorded: Unrecorded[] = [];
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
    const counted = !small && isUnrecorded(p.number);
    if (counted) unrecorded.push({ ...pair, opening: started, closing: end });
    const came = (w: number) =>
      plans
        .filter((o) => o.receivedAfter !== null && o.daysAgo - o.receivedAfter >= 7 * (weeks - w))
        .flatMap((o) => o.lines.filter((l) => l.pair === key(p)))
        .reduce((sum, l) => sum + l.receivedBase, 0);
    for (const [w, quantity] of fromStock(sales, started, came).entries()) {
      if (quantity === 0) continue;
      for (const [day, q] of small ? [[0, quantity] as const] : overDays(quantity, step, days)) {
        const sale: StockChange = {
          ...pair,
          kind: 'sale',
          businessDate: addDays(today, -7 * (weeks - w) + day),
          quantity: -q,
          value: null,
          document: noDocument('sales_day'),
          lastCost: { quantity: MICRO, value: p.cost },
        };
        if (!counted) (w < 6 ? changes : later).push(sale);
      }
    }
  }
  unwrap(await write(pool, (tx) => postMovements(tx, null, stamp(at(91)), addDays(today, -91), changes)));
  await countUnrecorded(depsAt, buyer, unrecorded, 'before');
  for (const o of plans.filter((x) => x.daysAgo > 30)) await placeOrder(pool, depsAt, buyer, o);
  unwrap(await write(pool, (tx) => postMovements(tx, null, stamp(at(1)), addDays(today, -1), later)));
  for (const o of plans.filter((x) => x.daysAgo <= 30)) await placeOrder(pool, depsAt, buyer, o);
  if (!small) await openOrders(depsAt, buyer);
  await countUnrecorded(depsAt, buyer, unrecorded, 'since');
  if (!small) {
    await countShelves(pool, depsAt, buyer);
    unwrap(await write(pool, async (tx) => ok(await writeLots(tx, stamp(at(91))))));
  }
  // Changes were written order by order; they are numbered as they happened.
  await pool.query(`UPDATE change_record c JOIN (SELECT id, ROW_NUMBER() OVER (ORDER BY at, id) AS n FROM change_record) x
                      ON x.id = c.id SET c.id = 1000000 + x.n`);
  await pool.query('UPDATE change_record SET id = id - 1000000 ORDER BY id');
  if (!small) {
    const since = addDays(today, -7 * weeks - 1);
    unwrap(await write(pool, async (tx) => ok(await writeHistory(tx, placed, today, since))));
  }
  await measureAllDemand({ pool, clock: () => now });
  await fullNeedRun({ pool, clock: () => now });
  if (!small) {
    await askForGoods({ pool, clock: () => now }, buyer);
    await takeCustomerOrders({ pool, clock: () => now }, buyer);
    await wantAlerts({ pool, clock: () => now }, buyer);
  }
}

/** Two shops ask the warehouse for goods; one request is approved already. */
async function askForGoods(deps: Deps, buyer: Actor): Promise<void> {
  const item = async (number: string) => {
    const [rows] = await deps.pool.query('SELECT id FROM item WHERE number = ?', [number]);
    return (rows as { id: number }[])[0]?.id ?? 0;
  };
  const ask = async (
    key: string,
    toLocationId: number,
    note: string,
    wanted: readonly (readonly [string, string])[],
  ) => {
    const lines = await Promise.all(wanted.map(async ([n, quantity]) => ({ itemId: await item(n), quantity })));
    const input = { fromLocationId: 4, toLocationId, wantedDate: '+3', note, lines };
    return unwrap(await requestTransfer(deps, buyer, { key: `seed-transfer-${key}`, input })).transferId;
  };
  await ask('market', 3, 'for the Saturday market', [
    ['10412-02', '10'],
    ['10412-05', '10'],
    ['11230-02', '6'],
    ['25310-03', '25'],
  ]);
  const second = await ask('window', 2, 'for the window', [
    ['10530-01', '10'],
    ['10688-01', '4'],
  ]);
  const lines = [
    { lineNo: 1, approved: '10' },
    { lineNo: 2, approved: '2' },
  ];
  unwrap(
    await approveTransfer(deps, buyer, {
      key: 'seed-transfer-approve',
      input: { transferId: second, version: 1, lines },
    }),
  );
}

/** The buyer hears of what went below zero and of shops that ask at once, of counts that are due daily. */
async function wantAlerts(deps: Deps, buyer: Actor): Promise<void> {
  const at = { byMail: false };
  const rules = [
    { matter: 'below_zero' as const, how: 'at_once' as const, ...at },
    { matter: 'transfer_asked' as const, how: 'at_once' as const, ...at },
    { matter: 'count_due' as const, how: 'daily' as const, ...at },
  ];
  unwrap(await setAlerts(deps, buyer, { key: 'seed-alerts-mira', input: { mail: 'mira@quillon.example', rules } }));
  await raiseAlerts(deps, 'at_once');
  await raiseAlerts(deps, 'daily');
}
