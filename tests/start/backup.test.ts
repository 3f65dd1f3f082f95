import { spawnSync } from 'node:child_process';
import { existsSync, mkdtempSync, readFileSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';

const root = join(__dirname, '..', '..');
const folders: string[] = [];
const folder = () => {
  const made = mkdtempSync(join(tmpdir(), 'vorrat-backup-'));
  folders.push(made);
  return made;
};
afterAll(() => {
  for (const f of folders) rmSync(f, { recursive: true, force: true });
});

/** Runs one of our commands on a data folder. */
function command(name: string, data: string, ...args: string[]) {
  const { status, stdout, stderr } = spawnSync('npm', ['run', '--silent', name, '--', ...args], {
    cwd: root,
    encoding: 'utf8',
    env: { ...process.env, VORRAT_DATA: data, VORRAT_CLOCK: '2026-11-23T09:00:00Z' },
  });
  return { status, said: stdout + stderr };
}

/** What is in the books of a data folder: a digest of all rows, and on how many tables the application has rights. With
 *  `prepare`, the demo company is made first. */
function booksOf(data: string, prepare = false): { content: string; rights: number } {
  const script = `
    import { spawnSync } from 'node:child_process';
    import { createHash } from 'node:crypto';
    import { Database } from './scripts/lib/database.mjs';
    const database = await new Database(${JSON.stringify(data)}).start();
    const env = { ...process.env, ...database.env(), MYSQL_PWD: database.settings.root };
    if (${prepare}) spawnSync(process.execPath, ['--import', 'tsx', 'scripts/prepare.ts'], { env, stdio: 'inherit' });
    const sql = (q) => {
      const login = ['--no-defaults', '--socket=' + database.socket, '-u', 'root', '-N', '-e', q];
      const made = spawnSync('mariadb', login, { encoding: 'utf8', env });
      if (made.status !== 0) throw new Error(made.stderr);
      return made.stdout;
    };
    // What is kept for thirty days only goes when the day begins, so also on the way back.
    const kept = ['idempotency_key', 'undo_step'].map((t) => '--ignore-table=vorrat.' + t);
    const rows = ['--no-defaults', '--socket=' + database.socket, '-u', 'root', '--no-create-info', '--compact'];
    const dump = spawnSync('mariadb-dump', [...rows, '--order-by-primary', ...kept, 'vorrat'], { env, maxBuffer: 2 ** 28 });
    const content = createHash('sha256').update(dump.stdout).digest('hex') + ' ' + dump.stdout.length;
    const rights = Number(sql("SELECT COUNT(*) FROM mysql.tables_priv WHERE User = 'vorrat_app' AND Db = 'vorrat'"));
    await database.stop();
    console.log('BOOKS ' + JSON.stringify({ content, rights }));`;
  const { stdout, stderr } = spawnSync(process.execPath, ['--input-type=module', '-e', script], {
    cwd: root,
    encoding: 'utf8',
    env: { ...process.env, VORRAT_CLOCK: '2026-11-23T09:00:00Z' },
  });
  const line = stdout.split('\n').find((l) => l.startsWith('BOOKS '));
  if (!line) throw new Error(stdout + stderr);
  return JSON.parse(line.slice(6)) as { content: string; rights: number };
}

test('a backup restored into a fresh folder is the same books, and sound', () => {
  const [from, to] = [folder(), folder()];
  const before = booksOf(from, true);
  const file = join(from, 'kept.sql.gz');
  expect(command('backup', from, file)).toMatchObject({ status: 0, said: expect.stringContaining('Backup written') });
  expect(command('backup', from, file)).toMatchObject({ status: 1, said: expect.stringContaining('is there already') });

  const restored = command('restore', to, file);
  expect(restored.said).toContain('The books are sound.');
  expect(restored.status).toBe(0);
  expect(booksOf(to).content).toBe(before.content);
  expect(command('verify-data', to)).toMatchObject({
    status: 0,
    said: expect.stringContaining('The books are sound.'),
  });
  // The restored books work: the application's account has its rights again.
  expect(booksOf(to).rights).toBe(before.rights);
  expect(before.rights).toBeGreaterThan(20);
  expect(Number(before.content.split(' ')[1])).toBeGreaterThan(100_000);

  // Books that are there are never overwritten.
  expect(command('restore', to, file)).toMatchObject({ status: 1, said: expect.stringContaining('books in') });
  // A file that is cut off, or none, is refused before anything is made.
  const cut = join(from, 'cut.sql.gz');
  const whole = readFileSync(file);
  writeFileSync(cut, whole.subarray(0, whole.length >> 1));
  const empty = folder();
  expect(command('restore', empty, cut)).toMatchObject({ status: 1, said: expect.stringContaining('can’t be read') });
  expect(command('restore', empty, join(from, 'none.gz'))).toMatchObject({
    status: 1,
    said: expect.stringContaining('no file'),
  });
  expect(command('restore', empty)).toMatchObject({ status: 1, said: expect.stringContaining('Which backup?') });
  expect(existsSync(join(empty, 'mysql'))).toBe(false);
  expect(command('backup', empty)).toMatchObject({ status: 1, said: expect.stringContaining('no books') });
});
