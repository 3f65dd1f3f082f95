import { execFileSync } from 'node:child_process';
import { join } from 'node:path';

const library = join(__dirname, '..', '..', 'scripts', 'lib', 'bootstrap.mjs');

/** What the bootstrap does on a machine as described: what it said, the programs it ran, the sentence it ended with. */
function onMachine(machine: { has: string[]; root: 'root' | 'sudo' | 'nobody'; apt?: number }) {
  const code = `
    import { installPackages } from ${JSON.stringify(library)};
    const machine = ${JSON.stringify(machine)};
    const ran = [];
    const stopped = await installPackages(['database', 'browser'], {
      has: (file) => machine.has.includes(file),
      asRoot: () => ({ root: [], sudo: ['sudo'], nobody: null })[machine.root],
      run: async (program, args) => {
        ran.push([program, ...args].join(' '));
        return { code: machine.apt ?? 0, out: 'E: Unable to locate package chromium' };
      },
    }).then(() => null, (e) => ({ kind: e.constructor.name, text: e.message }));
    console.log(JSON.stringify({ ran, stopped }));`;
  const lines = execFileSync(process.execPath, ['--input-type=module', '-e', code], { encoding: 'utf8' })
    .trim()
    .split('\n');
  return { ...JSON.parse(lines.pop() as string), said: lines } as {
    ran: string[];
    stopped: { kind: string; text: string } | null;
    said: string[];
  };
}

const [apt, database, browser] = ['/usr/bin/apt-get', '/usr/sbin/mariadbd', '/usr/bin/chromium'];

test('does nothing when all is there, not even asking for root', () => {
  expect(onMachine({ has: [apt, database, browser], root: 'nobody' })).toEqual({ ran: [], stopped: null, said: [] });
});

test('without root and without the packages: one sentence that says what to install', () => {
  const { ran, stopped, said } = onMachine({ has: [apt, browser], root: 'nobody' });
  expect(ran).toEqual([]);
  expect(said).toEqual([]);
  expect(stopped?.kind).toBe('Stop');
  expect(stopped?.text).toBe(
    'Missing on this machine: please have an administrator install mariadb-server-core mariadb-client (apt-get install --no-install-recommends mariadb-server-core mariadb-client).',
  );
});

test('a system without apt gets the same sentence', () => {
  const { ran, stopped } = onMachine({ has: [database], root: 'root' });
  expect(ran).toEqual([]);
  expect(stopped?.text).toContain('install chromium (');
});

test('as root, and with sudo, it installs only what is missing and says so', () => {
  const asRoot = onMachine({ has: [apt, database], root: 'root' });
  expect(asRoot.said).toEqual(['Installing the browser for the tests: chromium']);
  expect(asRoot.ran).toEqual([
    'apt-get -o DPkg::Lock::Timeout=300 update -qq',
    'apt-get -o DPkg::Lock::Timeout=300 install -y -qq --no-install-recommends chromium',
  ]);
  const withSudo = onMachine({ has: [apt], root: 'sudo' });
  expect(withSudo.ran[1]).toBe(
    'sudo apt-get -o DPkg::Lock::Timeout=300 install -y -qq --no-install-recommends mariadb-server-core mariadb-client chromium',
  );
});

test('a failing package manager is quoted', () => {
  const { stopped } = onMachine({ has: [apt, database], root: 'root', apt: 100 });
  expect(stopped?.text).toContain('Installing chromium failed');
  expect(stopped?.text).toContain('Unable to locate package');
});
