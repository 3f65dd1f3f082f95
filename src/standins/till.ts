import { createServer } from 'node:http';

/** What a till is told that it sells: item number, to how many decimals, and what a usual day of it is. */
export type Assorted = {
  readonly place: string;
  readonly item: string;
  readonly decimals: number;
  readonly perDay: number;
};

const DAY_MS = 86_400_000;
const MOST_BYTES = 60_000_000;

/** A number from 0 to 1 that is always the same for the same words (FNV-1a, then a mix). */
function chanceOf(words: string): number {
  let h = 2_166_136_261;
  for (let i = 0; i < words.length; i += 1) h = Math.imul(h ^ words.charCodeAt(i), 16_777_619);
  h = Math.imul(h ^ (h >>> 16), 2_246_822_507);
  h = Math.imul(h ^ (h >>> 13), 3_266_489_909);
  return ((h ^ (h >>> 16)) >>> 0) / 4_294_967_296;
}

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

function poisson(mean: number, key: string): number {
  if (mean <= 0) return 0;
  // Far out a sum of smaller ones keeps the product above zero.
  if (mean > 30) return poisson(mean / 2, `${key}/a`) + poisson(mean / 2, `${key}/b`);
  const limit = Math.exp(-mean);
  let product = 1;
  for (let n = 0; ; n += 1) {
    product *= chanceOf(`${key}/${n}/customer`);
    if (product <= limit) return n;
  }
}

/** A stand-in for the tills of the shops: told what is sold, it answers with the sales of a span of days as CSV.
 *  POST { from, to, assortment }. Resolves with its address and what ends it. */
export function startTill(port: number): Promise<{ url: string; close: () => Promise<void> }> {
  const server = createServer((request, response) => {
    if (request.url !== '/sales' || request.method !== 'POST') {
      response.writeHead(404).end();
      return;
    }
    const parts: Buffer[] = [];
    let bytes = 0;
    request.on('data', (part: Buffer) => {
      bytes += part.length;
      if (bytes > MOST_BYTES) request.destroy();
      else parts.push(part);
    });
    request.on('end', () => {
      try {
        const asked = JSON.parse(Buffer.concat(parts).toString('utf8')) as {
          from: string;
          to: string;
          assortment: Assorted[];
        };
        const rows = ['Place,Day,Item,Quantity'];
        const last = Date.parse(`${asked.to}T00:00:00Z`);
        for (let at = Date.parse(`${asked.from}T00:00:00Z`); at <= last; at += DAY_MS)
          rows.push(...tillRows(asked.assortment, new Date(at).toISOString().slice(0, 10)));
        response.writeHead(200, { 'content-type': 'text/csv; charset=utf-8' });
        response.end(`${rows.join('\r\n')}\r\n`);
      } catch {
        response.writeHead(400).end();
      }
    });
  });
  return new Promise((resolve, reject) => {
    server.once('error', reject);
    server.listen(port, '127.0.0.1', () => {
      const address = server.address();
      const at = typeof address === 'object' && address ? address.port : port;
      resolve({
        url: `http://127.0.0.1:${at}/sales`,
        close: () => new Promise((closed) => server.close(() => closed())),
      });
    });
  });
}
