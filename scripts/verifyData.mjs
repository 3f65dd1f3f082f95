import { bootstrap } from './lib/bootstrap.mjs';
import { Database } from './lib/database.mjs';
import { dataFolder, main, runTs } from './lib/say.mjs';

/** Prints each invariant of the company's books with its count of violations (VORRAT_DATA as for the start); starts the
 *  database for it when it is down. */
main(async () => {
  await bootstrap(['database']);
  const database = new Database(dataFolder());
  const wasUp = database.pid() !== null;
  await database.start();
  const { code } = await runTs('scripts/verify.ts', [], { env: database.env() });
  if (!wasUp) await database.stop();
  return code;
});
