import { bootstrap } from './bootstrap.mjs';
import { main, Stop, say } from './say.mjs';
import { Tally } from './steps.mjs';

/** The body of a test command: all of its tiers, or the one that is named with the files that are named after it.
 *  `tiers`: what can be named; `all`: how they run together; `needs`: what the machine has to have. */
export const runTiers = ({ needs, tiers, all }) =>
  main(async () => {
    const named = process.argv.slice(2).filter((a) => !a.startsWith('--'));
    const options = process.argv.slice(2).filter((a) => a.startsWith('--'));
    const [tier, ...only] = named;
    if (tier !== undefined && !tiers[tier])
      throw new Stop(`No tier is called ${tier}: ${Object.keys(tiers).join(', ')}.`);
    const unknown = options.find((o) => o !== '--slowest');
    if (unknown) throw new Stop(`${unknown} is not understood: only --slowest, a tier and files of it are.`);
    await bootstrap(needs);
    const tally = new Tally();
    try {
      await (tier === undefined ? all(tally) : tiers[tier](tally, only));
    } catch (e) {
      tally.add(0, 1);
      say(`FAILED ${e instanceof Stop ? e.message : e.stack}`);
    }
    if (options.includes('--slowest')) say(tally.slowest());
    say(tally.line());
    return tally.failed === 0 ? 0 : 1;
  });
