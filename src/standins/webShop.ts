import { type Answering, daysOf, startAnswering } from './answering';
import { chanceOf, poisson } from './chance';

/** What a web shop is told that it sells. */
export type Offered = { readonly item: string; readonly decimals: number };

/** An order as a web shop writes it. */
export type WebOrder = {
  readonly number: string;
  readonly name: string;
  readonly mail: string;
  readonly address: string;
  readonly lines: readonly { readonly item: string; readonly quantity: string }[];
};

/** Orders of a usual day. */
const A_DAY = 1.5;
const FIRST = ['Ada', 'Bo', 'Cleo', 'Dag', 'Esme', 'Finn', 'Greta', 'Hob', 'Ines', 'Jory'] as const;
const LAST = [
  'Alderwick',
  'Brandyhurst',
  'Corrowby',
  'Dunmoss',
  'Elverham',
  'Fenlow',
  'Gorsely',
  'Hartwell-Oor',
] as const;
const STREETS = ['Tallow Lane', 'Spindle Row', 'Weir Steps', 'Carder’s Yard'] as const;

const one = <T>(of: readonly T[], words: string): T => of[Math.floor(chanceOf(words) * of.length)] as T;

/** What was ordered on a day: made up, and the same whenever it is asked for. One to three things, one to four of each. */
export function webOrders(offered: readonly Offered[], day: string): WebOrder[] {
  if (offered.length === 0) return [];
  return Array.from({ length: poisson(A_DAY, `web/${day}`) }, (_, n) => {
    const key = `web/${day}/${n}`;
    const [first, last] = [one(FIRST, `${key}/first`), one(LAST, `${key}/last`)];
    const items = new Map<string, string>();
    for (let l = 0; l < 1 + Math.floor(chanceOf(`${key}/lines`) * 3); l += 1) {
      const { item, decimals } = one(offered, `${key}/${l}/item`);
      const quantity = 1 + Math.floor(chanceOf(`${key}/${l}/size`) * 4);
      items.set(item, (decimals === 0 ? quantity : quantity * 0.5).toFixed(Math.min(1, decimals)));
    }
    return {
      number: `W-${day.replaceAll('-', '').slice(2)}-${n + 1}`,
      name: `${first} ${last}`,
      mail: `${first}.${last}@${last}.example`.toLowerCase(),
      address: `${1 + Math.floor(chanceOf(`${key}/house`) * 40)} ${one(STREETS, `${key}/street`)}`,
      lines: [...items].map(([item, quantity]) => ({ item, quantity })),
    };
  });
}

/** A stand-in for the web shop: told what is offered, it answers with the orders of a span of days as JSON.
 *  POST { from, to, offered }. */
export const startWebShop = (port: number): Promise<Answering> =>
  startAnswering(port, '/orders', 'application/json', (body) => {
    const asked = JSON.parse(body) as { from: string; to: string; offered: Offered[] };
    return JSON.stringify(daysOf(asked).flatMap((day) => webOrders(asked.offered, day)));
  });
