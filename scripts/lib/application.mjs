import { spawn } from 'node:child_process';
import { existsSync, mkdirSync, readFileSync, writeFileSync } from 'node:fs';
import { join } from 'node:path';
import { setTimeout as pause } from 'node:timers/promises';
import { digestOf } from './digest.mjs';
import { root, run, Stop, say } from './say.mjs';

const next = join(root, 'node_modules', 'next', 'dist', 'bin', 'next');

/** What the production build depends on. */
const sources = ['package-lock.json', 'next.config.ts', 'tsconfig.json', 'postcss.config.mjs', 'src'];

/** Makes the production build when the sources have changed since the last one. */
export async function build() {
  const stamp = join(root, '.next', 'vorrat-sources');
  const digest = digestOf(sources);
  if (existsSync(stamp) && readFileSync(stamp, 'utf8') === digest) return;
  say('Building (about half a minute)');
  const { code, out } = await run(process.execPath, [next, 'build'], { quiet: true });
  if (code !== 0) throw new Stop(`The build failed:\n${out.slice(-4000)}`);
  mkdirSync(join(root, '.next'), { recursive: true });
  writeFileSync(stamp, digest);
}

/** Starts a program of ours beside the server; resolves with its process and its first message once it says that it is
 *  there. It ends by itself when this process goes. */
export async function startBeside(file, args, { env, output = 'inherit' }) {
  const child = spawn(process.execPath, ['--import', 'tsx', join(root, file), ...args], {
    cwd: root,
    env: { ...process.env, NODE_ENV: 'production', ...env },
    stdio: ['ignore', 'ignore', output, 'ipc'],
    detached: true,
  });
  const started = new Promise((resolve) => {
    child.once('message', resolve);
    child.once('exit', () => resolve(null));
  });
  const message = await Promise.race([started, pause(30_000, null, { ref: false })]);
  if (message === null) {
    child.kill('SIGKILL');
    throw new Stop(`${file} did not start.`);
  }
  return { child, message };
}

/** The worker in the background. */
export const startWorker = async (options) => (await startBeside('src/jobs/main.ts', [], options)).child;

/** The stand-ins of the demo: a mailbox that keeps its mail in a folder. Gives the environment that points to them. */
export async function startStandins(folder, options) {
  const { child, message } = await startBeside('src/standins/main.ts', [folder, '0'], options);
  return {
    child,
    env: {
      VORRAT_SMTP_URL: `smtp://127.0.0.1:${message.mailbox}`,
      VORRAT_MAILBOX: folder,
      VORRAT_RATES_URL: message.rates,
      VORRAT_TILL_URL: message.till,
      VORRAT_WEB_SHOP_URL: message.webShop,
    },
  };
}

/** Starts the server; resolves with its process once it answers. It ends by itself when this process goes. */
export async function serve({ port, env, dev = false, host = '127.0.0.1', output = 'inherit' }) {
  const child = spawn(
    process.execPath,
    [join(root, 'scripts', 'server.mjs'), String(port), host, dev ? 'dev' : 'start'],
    {
      cwd: root,
      env: { ...process.env, NEXT_TELEMETRY_DISABLED: '1', NODE_ENV: dev ? 'development' : 'production', ...env },
      stdio: ['ignore', output === 'inherit' && dev ? 'inherit' : 'ignore', output, 'ipc'],
      // Its own group: Ctrl-C reaches the start command first, which then stops server and database in order.
      detached: true,
    },
  );
  const started = new Promise((resolve) => {
    child.once('message', () => resolve('ready'));
    child.once('exit', () => resolve('ended'));
  });
  const outcome = await Promise.race([started, pause(60_000, 'late', { ref: false })]);
  if (outcome === 'ended') throw new Stop('The server ended while starting.');
  if (outcome === 'late') {
    child.kill('SIGKILL');
    throw new Stop('The server did not answer within a minute.');
  }
  return child;
}

/** Notes which start command works on a data folder, for the next one. */
export const noteStart = (file, port) => writeFileSync(file, JSON.stringify({ starter: process.pid, port }));

/** Errors: Stop while another start command runs on the same data. */
export function refuseSecondStart(file) {
  if (!existsSync(file)) return;
  const { starter, port } = JSON.parse(readFileSync(file, 'utf8'));
  try {
    if (!readFileSync(`/proc/${starter}/cmdline`, 'utf8').includes('demo.mjs')) return;
  } catch {
    return;
  }
  throw new Stop(`Vorrat already runs on this data, at port ${port}; stop that one first (Ctrl-C there).`);
}

/** Ends a server and waits for it. */
export async function endServer(child, signal = 'SIGTERM') {
  if (child.exitCode !== null || child.signalCode !== null) return;
  const gone = new Promise((resolve) => child.once('exit', resolve));
  try {
    process.kill(-child.pid, signal);
  } catch {
    child.kill(signal);
  }
  await Promise.race([gone, pause(5000).then(() => child.kill('SIGKILL'))]);
}
