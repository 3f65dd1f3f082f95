import { rmSync } from 'node:fs';
import { join } from 'node:path';
import { Database } from './database.mjs';
import { root, runTs, Stop } from './say.mjs';

/** The business day of all tests: Monday 23 November 2026, 10:00 in Berlin. */
export const CLOCK = '2026-11-23T09:00:00Z';
export const templateFolder = join(root, '.data', 'test-template');

/** A data folder with the demo company on the tests' day; browser workers take copies of it. */
export async function seededFolder() {
  rmSync(templateFolder, { recursive: true, force: true });
  const database = await new Database(templateFolder).start();
  const { code, out } = await runTs('scripts/prepare.ts', [], {
    env: { ...database.env(), VORRAT_CLOCK: CLOCK },
    quiet: true,
  });
  await database.stop();
  if (code !== 0) throw new Stop(`The test data could not be made:\n${out}`);
  return templateFolder;
}
