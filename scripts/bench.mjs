import { rmSync } from 'node:fs';
import { join } from 'node:path';
import { bootstrap } from './lib/bootstrap.mjs';
import { Database } from './lib/database.mjs';
import { main, root, runTs } from './lib/say.mjs';

/** Figures of speed, one JSON line each, value and baseline from the same run. `npm run bench -- NAME` runs one. */
main(async () => {
  await bootstrap(['database', 'browser']);
  const folder = join(root, '.data', 'bench');
  rmSync(folder, { recursive: true, force: true });
  const database = await new Database(folder).start();
  try {
    const { code } = await runTs('scripts/benchmarks/index.ts', process.argv.slice(2), {
      env: { ...database.env(), NODE_ENV: 'production' },
    });
    return code;
  } finally {
    await database.stop();
    rmSync(folder, { recursive: true, force: true });
  }
});
