import { randomBytes } from 'node:crypto';
import { existsSync } from 'node:fs';
import { join } from 'node:path';
import {
  build,
  endServer,
  noteStart,
  refuseSecondStart,
  serve,
  startStandins,
  startWorker,
} from './lib/application.mjs';
import { bootstrap } from './lib/bootstrap.mjs';
import { Database, isFree } from './lib/database.mjs';
import { dataFolder, main, runTs, Stop, say } from './lib/say.mjs';

/** Whether TLS is wanted. Errors: Stop when only one of the two files is named or one can't be read. */
function tlsFiles() {
  const names = ['VORRAT_TLS_CERT', 'VORRAT_TLS_KEY'];
  const named = names.filter((n) => process.env[n]);
  if (named.length === 1) throw new Stop(`For TLS both ${names.join(' and ')} have to name a file.`);
  for (const n of named) if (!existsSync(process.env[n])) throw new Stop(`${n}=${process.env[n]} is not there.`);
  return named.length === 2;
}

/** Starts Vorrat, with its demo data or, by --own, with a company of one's own in a data folder apart: database, migrations, data if empty, build if stale, stand-ins, worker, server. Ctrl-C
 *  stops all of it. VORRAT_SMTP_URL names a mail server to take the place of the mailbox stand-in.
 *  --reset makes fresh demo data; --dev is the development server. VORRAT_PORT, VORRAT_HOST, VORRAT_DATA (folder),
 *  VORRAT_TLS_CERT and VORRAT_TLS_KEY (files). */
async function demo() {
  const dev = process.argv.includes('--dev');
  const own = process.argv.includes('--own');
  const command = own ? 'npm start' : dev ? 'npm run dev' : 'npm run demo';
  const port = Number(process.env.VORRAT_PORT ?? 3000);
  const host = process.env.VORRAT_HOST ?? '127.0.0.1';
  if (!Number.isInteger(port) || port < 1 || port > 65535)
    throw new Stop(`VORRAT_PORT=${process.env.VORRAT_PORT} is not a port number.`);
  const folder = dataFolder(own ? 'own' : 'demo');
  const note = join(folder, 'start.json');
  refuseSecondStart(note);
  const tls = tlsFiles();
  if (!(await isFree(port)))
    throw new Stop(`Port ${port} is taken by another program. Choose another: VORRAT_PORT=${port + 1} ${command}`);

  await bootstrap(['database']);
  const database = new Database(folder);
  say('Starting the database');
  await database.start();
  noteStart(note, port);

  let server = null;
  const beside = [];
  /** Starts the worker, and again when it dies: nobody waits for it, so nobody would notice. */
  const keepWorker = async (env) => {
    const worker = await startWorker({ env });
    beside.push(worker);
    worker.once('exit', () => {
      beside.splice(beside.indexOf(worker), 1);
      if (!stopping) setTimeout(() => stopping || keepWorker(env).catch((e) => console.error(e.message)), 1000).unref();
    });
  };
  let stopping = null;
  const stop = () => {
    stopping ??= (async () => {
      say('\nStopping');
      if (server) await endServer(server);
      for (const child of [...beside]) await endServer(child);
      await database.stop();
    })();
    return stopping;
  };
  for (const signal of ['SIGINT', 'SIGTERM', 'SIGHUP'])
    process.on(signal, () => void stop().then(() => process.exit(0)));

  try {
    const env = database.env();
    const prepared = await runTs(
      'scripts/prepare.ts',
      process.argv.slice(2).filter((a) => a === (own ? '--own' : '--reset')),
      { env },
    );
    if (prepared.code !== 0) throw new Stop('The database could not be brought up to date; see above.');
    if (!dev) await build();
    // The server gets only what it needs: not the owner's account.
    const { VORRAT_DB_OWNER: _, VORRAT_DB_OWNER_PASSWORD: __, ...application } = env;
    let outside = {};
    if (!own) {
      const standins = await startStandins(join(folder, 'mailbox'), { env: {} });
      beside.push(standins.child);
      // A mail server, a rate file, tills or a web shop of one's own takes the place of the stand-in.
      const { VORRAT_RATES_URL, VORRAT_TILL_URL, VORRAT_WEB_SHOP_URL, ...mail } = standins.env;
      if (!process.env.VORRAT_SMTP_URL) outside = { ...mail };
      if (!process.env.VORRAT_RATES_URL) outside.VORRAT_RATES_URL = VORRAT_RATES_URL;
      if (!process.env.VORRAT_TILL_URL) outside.VORRAT_TILL_URL = VORRAT_TILL_URL;
      if (!process.env.VORRAT_WEB_SHOP_URL) outside.VORRAT_WEB_SHOP_URL = VORRAT_WEB_SHOP_URL;
    }
    // Whoever sets the company up has seen this window.
    const code = randomBytes(12).toString('base64url');
    if (own) outside.VORRAT_SETUP_CODE = code;
    await keepWorker({ ...application, ...outside });
    server = await serve({ port, host, env: { ...application, ...outside }, dev });
    const address = `${tls ? 'https' : 'http'}://${host === '0.0.0.0' ? 'localhost' : host}:${port}`;
    if (own)
      say(
        `\nVorrat is at ${address}\n\nTo set up a new company open ${address}/welcome?code=${code}\n\nCtrl-C stops it.`,
      );
    else
      say(`
Vorrat is at ${address}

  Name    Password   What they do
  mira    quillon    buyer, approves up to 2,500.00
  otto    quillon    owner, approves everything
  jun     quillon    shop staff of Market Hall, books goods in
  edda    quillon    bookkeeper, reads

Ctrl-C stops it.`);
    await new Promise((resolve) => server.once('exit', resolve));
    if (!stopping) say('The server has ended.');
    await stop();
    return stopping ? 0 : 1;
  } catch (e) {
    await stop();
    throw e;
  }
}

main(demo).then(() => process.exit());
