import { execFileSync } from 'node:child_process';
import { mkdtempSync, readFileSync, rmSync, statSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';

const root = join(__dirname, '..', '..');
let folder: string;
beforeEach(() => {
  folder = mkdtempSync(join(tmpdir(), 'vorrat-own-'));
});
afterEach(() => {
  script('await database.stop("SIGKILL");');
  rmSync(folder, { recursive: true, force: true });
});

/** Runs a few lines against a database in the folder, the way the start command does; returns what they print. */
function script(lines: string): string {
  const code = `
    import { createServer } from 'node:net';
    import { createConnection } from 'mysql2/promise';
    import { Database, isFree } from ${JSON.stringify(join(root, 'scripts', 'lib', 'database.mjs'))};
    const database = new Database(${JSON.stringify(join(folder, 'data'))});
    const connect = (user, password) => createConnection({ host: '127.0.0.1', port: database.settings.port, user, password });
    const owner = () => connect('vorrat_owner', database.settings.owner);
    ${lines}
    process.exit(0);`;
  return execFileSync(process.execPath, ['--input-type=module', '-e', code], { cwd: root, encoding: 'utf8' }).trim();
}

test('a database of its own: data, socket, port and secrets in one folder, nothing without a password', () => {
  const out = script(`
    await database.start();
    const anonymous = await connect('root', '').then(() => 'in', (e) => e.errno);
    const stranger = await connect('nobody', '').then(() => 'in', (e) => e.errno);
    const o = await owner();
    const [[row]] = await o.query('SELECT @@bind_address AS bind, @@time_zone AS zone, @@tx_isolation AS isolation, @@datadir AS data');
    console.log(JSON.stringify({ anonymous, stranger, row }));`);
  const { anonymous, stranger, row } = JSON.parse(out);
  expect(anonymous).not.toBe('in');
  expect(stranger).not.toBe('in');
  expect(row).toEqual({
    bind: '127.0.0.1',
    zone: '+00:00',
    isolation: 'READ-COMMITTED',
    data: `${join(folder, 'data', 'mysql')}/`,
  });
  const settings = join(folder, 'data', 'settings.json');
  expect(statSync(settings).mode & 0o077).toBe(0);
  expect(new Set(Object.values(JSON.parse(readFileSync(settings, 'utf8')))).size).toBe(4);
});

test('after kill -9 every committed row is there, an open transaction is not', () => {
  const out = script(`
    await database.start();
    const o = await owner();
    await o.query('CREATE DATABASE vorrat_kill');
    await o.query('CREATE TABLE vorrat_kill.t (id INT PRIMARY KEY)');
    await o.query('INSERT INTO vorrat_kill.t VALUES (1), (2)');
    await o.query('START TRANSACTION');
    await o.query('INSERT INTO vorrat_kill.t VALUES (3)');
    o.on('error', () => {});
    await database.stop('SIGKILL');
    await database.start();
    const [rows] = await (await owner()).query('SELECT id FROM vorrat_kill.t ORDER BY id');
    console.log(JSON.stringify(rows.map((r) => r.id)));`);
  expect(JSON.parse(out)).toEqual([1, 2]);
});

test('a taken port is left to its owner; a second start finds the running server; a foreign pid is left alone', () => {
  const out = script(`
    await database.start();
    const first = [database.pid(), database.settings.port];
    await database.start();
    const second = [database.pid(), database.settings.port];
    await database.stop();
    const taken = createServer();
    await new Promise((done) => taken.listen(first[1], '127.0.0.1', done));
    await database.start();
    const third = database.settings.port;
    const { writeFileSync } = await import('node:fs');
    const real = database.pid();
    writeFileSync(database.pidFile, String(process.pid));
    const foreign = database.pid();
    await database.stop('SIGKILL');
    writeFileSync(database.pidFile, String(real));
    console.log(JSON.stringify({ same: String(first) === String(second), moved: third !== first[1], foreign, free: await isFree(third) }));`);
  expect(JSON.parse(out)).toEqual({ same: true, moved: true, foreign: null, free: false });
});
