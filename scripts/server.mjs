import { readFileSync } from 'node:fs';
import { createServer } from 'node:http';
import { createServer as createTlsServer } from 'node:https';
import next from 'next';
import { root } from './lib/say.mjs';

/** The application's server: Next behind our own listener, which speaks TLS when VORRAT_TLS_CERT and VORRAT_TLS_KEY name
 *  files, and tells the application the true address of a client (a header of the client's own is overwritten, unless
 *  VORRAT_TRUST_PROXY says that a proxy in front sets it). Arguments: port, host, "dev" or "start".
 *  It says "ready" to its start command and ends with it, also when that one is killed. */
const [port, host, mode] = [Number(process.argv[2]), process.argv[3], process.argv[4]];
const { VORRAT_TLS_CERT: cert, VORRAT_TLS_KEY: key, VORRAT_TRUST_PROXY: behindProxy } = process.env;

const server = cert ? createTlsServer({ cert: readFileSync(cert), key: readFileSync(key) }) : createServer();
const app = next({ dev: mode === 'dev', dir: root, hostname: host, port, httpServer: server });
await app.prepare();
const handle = app.getRequestHandler();
server.on('request', (request, response) => {
  if (!behindProxy) request.headers['x-forwarded-for'] = request.socket.remoteAddress ?? '';
  handle(request, response);
});
server.on('error', (e) => {
  console.error(e.message);
  process.exit(1);
});
server.listen(port, host, () => process.send?.('ready'));

let ending = false;
/** Answers what is under way, then ends; what takes longer than three seconds is cut off. */
function end() {
  if (ending) return;
  ending = true;
  setTimeout(() => process.exit(0), 3000).unref();
  server.close(() => process.exit(0));
  server.closeIdleConnections();
}
process.on('SIGTERM', end);
process.on('SIGINT', end);
process.on('disconnect', end);
