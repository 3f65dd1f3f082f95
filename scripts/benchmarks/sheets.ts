import { spawnSync } from 'node:child_process';
import { join } from 'node:path';
import type { Figure } from './figure';
import { ITEMS } from './largeBooks';

type Run = {
  readonly rows: number;
  readonly stage: number;
  readonly apply: number;
  readonly total: number;
  readonly load: number;
  readonly megabytes: number;
};

/** One run in a process of its own, so that its peak memory is its own. */
function runOf(rows: number): Run {
  const child = spawnSync(process.execPath, ['--import', 'tsx', join(__dirname, 'sheetsChild.ts'), String(rows)], {
    encoding: 'utf8',
    env: process.env,
  });
  const line = child.stdout.trim().split('\n').at(-1) ?? '';
  if (child.status !== 0 || !line.startsWith('{')) throw new Error(`sheets of ${rows} rows: ${child.stderr}`);
  return JSON.parse(line) as Run;
}

/** Bringing items from a CSV file: staging, checking and writing, without the person's pause; baseline: LOAD DATA of the
 *  same rows into the same indexed table. And the peak memory at twice as many rows; baseline: at a fifth. */
export async function sheetsBench(): Promise<Figure[]> {
  const rows = ITEMS * 2;
  const [few, middle, many] = [runOf(rows / 5), runOf(rows), runOf(rows * 2)];
  const round = Math.round;
  return [
    {
      name: `sheets: ${rows} items staged and checked (${round(middle.stage)} ms), written (${round(middle.apply)} ms); baseline: LOAD DATA`,
      value: round(middle.total),
      unit: 'ms',
      baseline: round(middle.load),
      ratio: Number((middle.total / middle.load).toFixed(2)),
      goal: 6,
    },
    {
      name: `sheets: peak memory at ${many.rows} rows; baseline: at ${few.rows}`,
      value: many.megabytes,
      unit: 'MB',
      baseline: few.megabytes,
      ratio: Number((many.megabytes / few.megabytes).toFixed(2)),
      goal: 1.2,
    },
  ];
}
