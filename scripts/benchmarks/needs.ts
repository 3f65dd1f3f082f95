import { randomBytes } from 'node:crypto';
import { ok } from '@/core/result';
import { firstChoices, type SplitProblem, solveSplit, splitCost } from '@/core/split';
import { type EarlyBuy, topUp } from '@/core/ways';
import { readNeedsByIds } from '@/data/repositories/planning';
import { readSnapshot, write } from '@/data/transaction';
import { mipSolver } from '@/jobs/mipSolver';
import type { Deps } from '@/services/deps';
import { acceptNeed } from '@/services/planning/acceptNeed';
import { needViewsOf } from '@/services/planning/needViews';
import { openNeeds, readNeedRows } from '@/services/planning/readNeeds';
import { readWays } from '@/services/planning/readWays';
import { fullNeedRun } from '@/services/planning/recompute';
import { seeded } from '../demoData/random';
import { type Figure, median } from './figure';
import { largeBooks, now } from './largeBooks';

const TIMES = 30;
const OPEN = 5_000;
const PAGE = 200;
const buyer = {
  ...{ userId: 1, name: 'Mira Rook', initials: 'MR', role: 'buyer', locations: null, approvalLimit: null, locale: '' },
};

async function times(count: number, body: (n: number) => Promise<unknown>): Promise<number> {
  const all: number[] = [];
  for (let n = 0; n < count; n += 1) {
    const started = performance.now();
    await body(n);
    all.push(performance.now() - started);
  }
  return median(all);
}

/** Two things one after the other, so that both meet the machine as it is just then; the first tenth warms up. */
async function inTurn(
  count: number,
  one: (n: number) => Promise<unknown>,
  other: (n: number) => Promise<unknown>,
): Promise<[number, number]> {
  const all: [number[], number[]] = [[], []];
  for (let n = 0; n < count; n += 1)
    for (const [i, body] of [one, other].entries()) {
      const started = performance.now();
      await body(n);
      if (n >= count / 10) all[i]?.push(performance.now() - started);
    }
  return [median(all[0]), median(all[1])];
}

const figure = (name: string, value: number, unit: string, baseline: number, goal: number): Figure => ({
  ...{ name, value: Number(value.toFixed(2)), unit, baseline: Number(baseline.toFixed(2)) },
  ...{ ratio: Number((value / baseline).toFixed(2)), goal },
});

/** What is stored of a row as the page shows it, with nothing reckoned: what the bare SELECT of a page reads. */
const bareRows = `SELECT n.id, n.state, n.cause, n.shortage, n.suggested, n.fingerprint, i.number, i.name, i.status, l.name AS place, s.name AS supplier,
   v.on_hand, v.blocked, v.inspection, v.allocated, t.on_the_way, t.in_trays, t.owed, t.level_quantity, t.max_quantity, t.cover_days, r.per_day,
   k.name AS pack, k.count_num, k.count_den, a.amount, a.per_quantity
   FROM need n JOIN item i ON i.id = n.item_id JOIN location l ON l.id = n.location_id
   LEFT JOIN source f ON f.id = n.source_id LEFT JOIN supplier s ON s.id = f.supplier_id LEFT JOIN pack k ON k.id = f.pack_id
   LEFT JOIN price a ON a.source_id = f.id AND a.from_packs = 0
   LEFT JOIN level v ON v.item_id = n.item_id AND v.location_id = n.location_id
   LEFT JOIN item_location_state t ON t.item_id = n.item_id AND t.location_id = n.location_id
   LEFT JOIN demand_rate r ON r.item_id = n.item_id AND r.location_id = n.location_id`;

/** Needs in the books of 50,000 items × 15 locations with 5,000 of them open: a page of the list as the read service gives it,
 *  serialised, against the bare SELECT of its rows; the list opened against the bare SELECT of all; a decision against one INSERT,
 *  committed, in turn; the ways of one need against reading its row alone; topping up a tray from 500 candidates against buying in the order
 *  of need, in time and in what holding costs; splitting 40 needs across four suppliers against the cheapest for each. */
export async function needsBench(): Promise<Figure[]> {
  const { pool } = await largeBooks();
  const deps: Deps = { pool, clock: () => now };
  await fullNeedRun(deps);
  // Every one of them spread over the catalogue stays open, the others have plenty.
  await pool.query(
    `UPDATE level v JOIN (SELECT item_id, location_id, ROW_NUMBER() OVER (ORDER BY CRC32(id)) AS n FROM need WHERE state = 'open') x
         ON x.item_id = v.item_id AND x.location_id = v.location_id SET v.on_hand = v.on_hand + 100000 WHERE x.n > ?`,
    [OPEN],
  );
  await fullNeedRun(deps);
  const opened = async () => {
    const head = await openNeeds(deps, buyer, { locationId: null });
    if (!head.ok) throw new Error('the list did not open');
    return head.value;
  };
  const head = await opened();
  const page = async () => {
    const rows = await readNeedRows(deps, buyer, { list: head.list, from: 0 });
    if (!rows.ok) throw new Error('no rows');
    return rows.value.rows;
  };
  const ids = (await page()).flatMap((r) => (r.kind === 'need' ? [r.id] : []));
  const bare = await times(TIMES, async () =>
    JSON.stringify((await pool.query(`${bareRows} WHERE n.id IN (?)`, [ids]))[0]),
  );
  const served = await times(TIMES, async () => JSON.stringify(await page()));
  const bareAll = await times(5, async () =>
    JSON.stringify((await pool.query(`${bareRows} WHERE n.state = 'open'`))[0]),
  );
  const openedIn = await times(5, opened);

  const ways = await times(TIMES, (n) => readWays(deps, buyer, ids[n % ids.length] as number));
  const row = await times(TIMES, (n) =>
    readSnapshot(pool, (tx) => needViewsOf(deps, tx, [ids[n % ids.length] as number])),
  );

  const needs = await readSnapshot(pool, (tx) => readNeedsByIds(tx, ids));
  const decide = async (n: number) => {
    const need = needs[n];
    const key = randomBytes(15).toString('base64url');
    const input = { needId: need?.id ?? 0, fingerprint: need?.fingerprint ?? '', packs: '1' };
    const done = await acceptNeed(deps, buyer, { key, input });
    if (!done.ok) throw new Error(`not accepted: ${done.error.kind}`);
  };
  const insertOne = (n: number) =>
    write<void, never>(pool, async (tx) => {
      await tx.run('INSERT INTO today_hidden (user_id, matter) VALUES (1, :matter)', { matter: `m${n}` });
      return ok(undefined);
    });
  const [decided, insert] = await inTurn(needs.length, decide, insertOne);
  return [
    figure(
      `needs: a page of ${PAGE} of ${head.shown} served and serialised; baseline: the bare SELECT of its rows`,
      served,
      'ms',
      bare,
      5,
    ),
    figure(
      `needs: the list of ${head.shown} opened, goal of the value; baseline: the bare SELECT of all`,
      openedIn,
      'ms',
      bareAll,
      1000,
    ),
    figure(
      'needs: one decision with its need recomputed; baseline: one INSERT, committed, in turn',
      decided,
      'ms',
      insert,
      10,
    ),
    figure('ways: of one need, goal of the value; baseline: its row with the first choice alone', ways, 'ms', row, 100),
    ...topUpFigures(),
    ...(await splitFigures()),
  ];
}

