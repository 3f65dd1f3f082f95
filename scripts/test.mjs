import { rmSync } from 'node:fs';
import { join } from 'node:path';
import { build } from './lib/application.mjs';
import { bootstrap } from './lib/bootstrap.mjs';
import { Database } from './lib/database.mjs';
import { main, root, say } from './lib/say.mjs';
import { checkSteps, jest, playwright, Tally } from './lib/steps.mjs';
import { seededFolder } from './lib/testData.mjs';

/** check, then services on a real MariaDB of their own, the production build, and the browser journeys. */
main(async () => {
  await bootstrap(['database', 'browser']);
  const tally = new Tally();
  await checkSteps(tally);

  const folder = join(root, '.data', 'test-services');
  rmSync(folder, { recursive: true, force: true });
  const database = await new Database(folder).start();
  try {
    await jest(tally, 'services', { env: database.env(), args: ['--maxWorkers=2'] });
  } finally {
    await database.stop();
  }

  try {
    await build();
    tally.add(1, 0);
    say('ok     build');
    await seededFolder();
    await playwright(tally, 'journeys');
  } catch (e) {
    tally.add(0, 1);
    say(`FAILED ${e.message}`);
  }
  say(tally.line());
  return tally.failed === 0 ? 0 : 1;
});
