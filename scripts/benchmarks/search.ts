import { readSnapshot } from '@/data/transaction';
import { searchItems } from '@/services/catalogue/itemIndex';
import { type Figure, quantile } from './figure';
import { ITEMS, largeBooks } from './largeBooks';

/** What people type: words, beginnings, numbers, words with a slip, nothing that there is. */
const typed = [
  'fen merino',
  'meirno',
  'sock',
  'thread shade 1',
  '10412',
  'ribbon navy',
  'intrefacing',
  'pins 43',
  'zip',
  'qqqqqq',
];
const ROUNDS = 8;

/** Search as one types over the whole catalogue, index in memory and its stamp read each time: 95th percentile of eighty.
 *  Baseline: a SELECT of the items whose name holds the first word, which forgives nothing. The goal of 100 ms is one of the
 *  value. */
export async function searchBench(): Promise<Figure[]> {
  const { pool } = await largeBooks();
  const timed = async (body: (text: string) => Promise<unknown>): Promise<number> => {
    const times: number[] = [];
    for (let n = 0; n < ROUNDS; n += 1)
      for (const text of typed) {
        const started = performance.now();
        await body(text);
        times.push(performance.now() - started);
      }
    return Number(quantile(times, 0.95).toFixed(1));
  };
  const search = (text: string) => readSnapshot(pool, (tx) => searchItems(tx, text));
  await search('fen');
  const value = await timed(search);
  const baseline = await timed((text) =>
    readSnapshot(pool, (tx) =>
      tx.rows('SELECT id FROM item WHERE LOCATE(:word, name) > 0 ORDER BY name', {
        word: text.split(' ')[0] as string,
      }),
    ),
  );
  return [
    {
      name: `search: ${ITEMS} items, as one types; baseline: SELECT of one word; goal of the value`,
      ...{ value, unit: 'ms', baseline, ratio: Number((value / baseline).toFixed(2)), goal: 100 },
    },
  ];
}
