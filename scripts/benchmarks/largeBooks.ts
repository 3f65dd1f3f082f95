import { join } from 'node:path';
import type { Pool } from 'mysql2/promise';
import { businessDate } from '@/core/calendar';
import { ok } from '@/core/result';
import { migrate } from '@/data/migrate';
import { type DatabaseSettings, openPool, settingsFromEnvironment } from '@/data/pool';
import { write } from '@/data/transaction';
import { writeCatalogue } from '../demoData/catalogue';
import { seeded } from '../demoData/random';

/** The size that is planned for; smaller where a test only wants to see that a bench runs. */
export const ITEMS = Number(process.env.VORRAT_BENCH_ITEMS ?? 50_000);
export const LOCATIONS = 15;

export const now = new Date('2026-11-23T09:00:00Z');
export const today = businessDate(now, 'Europe/Berlin');

export type LargeBooks = { readonly pool: Pool; readonly settings: DatabaseSettings };
let made: Promise<LargeBooks> | null = null;

/** A large company from the demo's generator, made once for all benches of a run: catalogue, policies and levels, without
 *  movements (the ledger is not measured). */
export function largeBooks(): Promise<LargeBooks> {
  made ??= make();
  return made;
}

export async function endLargeBooks(): Promise<void> {
  if (made) await (await made).pool.end();
}

async function make(): Promise<LargeBooks> {
  const env = process.env;
  const settings = {
    ...settingsFromEnvironment(env),
    user: env.VORRAT_DB_OWNER ?? '',
    password: env.VORRAT_DB_OWNER_PASSWORD ?? '',
    database: 'vorrat_bench',
  };
  const server = openPool({ ...settings, database: '' }, 1);
  await server.query('CREATE DATABASE vorrat_bench CHARACTER SET utf8mb4');
  await server.end();
  const pool = openPool(settings, 2);
  await migrate(pool, join(__dirname, '..', '..', 'src', 'data', 'migrations'));
  const random = seeded(1);
  await write(pool, async (tx) => {
    const placed = await writeCatalogue(tx, today, ITEMS, LOCATIONS);
    await tx.insertMany(
      'INSERT INTO level (item_id, location_id, on_hand, value_minor)',
      placed.map((p) => [p.itemId, p.locationId, Math.round((p.min + (p.max - p.min) * random()) / 1e6), 1]),
      '',
      2000,
    );
    // Measured before, so stored: a run reads use per day as it reads everything else.
    await tx.insertMany(
      'INSERT INTO demand_rate (item_id, location_id, per_day, measured_on)',
      placed.map((p) => [p.itemId, p.locationId, (0.01 + 3 * random()).toFixed(6), today]),
      '',
      2000,
    );
    return ok(undefined);
  });
  return { pool, settings };
}
