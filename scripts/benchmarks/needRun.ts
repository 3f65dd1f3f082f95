import { readNeedInputs } from '@/data/repositories/needInputs';
import { readSnapshot } from '@/data/transaction';
import { fullNeedRun } from '@/services/planning/recompute';
import { type Figure, median } from './figure';
import { largeBooks, now, today } from './largeBooks';

const RUNS = 5;

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
  const { pool } = await largeBooks();
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
