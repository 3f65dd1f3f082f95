import { spawnSync } from 'node:child_process';
import { existsSync, readFileSync, statSync, writeFileSync } from 'node:fs';
import { join } from 'node:path';
import { root, run, Stop, say } from './say.mjs';

const wanted = {
  database: {
    file: '/usr/sbin/mariadbd',
    packages: ['mariadb-server-core', 'mariadb-client'],
    what: 'the database server',
  },
  browser: { file: '/usr/bin/chromium', packages: ['chromium'], what: 'the browser for the tests' },
  certificates: { file: '/usr/bin/openssl', packages: ['openssl'], what: 'certificates for the tests' },
};

const thisMachine = {
  has: existsSync,
  /** What runs a program as root: nothing, sudo, or null when neither is possible. */
  asRoot: () => {
    if (process.getuid?.() === 0) return [];
    return spawnSync('sudo', ['-n', 'true']).status === 0 ? ['sudo'] : null;
  },
  run,
};

/** Installs what is missing on the machine, says so, and does nothing when all is there.
 *  The database server comes without a service: nothing is started, no existing MariaDB is touched.
 *  Errors: Stop with what to install when it can't, or with what the package manager said. */
export async function bootstrap(needs) {
  await installPackages(needs);
  await installModules();
}

/** Debian packages of what is missing; `machine` is this one, except in tests. */
export async function installPackages(needs, machine = thisMachine) {
  const missing = needs.map((n) => wanted[n]).filter((n) => !machine.has(n.file));
  if (missing.length === 0) return;
  const packages = missing.flatMap((m) => m.packages);
  const asRoot = machine.has('/usr/bin/apt-get') ? machine.asRoot() : null;
  if (asRoot === null) {
    throw new Stop(
      `Missing on this machine: please have an administrator install ${packages.join(' ')} (apt-get install --no-install-recommends ${packages.join(' ')}).`,
    );
  }
  say(`Installing ${missing.map((m) => m.what).join(' and ')}: ${packages.join(' ')}`);
  const apt = (...args) => {
    const [program, ...before] = [...asRoot, 'apt-get', '-o', 'DPkg::Lock::Timeout=300'];
    return machine.run(program, [...before, ...args], { quiet: true, env: { DEBIAN_FRONTEND: 'noninteractive' } });
  };
  await apt('update', '-qq');
  const { code, out } = await apt('install', '-y', '-qq', '--no-install-recommends', ...packages);
  if (code !== 0) throw new Stop(`Installing ${packages.join(' ')} failed:\n${out.slice(-2000)}`);
}

/** npm packages as the lock file names them; skipped while the lock file is the one last installed. */
async function installModules() {
  const lock = join(root, 'package-lock.json');
  const stamp = join(root, 'node_modules', '.vorrat-lock');
  const current = readFileSync(lock, 'utf8');
  if (existsSync(stamp) && statSync(stamp).size > 0 && readFileSync(stamp, 'utf8') === current) return;
  say('Installing npm packages');
  const { code, out } = await run('npm', ['install', '--no-audit', '--no-fund', '--include=dev'], { quiet: true });
  if (code !== 0) throw new Stop(`npm install failed:\n${out.slice(-2000)}`);
  writeFileSync(stamp, readFileSync(lock, 'utf8'));
}
