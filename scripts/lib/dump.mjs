import { spawn } from 'node:child_process';
import { createReadStream, createWriteStream, renameSync, rmSync } from 'node:fs';
import { Transform } from 'node:stream';
import { pipeline } from 'node:stream/promises';
import { createGunzip, createGzip } from 'node:zlib';
import { Stop } from './say.mjs';

/** The client programs of the database, as its owner account over TCP; the password goes by the environment. */
function client(program, database, args) {
  const { port, owner } = database.settings;
  const login = ['--no-defaults', '--protocol=tcp', '--host=127.0.0.1', `--port=${port}`, '--user=vorrat_owner'];
  const child = spawn(program, [...login, ...args], { env: { ...process.env, MYSQL_PWD: owner } });
  let said = '';
  child.stderr.on('data', (d) => {
    said += d;
  });
  const ended = new Promise((resolve, reject) => {
    child.once('error', reject);
    child.once('close', (code) => (code === 0 ? resolve() : reject(new Stop(`${program} failed: ${said.trim()}`))));
  });
  return { child, ended };
}

/** Writes everything in the books as of one moment, while people go on working, as compressed SQL. The file appears under
 *  its name only when it is whole. */
export async function writeDump(database, file) {
  const part = `${file}.part`;
  const args = ['--single-transaction', '--quick', '--skip-lock-tables', '--no-tablespaces', '--hex-blob', 'vorrat'];
  const { child, ended } = client('mariadb-dump', database, args);
  try {
    await Promise.all([pipeline(child.stdout, createGzip(), createWriteStream(part, { mode: 0o600 })), ended]);
  } catch (e) {
    rmSync(part, { force: true });
    throw e;
  }
  renameSync(part, file);
}

const END = '-- Dump completed';

/** Whether a file is a whole backup: readable to its end, and the end is what a dump ends with.
 *  Errors: Stop with what is wrong. */
export async function checkDump(file) {
  let tail = '';
  const last = new Transform({
    transform(chunk, _encoding, done) {
      tail = (tail + chunk.toString('latin1')).slice(-400);
      done();
    },
  });
  try {
    await pipeline(createReadStream(file), createGunzip(), last.resume());
  } catch (e) {
    if (e.code === 'ENOENT') throw new Stop(`There is no file ${file}.`);
    throw new Stop(`${file} can’t be read as a backup (${e.code ?? e.message}).`);
  }
  if (!tail.includes(END)) throw new Stop(`${file} is cut off: it is not a whole backup.`);
}

/** Loads a backup into the empty database of the books. */
export async function loadDump(database, file) {
  const { child, ended } = client('mariadb', database, ['vorrat']);
  child.stdout.resume();
  await Promise.all([pipeline(createReadStream(file), createGunzip(), child.stdin), ended]);
}
