import { spawn, spawnSync } from 'node:child_process';
import { createHash, randomBytes } from 'node:crypto';
import { existsSync, mkdirSync, openSync, readFileSync, rmSync, writeFileSync } from 'node:fs';
import { createServer } from 'node:net';
import { tmpdir, userInfo } from 'node:os';
import { join } from 'node:path';
import { setTimeout as pause } from 'node:timers/promises';
import { Stop } from './say.mjs';

/** Whether a TCP port of 127.0.0.1 is free. */
export const isFree = (port) =>
  new Promise((resolve) => {
    const server = createServer();
    server.once('error', () => resolve(false));
    server.listen(port, '127.0.0.1', () => server.close(() => resolve(true)));
  });

/** A free port, the wanted one if it can be had. */
export async function freePort(wanted) {
  if (wanted && (await isFree(wanted))) return wanted;
  return new Promise((resolve) => {
    const server = createServer();
    server.listen(0, '127.0.0.1', () => {
      const { port } = server.address();
      server.close(() => resolve(port));
    });
  });
}

const exists = (pid) => {
  try {
    process.kill(pid, 0);
    return true;
  } catch {
    return false;
  }
};

const durable = `innodb-flush-log-at-trx-commit=1
innodb-doublewrite=1`;
const quick = `innodb-flush-log-at-trx-commit=2
innodb-doublewrite=0
innodb-flush-method=nosync
innodb-file-per-table=0
sync-frm=0
userstat=1`;

/** A MariaDB of our own in a folder: its data, socket, port, accounts and secrets. Nothing outside it is used. */
export class Database {
  /** `durable: false` for tests that don't pull the plug: no waiting for the disk, all tables in one file, so that a schema
   *  is made and dropped in no time. What it wrote survives its own end, not the machine's. */
  constructor(folder, { durable = true } = {}) {
    this.folder = folder;
    this.durable = durable;
    this.data = join(folder, 'mysql');
    this.config = join(folder, 'my.cnf');
    this.pidFile = join(folder, 'mariadbd.pid');
    const socket = join(folder, 'db.sock');
    const short = createHash('sha256').update(folder).digest('hex').slice(0, 12);
    this.socket = Buffer.byteLength(socket) < 100 ? socket : join(tmpdir(), `vorrat-${short}.sock`);
    this.settingsFile = join(folder, 'settings.json');
  }

  get settings() {
    return JSON.parse(readFileSync(this.settingsFile, 'utf8'));
  }

  /** The pid of our own running server, or null. A pid that is not our mariadbd is left alone. */
  pid() {
    if (!existsSync(this.pidFile)) return null;
    const pid = Number(readFileSync(this.pidFile, 'utf8'));
    if (!pid || !exists(pid)) return null;
    try {
      const command = readFileSync(`/proc/${pid}/cmdline`, 'utf8');
      return command.includes('mariadbd') && command.includes(this.config) ? pid : null;
    } catch {
      return null;
    }
  }

  /** Starts the server, on the given port, else on its last one if that is free. */
  async start(port = null) {
    mkdirSync(this.folder, { recursive: true, mode: 0o700 });
    const fresh = !existsSync(join(this.data, 'mysql')) || !existsSync(this.settingsFile);
    if (this.pid() !== null && !fresh) {
      if (await this.answers()) return this;
    }
    if (fresh) this.initialise();
    const settings = fresh ? this.newSettings() : this.settings;
    settings.port = port ?? (await freePort(settings.port));
    this.writeConfig(settings.port);
    const log = openSync(join(this.folder, 'mariadbd.log'), 'a');
    const child = spawn('/usr/sbin/mariadbd', [`--defaults-file=${this.config}`], {
      detached: true,
      stdio: ['ignore', log, log],
    });
    child.unref();
    if (!(await this.answers(30_000))) {
      throw new Stop(`The database did not start; its log is ${join(this.folder, 'mariadbd.log')}.`);
    }
    if (fresh) this.createAccounts(settings);
    writeFileSync(this.settingsFile, JSON.stringify(settings, null, 2), { mode: 0o600 });
    return this;
  }

