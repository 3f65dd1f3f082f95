import { existsSync } from 'node:fs';
import { join, resolve } from 'node:path';
import { bootstrap } from './lib/bootstrap.mjs';
import { Database } from './lib/database.mjs';
import { checkDump, loadDump } from './lib/dump.mjs';
import { dataFolder, main, runTs, Stop, say } from './lib/say.mjs';

/** Restores a backup into a data folder that has no books yet (VORRAT_DATA), brings it up to date with this version and
 *  checks every invariant. Books that are there are never overwritten. */
main(async () => {
  const given = process.argv[2];
  if (!given) throw new Stop('Which backup? VORRAT_DATA=folder npm run restore FILE');
  await bootstrap(['database']);
  const [file, folder] = [resolve(given), dataFolder()];
  await checkDump(file);
  if (existsSync(join(folder, 'mysql', 'vorrat'))) {
    throw new Stop(
      `There are books in ${folder} already. Restore into another folder: VORRAT_DATA=folder npm run restore FILE`,
    );
  }
  const database = await new Database(folder).start();
  try {
    const env = database.env();
    await runTs('scripts/prepare.ts', ['--empty'], { env });
    await loadDump(database, file);
    const prepared = await runTs('scripts/prepare.ts', [], { env });
    if (prepared.code !== 0) throw new Stop('The backup could not be brought up to this version; see above.');
    const verified = await runTs('scripts/verify.ts', [], { env });
    say(`Restored into ${folder}. Start it with VORRAT_DATA=${folder} npm run demo`);
    return verified.code;
  } finally {
    await database.stop();
  }
});