/** 500 candidates of a supplier, a sum to reach that takes about a tenth of them. */
function topUpFigures(): Figure[] {
  const random = seeded(7);
  const candidates: EarlyBuy[] = Array.from({ length: 500 }, (_, i) => ({
    ...{ key: String(i), packAmount: Math.round(500 + 9_500 * random()), mostPacks: 1 + Math.floor(4 * random()) },
    ...{ neededInDays: Math.round(120 * random()), packLastsDays: 5 + 60 * random() },
  }));
  const missing = 300_000;
  const timed = <T>(body: () => T): [T, number] => {
    const runs = Array.from({ length: 15 }, () => {
      const started = performance.now();
      const value = body();
      return [value, performance.now() - started] as const;
    });
    return [(runs[0] as readonly [T, number])[0], median(runs.map(([, ms]) => ms))];
  };
  const [found, ms] = timed(() => topUp(missing, 0, candidates, 0.2));
  const [greedy, greedyMs] = timed(() => firstNeeded(missing, candidates, 0.2));
  return [
    figure(
      'top-up: 500 candidates, goal of the value; baseline: what is needed first, one after the other',
      ms,
      'ms',
      greedyMs,
      50,
    ),
    figure(
      'top-up: what holding it costs; baseline: what is needed first',
      (found?.holding ?? 0) / 100,
      'EUR',
      greedy / 100,
      1,
    ),
  ];
}

/** Forty needs that four suppliers sell, each at its own price and some with a break: what the solver finds within a gap of 1 %, against
 *  each need taking what is cheapest for itself. */
async function splitFigures(): Promise<Figure[]> {
  const random = seeded(11);
  const suppliers = [0, 15_000, 30_000, 20_000].map((minimum, id) => ({
    ...{ id, minimum, perOrder: 1_500, freight: 1_800 + 400 * id, freeFrom: 60_000 + 10_000 * id, already: 0 },
  }));
  const needs = Array.from({ length: 40 }, (_, i) => {
    const price = 300 + 4_000 * random();
    const sold = suppliers.filter((s) => s.id === i % 4 || random() < 0.7);
    const options = sold.flatMap(({ id: supplier }) => {
      const goods = Math.round(price * (0.85 + 0.3 * random()));
      const least = { key: `${i}/${supplier}/1`, supplier, goods, more: Math.round(goods * 0.03), byWeight: 0 };
      const larger = Math.round(goods * 1.35);
      return random() < 0.4
        ? [least, { ...least, key: `${i}/${supplier}/2`, goods: larger, more: Math.round(larger * 0.03) }]
        : [least];
    });
    return { key: String(i), options: options.sort((a, b) => a.goods + a.more - b.goods - b.more) };
  });
  const problem: SplitProblem = { needs, suppliers };
  const started = performance.now();
  const { first, found } = await solveSplit(problem, mipSolver, { seconds: 60, gap: 0.01 });
  const ms = performance.now() - started;
  if (found.kind !== 'found' || found.gap > 0.01) throw new Error('nothing was found within the gap');
  const greedy = await times(15, async () => splitCost(problem, firstChoices(problem)));
  return [
    figure(
      `split: 40 needs × 4 suppliers to a gap of ${(found.gap * 100).toFixed(2)} %, goal of the value; baseline: each need's own cheapest`,
      ms,
      'ms',
      greedy,
      10_000,
    ),
    figure(
      `split: what it costs; baseline: each need's own cheapest (${first.cost.below.length} below their minimum)`,
      found.cost.total / 100,
      'EUR',
      first.cost.total / 100,
      1,
    ),
  ];
}

/** What holding costs when a tray is filled with what is needed next. */
function firstNeeded(missing: number, candidates: readonly EarlyBuy[], rate: number): number {
  let [amount, holding] = [0, 0];
  for (const c of [...candidates].sort((a, b) => a.neededInDays - b.neededInDays))
    for (let n = 0; n < c.mostPacks && amount < missing; n += 1) {
      amount += c.packAmount;
      holding += (c.packAmount * rate * (c.neededInDays + n * c.packLastsDays)) / 365;
    }
  return holding;
}
