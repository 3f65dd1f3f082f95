import { randomBytes } from 'node:crypto';
import Papa from 'papaparse';
import { actorOfUser } from '@/services/people/session';
import { readTillAssortment } from '@/services/stock/readTillAssortment';
import { takeTillDay } from '@/services/stock/takeTillDay';
import type { Handler } from './handler';

const PATIENCE_MS = 60_000;

/** Fetches what the tills sold over a span of days (VORRAT_TILL_URL) and takes it, a sale for each day of a place. What was
 *  taken before is left as it is, so that a crash or a second time does no harm.
 *  Errors: throws when it can't be fetched or a day is refused; the job says so and is tried again. */
export const takeSales: Handler = async (deps, { input, resumeAt, step }) => {
  const url = process.env.VORRAT_TILL_URL ?? '';
  if (url === '') throw new Error('no till is named (VORRAT_TILL_URL)');
  const { userId, from, to } = input as { userId: number; from: string; to: string };
  await step({ done: 0, total: null, resumeAt });
  const actor = await actorOfUser(deps, userId);
  if (!actor) throw new Error(`nobody has the id ${userId}`);
  const told = await readTillAssortment(deps, actor);
  if (!told.ok) throw new Error(`tills may not be taken: ${told.error.kind}`);
  const response = await fetch(url, {
    method: 'POST',
    headers: { 'content-type': 'application/json' },
    body: JSON.stringify({ from, to, assortment: told.value }),
    signal: AbortSignal.timeout(PATIENCE_MS),
  });
  if (!response.ok) throw new Error(`the tills answer ${response.status}`);
  const days = daysOf(await response.text());
  const begin = (resumeAt as { done: number } | null)?.done ?? 0;
  for (const [n, day] of days.entries()) {
    if (n < begin) continue;
    await step({ done: n, total: days.length, resumeAt: { done: n } });
    // A day is taken once whatever its key: what a till says of it later may differ.
    const taken = await takeTillDay(deps, actor, { key: randomBytes(15).toString('base64url'), input: day });
    if (!taken.ok && taken.error.kind === 'forbidden') continue;
    if (!taken.ok) throw new Error(`${day.place} ${day.day} was refused: ${taken.error.kind}`);
  }
  await step({ done: days.length, total: days.length, resumeAt: { done: days.length } });
};

/** Days of places in a file of sales, in order of days. */
function daysOf(csv: string) {
  const { data } = Papa.parse<Record<string, string>>(csv, { header: true, skipEmptyLines: true });
  const days = new Map<
    string,
    { place: string; day: string; rows: { row: number; code: string; quantity: string }[] }
  >();
  for (const [i, { Place = '', Day = '', Item = '', Quantity = '' }] of data.entries()) {
    const key = `${Day} ${Place}`;
    const own = days.get(key) ?? { place: Place, day: Day, rows: [] };
    own.rows.push({ row: i + 2, code: Item, quantity: Quantity });
    days.set(key, own);
  }
  return [...days].sort(([a], [b]) => (a < b ? -1 : 1)).map(([, day]) => day);
}