  initialise() {
    rmSync(this.data, { recursive: true, force: true });
    const made = spawnSync(
      'mariadb-install-db',
      [
        '--no-defaults',
        `--datadir=${this.data}`,
        '--auth-root-authentication-method=normal',
        '--skip-test-db',
        `--user=${userInfo().username}`,
        '--innodb-log-file-size=64M',
        '--skip-name-resolve',
      ],
      { encoding: 'utf8' },
    );
    if (made.status !== 0) throw new Stop(`The database could not be set up:\n${made.stdout}${made.stderr}`);
  }

  newSettings() {
    const secret = () => randomBytes(18).toString('base64url');
    return { port: 33306, root: secret(), owner: secret(), app: secret() };
  }

  writeConfig(port) {
    // Of its own: a server that starts clears away what it takes for its leftovers in a shared one.
    const temporary = join(this.folder, 'tmp');
    mkdirSync(temporary, { recursive: true, mode: 0o700 });
    writeFileSync(
      this.config,
      `[mariadbd]
user=${userInfo().username}
datadir=${this.data}
tmpdir=${temporary}
socket=${this.socket}
pid-file=${this.pidFile}
port=${port}
bind-address=127.0.0.1
skip-name-resolve
character-set-server=utf8mb4
collation-server=utf8mb4_unicode_ci
default-time-zone=+00:00
sql-mode=STRICT_ALL_TABLES,ONLY_FULL_GROUP_BY,NO_ZERO_DATE,NO_ZERO_IN_DATE,ERROR_FOR_DIVISION_BY_ZERO,NO_ENGINE_SUBSTITUTION
transaction-isolation=READ-COMMITTED
${this.durable ? durable : quick}
innodb-log-file-size=64M
innodb-buffer-pool-size=512M
innodb-lock-wait-timeout=5
innodb-print-all-deadlocks=1
local-infile=1
max-connections=200
`,
    );
  }

  /** The app account gets its rights table by table after the migrations; the owner account migrates. */
  createAccounts({ root, owner, app }) {
    const sql = `
CREATE USER 'vorrat_owner'@'127.0.0.1' IDENTIFIED BY '${owner}';
GRANT ALL ON \`vorrat%\`.* TO 'vorrat_owner'@'127.0.0.1' WITH GRANT OPTION;
CREATE USER 'vorrat_app'@'127.0.0.1' IDENTIFIED BY '${app}';
DELETE FROM mysql.global_priv WHERE User = '' OR (User = 'root' AND Host <> 'localhost');
FLUSH PRIVILEGES;
SET PASSWORD FOR 'root'@'localhost' = PASSWORD('${root}');`;
    const made = spawnSync('mariadb', ['--no-defaults', `--socket=${this.socket}`, '-u', 'root'], {
      input: sql,
      encoding: 'utf8',
    });
    if (made.status !== 0) throw new Stop(`The database accounts could not be made: ${made.stderr}`);
  }

  async answers(withinMs = 3000) {
    const until = Date.now() + withinMs;
    while (Date.now() < until) {
      const ping = spawnSync('mariadb-admin', ['--no-defaults', `--socket=${this.socket}`, 'ping'], {
        encoding: 'utf8',
      });
      if (ping.status === 0) return true;
      await pause(60);
    }
    return false;
  }

  async stop(signal = 'SIGTERM') {
    const pid = this.pid();
    if (pid === null) return;
    process.kill(pid, signal);
    for (let i = 0; i < 600 && exists(pid); i += 1) await pause(50);
  }

  /** Away with all of it, once it is stopped. */
  remove() {
    rmSync(this.folder, { recursive: true, force: true });
  }

  /** The environment for a program that works on this database. */
  env(name = 'vorrat') {
    const { port, app, owner } = this.settings;
    return {
      VORRAT_DB_PORT: String(port),
      VORRAT_DB_USER: 'vorrat_app',
      VORRAT_DB_PASSWORD: app,
      VORRAT_DB_OWNER: 'vorrat_owner',
      VORRAT_DB_OWNER_PASSWORD: owner,
      VORRAT_DB_NAME: name,
    };
  }
}
