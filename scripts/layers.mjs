import { readdirSync } from 'node:fs';
import { join } from 'node:path';
import { root, run } from './lib/say.mjs';

/** The rooms' dependency rules, and that the tool really looked at every module: it has been seen to pass on none. */
const count = (folder) =>
  readdirSync(folder, { withFileTypes: true }).reduce(
    (n, e) => n + (e.isDirectory() ? count(join(folder, e.name)) : /\.(ts|tsx)$/.test(e.name) ? 1 : 0),
    0,
  );

const { code, out } = await run(
  join(root, 'node_modules', '.bin', 'depcruise'),
  ['src', 'scripts', 'tests', '--config'],
  { quiet: true },
);
const seen = Number(/(\d+) modules/.exec(out)?.[1] ?? 0);
const there = count(join(root, 'src')) + count(join(root, 'tests'));
console.log(out);
if (seen < there) console.log(`Only ${seen} modules were looked at; there are ${there} in src and tests.`);
process.exit(code !== 0 || seen < there ? 1 : 0);
