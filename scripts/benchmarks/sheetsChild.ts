import { randomBytes } from 'node:crypto';
import { join } from 'node:path';
import { unwrap } from '@/core/result';
import { migrate } from '@/data/migrate';
import { openPool, settingsFromEnvironment } from '@/data/pool';
import { workOnce } from '@/jobs/worker';
import type { Deps } from '@/services/deps';
import { foundCompany } from '@/services/people/foundCompany';
import { applySheet } from '@/services/sheets/applySheet';
import { mapSheet } from '@/services/sheets/mapSheet';
import { readImport } from '@/services/sheets/readImports';
import { uploadSheet } from '@/services/sheets/uploadSheet';
import { median } from './figure';
import { itemChunks, itemStream } from './sheetRows';

/** Brings so many items into an empty company and, for comparison, loads the same rows with LOAD DATA into the same tables of
 *  other ones, the median of three. Prints milliseconds of both and the peak memory of this process, which it shares with nothing else. */
async function run(rows: number): Promise<void> {
  const env = process.env;
  const settings = {
    ...settingsFromEnvironment(env),
    user: env.VORRAT_DB_OWNER ?? '',
    password: env.VORRAT_DB_OWNER_PASSWORD ?? '',
  };
  const books = async (database: string) => {
    const server = openPool({ ...settings, database: '' }, 1);
    await server.query(`CREATE DATABASE ${database} CHARACTER SET utf8mb4`);
    await server.end();
    const pool = openPool({ ...settings, database }, 4);
    await migrate(pool, join(__dirname, '..', '..', 'src', 'data', 'migrations'));
    const deps = { pool, clock: () => new Date() };
    const owner = { login: 'owner', name: 'Bench Owner', password: 'a bench to sit on' };
    unwrap(await foundCompany(deps, true, { company: 'Bench', currency: 'EUR', timeZone: 'UTC', ...owner }));
    return deps;
  };
  const deps = await books(`vorrat_sheet_${rows}`);
  const actor = {
    userId: 1,
    name: 'Owner',
    initials: 'O',
    role: 'owner' as const,
    locations: null,
    approvalLimit: null,
  };
  const work = async () => {
    while (await workOnce({ id: 'bench', deps }));
  };
  const view = async (importId: number) =>
    unwrap(await readImport(deps, actor, { importId, state: 'unchanged', after: 0 }));
  const request = <I>(input: I) => ({ key: randomBytes(15).toString('base64url'), input });

  const file = { kind: 'items', name: 'items.csv', mostMegabytes: 200 };
  const { importId } = unwrap(await uploadSheet(deps, actor, file, itemChunks(rows)));
  await work();
  const read = await view(importId);
  const mapping = read.reading?.proposed.mapping ?? [];
  const started = performance.now();
  const { version } = read.import;
  unwrap(
    await mapSheet(deps, actor, request({ importId, version, mapping, decimal: '.' as const, dates: 'ymd' as const })),
  );
  await workOnce({ id: 'bench', deps });
  const checked = performance.now();
  const now = await view(importId);
  if (now.import.newRows !== rows) throw new Error(`staged ${JSON.stringify(now.import)}`);
  unwrap(await applySheet(deps, actor, request({ importId, version: now.import.version })));
  await workOnce({ id: 'bench', deps });
  const ended = performance.now();
  if ((await view(importId)).import.state !== 'applied') throw new Error('not applied');
  const megabytes = Math.round(process.resourceUsage().maxRSS / 1024);

  const loads: number[] = [];
  for (let n = 0; n < 3; n += 1) loads.push(await loaded(await books(`vorrat_load_${rows}_${n}`), rows));
  console.log(
    JSON.stringify({
      ...{ rows, stage: checked - started, apply: ended - checked, total: ended - started },
      ...{ load: median(loads), megabytes },
    }),
  );
  await deps.pool.end();
}

/** Milliseconds that LOAD DATA takes for the same rows. */
async function loaded({ pool }: Deps, rows: number): Promise<number> {
  await pool.query("INSERT INTO category (id, name) VALUES (1, 'Bench')");
  const started = performance.now();
  await pool.query({
    sql: `LOAD DATA LOCAL INFILE 'items' INTO TABLE item CHARACTER SET utf8mb4 FIELDS TERMINATED BY ',' OPTIONALLY ENCLOSED BY '"'
          LINES TERMINATED BY '\\n' IGNORE 1 LINES
          (number, name, @category, base_unit, unit_name, maker, maker_number, weight_kg, hs_code, origin, standard_cost,
           sale_price, sale_tax_rate, buyer_note) SET category_id = 1`,
    infileStreamFactory: () => itemStream(rows),
  } as never);
  const ms = performance.now() - started;
  await pool.end();
  return ms;
}

run(Number(process.argv[2])).catch((e) => {
  console.error(e);
  process.exit(1);
});
