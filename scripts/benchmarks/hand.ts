import { prepareDemo, withDemoPage } from './demoPage';
import { type Figure, quantile } from './figure';
import { type HandFigures, openAndPlan, sellOut, typeAll } from './handScript';

const DELAY_MS = 150;

/** Two hundred needs typed at 8 keys a second in a real browser, on a fresh copy of the demo whose stock is sold out. */
const run = (delayMs: number): Promise<HandFigures> =>
  withDemoPage('hand', async (page, pool) => {
    const [stock] = await pool.query(
      `SELECT item_id AS itemId, location_id AS locationId, on_hand AS onHand FROM level l
         JOIN location p ON p.id = l.location_id WHERE p.kind <> 'transit'`,
    );
    await sellOut(page, stock as unknown as Parameters<typeof sellOut>[1]);
    return typeAll(page, await openAndPlan(page, delayMs));
  });

/** From Enter to the focus on the next row, 95th percentile, and the longest task of the page, while every answer of the
 *  server takes 150 ms longer; baseline: the same without that. The goals are of the values. */
export async function handBench(): Promise<Figure[]> {
  await prepareDemo();
  const undelayed = await run(0);
  const delayed = await run(DELAY_MS);
  const p95 = (f: HandFigures) =>
    quantile(
      f.focus.map((x) => x.ms),
      0.95,
    );
  const figure = (name: string, value: number, baseline: number, goal: number): Figure => ({
    name: `hand: ${name} with ${DELAY_MS} ms of delay, goal of the value; baseline: without`,
    value: Math.round(value),
    unit: 'ms',
    baseline: Math.round(baseline),
    ratio: Number((value / Math.max(1, baseline)).toFixed(2)),
    goal,
  });
  return [
    figure('Enter to focus on the next row, 95th percentile,', p95(delayed), p95(undelayed), 50),
    figure('longest task', delayed.longestTaskMs, undelayed.longestTaskMs, 200),
  ];
}
