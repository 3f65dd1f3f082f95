import { runTiers } from './lib/runTiers.mjs';
import { browser, events, files, production, start } from './lib/tiers.mjs';
import { seededFolder } from './lib/testData.mjs';

/** What takes longer: the start command by its own, a thousand events over a large catalogue, hostile files, kills in the
 *  middle of work, accessibility of every view in both themes and all sizes. */
runTiers({
  needs: ['database', 'browser', 'certificates'],
  tiers: { start, events, files, kills: browser('kills'), long: browser('long') },
  all: async (tally) => {
    if (!(await production(tally))) return;
    await seededFolder();
    await Promise.all([
      start(tally),
      (async () => {
        await events(tally);
        await files(tally);
      })(),
    ]);
    await browser('kills')(tally);
    await browser('long')(tally);
  },
});
