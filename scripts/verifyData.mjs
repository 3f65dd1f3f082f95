import { join } from 'node:path';
import { bootstrap } from './lib/bootstrap.mjs';
import { Database } from './lib/database.mjs';
import { main, root, runTs } from './lib/say.mjs';

/** Prints each invariant of the demo database with its count of violations; starts the database for it when it is down. */
main(async () => {
  await bootstrap(['database']);
  const database = new Database(join(root, '.data', 'demo'));
  const wasUp = database.pid() !== null;
  await database.start();
  const { code } = await runTs('scripts/verify.ts', [], { env: database.env() });
  if (!wasUp) await database.stop();
  return code;
});
