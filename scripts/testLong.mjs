import { build } from './lib/application.mjs';
import { bootstrap } from './lib/bootstrap.mjs';
import { main, say } from './lib/say.mjs';
import { jest, playwright, Tally } from './lib/steps.mjs';
import { seededFolder } from './lib/testData.mjs';

/** What takes longer: the start command by its own, kills in the middle of work, accessibility of every view in both themes and all sizes. */
main(async () => {
  await bootstrap(['database', 'browser', 'certificates']);
  const tally = new Tally();
  try {
    await build();
    await seededFolder();
    await jest(tally, 'start', { args: ['--runInBand'] });
    await playwright(tally, 'long');
  } catch (e) {
    tally.add(0, 1);
    say(`FAILED ${e.message}`);
  }
  say(tally.line());
  return tally.failed === 0 ? 0 : 1;
});
