import { join } from 'node:path';
import { grantRights } from '@/data/grants';
import { migrate } from '@/data/migrate';
import { openPool, settingsFromEnvironment } from '@/data/pool';
import { beginDay } from '@/services/planning/recompute';
import { seedDemo } from './demoData/seed';

/** Brings a database up to date: schema, rights of the application's account, demo data when it is empty, needs.
 *  --own leaves an empty database without a company, for its owner to found.
 *  --reset drops everything first; --empty only makes the empty database, for a backup to be loaded into. VORRAT_CLOCK pins the business day of the data. */
async function prepare(): Promise<void> {
  const env = process.env;
  const name = env.VORRAT_DB_NAME ?? 'vorrat';
  const owner = {
    ...settingsFromEnvironment(env),
    user: env.VORRAT_DB_OWNER ?? '',
    password: env.VORRAT_DB_OWNER_PASSWORD ?? '',
  };
  const server = openPool({ ...owner, database: '' }, 1);
  if (process.argv.includes('--reset')) await server.query(`DROP DATABASE IF EXISTS \`${name}\``);
  await server.query(`CREATE DATABASE IF NOT EXISTS \`${name}\` CHARACTER SET utf8mb4 COLLATE utf8mb4_unicode_ci`);
  await server.end();
  if (process.argv.includes('--empty')) return;
  const pool = openPool(owner, 4);
  for (const m of await migrate(pool, join(__dirname, '..', 'src', 'data', 'migrations'))) {
    console.log(`Migrated ${m.file} (${m.statements} statements)`);
  }
  await grantRights(pool, name, 'vorrat_app');
  const now = env.VORRAT_CLOCK ? new Date(env.VORRAT_CLOCK) : new Date();
  const [rows] = await pool.query('SELECT COUNT(*) AS n FROM company');
  const founded = (rows as { n: number }[])[0]?.n !== 0;
  if (!founded && process.argv.includes('--own')) console.log('An empty company, to be set up');
  else if (!founded) {
    await seedDemo(pool, now);
    console.log('Demo data written: Quillon Yarn & Cloth');
  } else await beginDay({ pool, clock: () => now });
  await pool.end();
}

prepare().catch((e) => {
  console.error(e);
  process.exit(1);
});
