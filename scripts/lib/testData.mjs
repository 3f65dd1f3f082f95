import { cpSync, existsSync, readFileSync, rmSync, writeFileSync } from 'node:fs';
import { join } from 'node:path';
import { Database } from './database.mjs';
import { digestOf } from './digest.mjs';
import { root, runTs, Stop } from './say.mjs';

/** The business day of all tests: Monday 23 November 2026, 10:00 in Berlin. */
export const CLOCK = '2026-11-23T09:00:00Z';
export const templateFolder = join(root, '.data', 'test-template');

/** What the demo data depends on. */
const sources = [
  'src/core',
  'src/data',
  'src/services',
  'src/standins',
  'scripts/demoData',
  'scripts/lib',
  'scripts/prepare.ts',
];

/** A data folder with the demo company on the tests' day, its database stopped; tests take copies of it. Made anew when
 *  anything that it depends on has changed. */
export async function seededFolder() {
  const stamp = join(templateFolder, 'sources');
  const digest = digestOf([...sources, 'package-lock.json']);
  if (existsSync(stamp) && readFileSync(stamp, 'utf8') === digest) return templateFolder;
  rmSync(templateFolder, { recursive: true, force: true });
  const database = await new Database(templateFolder, { durable: false }).start();
  const { code, out } = await runTs('scripts/prepare.ts', [], {
    env: { ...database.env(), VORRAT_CLOCK: CLOCK },
    quiet: true,
  });
  await database.stop();
  if (code !== 0) throw new Stop(`The test data could not be made:\n${out}`);
  writeFileSync(stamp, digest);
  return templateFolder;
}

/** A database server for tests on services, with the demo company in it, in a folder of its own. */
export async function testServer(name) {
  const folder = join(root, '.data', `test-${name}`);
  rmSync(folder, { recursive: true, force: true });
  cpSync(await seededFolder(), folder, { recursive: true });
  return new Database(folder, { durable: false }).start();
}
