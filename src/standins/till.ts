import { type Answering, daysOf, startAnswering } from './answering';
import { chanceOf, poisson } from './chance';

/** What a till is told that it sells: item number, to how many decimals, and what a usual day of it is. */
export type Assorted = {
  readonly place: string;
  readonly item: string;
  readonly decimals: number;
  readonly perDay: number;
};

/** How busy a day of the week is, Monday first; shops are closed on Sundays. */
const BUSY = [0.7, 0.8, 0.9, 1, 1.2, 1.4, 0];

/** What was rung up on a day, as a till writes it: place, day, item, quantity. Made up, the same whenever it is asked for.
 *  Customers come one by one; most take one or two of a thing. */
export function tillRows(assortment: readonly Assorted[], day: string): string[] {
  const busy = BUSY[(new Date(`${day}T00:00:00Z`).getUTCDay() + 6) % 7] as number;
  return assortment.flatMap(({ place, item, decimals, perDay }) => {
    const mean = perDay * busy * (7 / 6);
    const key = `${place}/${item}/${day}`;
    // Customers of the day by Knuth's product of uniform chances (Poisson), each with a quantity of 1 + a geometric rest.
    const customers = poisson(mean / 1.5, key);
    let sold = 0;
    for (let n = 0; n < customers; n += 1) {
      const size = 1 + (chanceOf(`${key}/${n}/size`) < 1 / 3 ? 1 + Math.floor(2 * chanceOf(`${key}/${n}/more`)) : 0);
      sold += decimals === 0 ? size : size * (0.5 + chanceOf(`${key}/${n}/cut`));
    }
    const quantity = sold.toFixed(decimals);
    return Number(quantity) > 0 ? [`${place},${day},${item},${quantity}`] : [];
  });
}

/** A stand-in for the tills of the shops: told what is sold, it answers with the sales of a span of days as CSV.
 *  POST { from, to, assortment }. */
export const startTill = (port: number): Promise<Answering> =>
  startAnswering(port, '/sales', 'text/csv; charset=utf-8', (body) => {
    const asked = JSON.parse(body) as { from: string; to: string; assortment: Assorted[] };
    const rows = ['Place,Day,Item,Quantity'];
    for (const day of daysOf(asked)) rows.push(...tillRows(asked.assortment, day));
    return `${rows.join('\r\n')}\r\n`;
  });
