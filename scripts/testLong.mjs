import { rmSync } from 'node:fs';
import { join } from 'node:path';
import { build } from './lib/application.mjs';
import { bootstrap } from './lib/bootstrap.mjs';
import { Database } from './lib/database.mjs';
import { main, root, say } from './lib/say.mjs';
import { jest, playwright, Tally } from './lib/steps.mjs';
import { seededFolder } from './lib/testData.mjs';

/** What takes longer: the start command by its own, a thousand events over a large catalogue, hostile files, kills in the middle of work, accessibility of every view in both themes and all sizes. */
main(async () => {
  await bootstrap(['database', 'browser', 'certificates']);
  const tally = new Tally();
  try {
    await build();
    await seededFolder();
    await jest(tally, 'start', { args: ['--runInBand'] });
    const folder = join(root, '.data', 'test-events');
    rmSync(folder, { recursive: true, force: true });
    const database = await new Database(folder).start();
    try {
      await jest(tally, 'events', { env: database.env() });
      await jest(tally, 'files', { env: database.env() });
    } finally {
      await database.stop();
      rmSync(folder, { recursive: true, force: true });
    }
    await playwright(tally, 'kills');
    await playwright(tally, 'long');
  } catch (e) {
    tally.add(0, 1);
    say(`FAILED ${e.message}`);
  }
  say(tally.line());
  return tally.failed === 0 ? 0 : 1;
});
