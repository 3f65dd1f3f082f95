import { spawn } from 'node:child_process';
import { dirname, join, resolve } from 'node:path';
import { fileURLToPath } from 'node:url';

/** The checkout. */
export const root = join(dirname(fileURLToPath(import.meta.url)), '..', '..');

/** Where the data of the running company is: VORRAT_DATA, or a folder of the checkout; the demo's and one's own apart. */
export const dataFolder = (name = 'demo') =>
  process.env.VORRAT_DATA ? resolve(process.env.VORRAT_DATA) : join(root, '.data', name);

export const say = (text) => console.log(text);

/** Ends the command with one sentence for the person who started it. */
export class Stop extends Error {}

/** Runs a program; resolves with its exit code and, when captured, its output. */
export function run(command, args, { env = {}, capture = false, cwd = root, quiet = false } = {}) {
  return new Promise((resolve, reject) => {
    const child = spawn(command, args, {
      cwd,
      env: { ...process.env, NEXT_TELEMETRY_DISABLED: '1', ...env },
      stdio: capture || quiet ? ['ignore', 'pipe', 'pipe'] : ['ignore', 'inherit', 'inherit'],
    });
    let out = '';
    child.stdout?.on('data', (d) => {
      out += d;
    });
    child.stderr?.on('data', (d) => {
      out += d;
    });
    child.on('error', reject);
    child.on('close', (code) => resolve({ code: code ?? 1, out }));
  });
}

/** Runs a TypeScript file of the project. */
export const runTs = (file, args = [], options = {}) =>
  run(process.execPath, ['--import', 'tsx', join(root, file), ...args], options);

/** Runs main and turns a Stop into its sentence. */
export async function main(body) {
  try {
    process.exitCode = (await body()) ?? 0;
  } catch (e) {
    console.error(e instanceof Stop ? e.message : e);
    process.exitCode = 1;
  }
}
