import { runTiers } from './lib/runTiers.mjs';
import { browser, check, core, production, services } from './lib/tiers.mjs';
import { seededFolder } from './lib/testData.mjs';

/** check, services on a real MariaDB of their own, the production build, and the browser journeys.
 *  A tier's name runs that tier alone, file names after it those files of it; --slowest says what takes long. */
runTiers({
  needs: ['database', 'browser'],
  tiers: { check, core, services, build: production, journeys: browser('journeys') },
  all: async (tally) => {
    await check(tally, { after: seededFolder });
    await services(tally);
    if (await production(tally)) await browser('journeys')(tally);
  },
});
