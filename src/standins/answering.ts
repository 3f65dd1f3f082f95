import { createServer } from 'node:http';

export type Answering = { readonly url: string; readonly close: () => Promise<void> };

const DAY_MS = 86_400_000;
const MOST_BYTES = 60_000_000;

/** Every day of a span. */
export function daysOf({ from, to }: { readonly from: string; readonly to: string }): string[] {
  const days: string[] = [];
  const last = Date.parse(`${to}T00:00:00Z`);
  for (let at = Date.parse(`${from}T00:00:00Z`); at <= last; at += DAY_MS)
    days.push(new Date(at).toISOString().slice(0, 10));
  return days;
}

/** A small outside party that answers what is sent to one path by POST; what it can't read it answers with 400. Resolves with
 *  its address and what ends it. */
export function startAnswering(
  port: number,
  path: string,
  type: string,
  answer: (body: string) => string,
): Promise<Answering> {
  const server = createServer((request, response) => {
    if (request.url !== path || request.method !== 'POST') {
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
        const text = answer(Buffer.concat(parts).toString('utf8'));
        response.writeHead(200, { 'content-type': type }).end(text);
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
        url: `http://127.0.0.1:${at}${path}`,
        close: () => new Promise((closed) => server.close(() => closed())),
      });
    });
  });
}
