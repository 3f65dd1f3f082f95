import { runTiers } from './lib/runTiers.mjs';
import { say } from './lib/say.mjs';
import { browser, events, files } from './lib/tiers.mjs';

// Each of these takes this many times as much as before a landing.
process.env.VORRAT_CAMPAIGN ??= '10';

const accessibility = (tally) => browser('long')(tally, ['accessibility']);

/** What is too long to be waited for before every landing: hundreds of kills, ten thousand events, twenty thousand hostile
 *  files, every row of every list in every theme and size. By hand, before a change that touches them is called done; what each took and found is printed. */
runTiers({
  needs: ['database', 'browser', 'certificates'],
  tiers: { kills: browser('kills'), events, files, accessibility },
  all: async (tally) => {
    await browser('kills')(tally);
    await events(tally);
    await files(tally);
    await accessibility(tally);
    say(tally.slowest());
  },
});
