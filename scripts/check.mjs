import { bootstrap } from './lib/bootstrap.mjs';
import { main, say } from './lib/say.mjs';
import { checkSteps, Tally } from './lib/steps.mjs';

/** Format, lint, types, layers and the core's tests; two minutes at most. */
main(async () => {
  await bootstrap([]);
  const tally = new Tally();
  await checkSteps(tally);
  say(tally.line());
  return tally.failed === 0 ? 0 : 1;
});
