import { existsSync, mkdirSync, statSync } from 'node:fs';
import { dirname, join, resolve } from 'node:path';
import { bootstrap } from './lib/bootstrap.mjs';
import { Database } from './lib/database.mjs';
import { writeDump } from './lib/dump.mjs';
import { dataFolder, main, Stop, say } from './lib/say.mjs';

/** Writes a backup of the company's books (VORRAT_DATA as for the start), also while people work. `npm run backup` names the
 *  file by the moment, in the data folder's backups/; `npm run backup FILE` takes that name. An existing file is left alone. */
main(async () => {
  await bootstrap(['database']);
  const folder = dataFolder();
  if (!existsSync(join(folder, 'settings.json'))) throw new Stop(`There are no books in ${folder} yet.`);
  const moment = new Date().toISOString().slice(0, 19).replaceAll(':', '');
  const file = resolve(process.argv[2] ?? join(folder, 'backups', `vorrat-${moment}.sql.gz`));
  if (existsSync(file)) throw new Stop(`${file} is there already; a backup does not replace another.`);
  mkdirSync(dirname(file), { recursive: true, mode: 0o700 });
  const database = new Database(folder);
  const wasUp = database.pid() !== null;
  await database.start();
  try {
    await writeDump(database, file);
  } finally {
    if (!wasUp) await database.stop();
  }
  say(`Backup written: ${file} (${Math.ceil(statSync(file).size / 1024)} kB)`);
});
