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
};

/** Installs what is missing on the machine, says so, and does nothing when all is there.
 *  The database server comes without a service: nothing is started, no existing MariaDB is touched. */
export async function bootstrap(needs) {
  const missing = needs.map((n) => wanted[n]).filter((n) => !existsSync(n.file));
  if (missing.length > 0) await installPackages(missing);
  await installModules();
}

async function installPackages(missing) {
  const packages = missing.flatMap((m) => m.packages);
  const isRoot = process.getuid?.() === 0;
  const sudo = !isRoot && spawnSync('sudo', ['-n', 'true']).status === 0;
  if (!existsSync('/usr/bin/apt-get') || (!isRoot && !sudo)) {
    throw new Stop(
      `Missing on this machine: please have an administrator install ${packages.join(' ')} (apt-get install --no-install-recommends ${packages.join(' ')}).`,
    );
  }
  say(`Installing ${missing.map((m) => m.what).join(' and ')}: ${packages.join(' ')}`);
  const apt = (...args) =>
    run(isRoot ? 'apt-get' : 'sudo', isRoot ? args : ['apt-get', ...args], {
      quiet: true,
      env: { DEBIAN_FRONTEND: 'noninteractive' },
    });
  await apt('-o', 'DPkg::Lock::Timeout=300', 'update', '-qq');
  const { code, out } = await apt(
    '-o',
    'DPkg::Lock::Timeout=300',
    'install',
    '-y',
    '-qq',
    '--no-install-recommends',
    ...packages,
  );
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
