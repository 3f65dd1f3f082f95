import { createServer } from 'node:http';

/** What one euro was in other currencies when the made-up file began, with how far it strays. Invented figures. */
const begin: readonly (readonly [code: string, rate: number, decimals: number])[] = [
  ['USD', 1.0842, 4],
  ['GBP', 0.8571, 4],
  ['JPY', 161.3, 2],
  ['CHF', 0.9418, 4],
];

const DAY_MS = 86_400_000;

/** Rates of the working days up to a date, as such a file has them: currency, day, rate for one euro. Made up, the same for
 *  the same day. */
export function rateFile(today: string, days: number): string {
  const rows = ['Currency,Valid from,Quoted as,Rate,Source'];
  for (let back = days - 1; back >= 0; back -= 1) {
    const at = Date.parse(`${today}T00:00:00Z`) - back * DAY_MS;
    const day = new Date(at);
    if (day.getUTCDay() === 0 || day.getUTCDay() === 6) continue;
    const n = at / DAY_MS;
    for (const [i, [code, rate, decimals]] of begin.entries()) {
      const stray = 1 + 0.012 * Math.sin(n / 23 + i) + 0.004 * Math.sin(n / 5 + 2 * i);
      rows.push(
        `${code},${day.toISOString().slice(0, 10)},for one of ours,${(rate * stray).toFixed(decimals)},rate file`,
      );
    }
  }
  return `${rows.join('\r\n')}\r\n`;
}

/** A stand-in for whoever publishes exchange rates: serves its file on loopback. Resolves with its address and what ends it. */
export function startRateFile(port: number, clock: () => Date): Promise<{ url: string; close: () => Promise<void> }> {
  const server = createServer((request, response) => {
    if (request.url !== '/rates.csv') {
      response.writeHead(404).end();
      return;
    }
    response.writeHead(200, { 'content-type': 'text/csv; charset=utf-8' });
    response.end(rateFile(clock().toISOString().slice(0, 10), 10));
  });
  return new Promise((resolve, reject) => {
    server.once('error', reject);
    server.listen(port, '127.0.0.1', () => {
      const address = server.address();
      const at = typeof address === 'object' && address ? address.port : port;
      resolve({
        url: `http://127.0.0.1:${at}/rates.csv`,
        close: () => new Promise((closed) => server.close(() => closed())),
      });
    });
  });
}
