import { join } from 'node:path';
import { businessDate } from '@/core/calendar';
import { ok } from '@/core/result';
import { migrate } from '@/data/migrate';
import { openPool, settingsFromEnvironment } from '@/data/pool';
import { readNeedInputs } from '@/data/repositories/needInputs';
import { readSnapshot, write } from '@/data/transaction';
import { fullNeedRun } from '@/services/planning/recompute';
import { writeCatalogue } from '../demoData/catalogue';
import { seeded } from '../demoData/random';
import type { Figure } from './figure';

const ITEMS = Number(process.env.VORRAT_BENCH_ITEMS ?? 50_000);
const LOCATIONS = 15;
const RUNS = 5;

const median = (values: readonly number[]) =>
  [...values].sort((a, b) => a - b)[Math.floor(values.length / 2)] as number;

/** The most memory the process has held so far. */
const megabytes = () => Math.round(process.resourceUsage().maxRSS / 1024);

async function timed(body: () => Promise<unknown>): Promise<number> {
  const started = performance.now();
  await body();
  return performance.now() - started;
}

/** A full need run over 50,000 items × 15 locations, writing included, with 1 % of the pairs changed before each run;
 *  baseline: reading its inputs (the same SELECTs by the same reader into the same arrays). Medians of five. And the peak
 *  memory of the process; baseline: what it held before the first run. */
export async function needRunBench(): Promise<Figure[]> {
  const env = process.env;
  const owner = {
    ...settingsFromEnvironment(env),
    user: env.VORRAT_DB_OWNER ?? '',
    password: env.VORRAT_DB_OWNER_PASSWORD ?? '',
    database: 'vorrat_bench',
  };
  const server = openPool({ ...owner, database: '' }, 1);
  await server.query('CREATE DATABASE vorrat_bench CHARACTER SET utf8mb4');
  await server.end();
  const pool = openPool(owner, 2);
  await migrate(pool, join(__dirname, '..', '..', 'src', 'data', 'migrations'));
  const now = new Date('2026-11-23T09:00:00Z');
  const today = businessDate(now, 'Europe/Berlin');
  const random = seeded(1);
  await write(pool, async (tx) => {
    const placed = await writeCatalogue(tx, today, ITEMS, LOCATIONS);
    // Levels only, without movements: this measures the need run, not the ledger.
    await tx.insertMany(
      'INSERT INTO level (item_id, location_id, on_hand, value_minor)',
      placed.map((p) => [p.itemId, p.locationId, Math.round((p.min + (p.max - p.min) * random()) / 1e6), 1]),
      '',
      2000,
    );
    return ok(undefined);
  });
  const deps = { pool, clock: () => now };
  const before = megabytes();
  await fullNeedRun(deps);
  const read = () => readSnapshot(pool, (tx) => readNeedInputs(tx, null, today));
  await read();
  const [reading, total]: [number[], number[]] = [[], []];
  let pairs = 0;
  let changed = 0;
  for (let run = 0; run < RUNS; run += 1) {
    // 1 % of the pairs: every hundredth item at every place sells out.
    await pool.query('UPDATE level SET on_hand = on_hand - 7 WHERE item_id % 100 = ?', [run + 1]);
    reading.push(await timed(read));
    total.push(
      await timed(async () => {
        ({ pairs, changed } = await fullNeedRun(deps));
      }),
    );
  }
  await pool.end();
  const [value, baseline, peak] = [median(total), median(reading), megabytes()];
  return [
    {
      name: `need-run: ${pairs} pairs, ${changed} changed and written; baseline: reading its inputs`,
      value: Math.round(value),
      unit: 'ms',
      baseline: Math.round(baseline),
      ratio: Number((value / baseline).toFixed(2)),
      goal: 1.5,
    },
    {
      name: `need-run: peak memory for ${pairs} pairs; baseline: before the first run`,
      value: peak,
      unit: 'MB',
      baseline: before,
      ratio: Number((peak / before).toFixed(2)),
      goal: 4,
    },
  ];
}
