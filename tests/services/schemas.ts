import { randomBytes } from 'node:crypto';
import { join } from 'node:path';
import type { Pool } from 'mysql2/promise';
import { grantRights } from '@/data/grants';
import { migrate } from '@/data/migrate';
import { openPool, settingsFromEnvironment } from '@/data/pool';
import { seedDemo } from '../../scripts/demoData/seed';

export const MONDAY = '2026-11-23T09:00:00Z';
export const migrations = join(__dirname, '..', '..', 'src', 'data', 'migrations');

/** What a schema begins with: tables alone, the few items that most tests work with, or the whole demo company, which stands
 *  in the server from its start (scripts/lib/testData.mjs). */
export type Content = 'empty' | 'small' | 'whole';
const templates: Record<Content, string> = {
  empty: 'vorrat_template_empty',
  small: 'vorrat_template_small',
  whole: 'vorrat',
};

const application = settingsFromEnvironment(process.env);
const owner = {
  ...application,
  user: process.env.VORRAT_DB_OWNER ?? '',
  password: process.env.VORRAT_DB_OWNER_PASSWORD ?? '',
};
const COLLATION = 'CHARACTER SET utf8mb4 COLLATE utf8mb4_unicode_ci';

export const openAsOwner = (database: string, connections = 3) => openPool({ ...owner, database }, connections);
export const openAsApplication = (database: string) => openPool({ ...application, database }, 10);

async function rowsOf<T>(server: Pool, sql: string, values: unknown[] = []): Promise<T[]> {
  return (await server.query(sql, values))[0] as T[];
}

type Table = { readonly name: string; readonly columns: string; readonly nextId: number | null };

/** Tables of a schema with the columns that are written, generated ones being worked out by the server, and the id that its
 *  next row gets. */
const tablesOf = (server: Pool, schema: string) =>
  rowsOf<Table>(
    server,
    `SELECT t.table_name AS name, t.auto_increment AS nextId,
            GROUP_CONCAT(CONCAT('\`', c.column_name, '\`') ORDER BY c.ordinal_position) AS columns
       FROM information_schema.columns c JOIN information_schema.tables t USING (table_schema, table_name)
      WHERE c.table_schema = ? AND c.generation_expression IS NULL GROUP BY t.table_name, t.auto_increment`,
    [schema],
  );

/** As one text on one connection. What it writes was checked when it was written first. */
const unchecked = (server: Pool, schema: string, statements: readonly string[]) =>
  server.query(`USE \`${schema}\`; SET foreign_key_checks = 0, unique_checks = 0; ${statements.join(';\n')};
    SET foreign_key_checks = 1, unique_checks = 1`);

const fill = (from: string) => (t: Table) =>
  `INSERT INTO \`${t.name}\` (${t.columns}) SELECT ${t.columns} FROM \`${from}\`.\`${t.name}\``;

async function copySchema(server: Pool, from: string, to: string): Promise<void> {
  const tables = await tablesOf(server, from);
  const [shown] = await server.query(tables.map((t) => `SHOW CREATE TABLE \`${from}\`.\`${t.name}\``).join(';'));
  const made = (shown as { 'Create Table': string }[][]).map(([row]) => row?.['Create Table'] ?? '');
  await server.query(`CREATE DATABASE \`${to}\` ${COLLATION}`);
  await unchecked(server, to, [...made, ...tables.map(fill(from))]);
}

const exists = async (server: Pool, schema: string) =>
  (await rowsOf(server, 'SELECT 1 FROM information_schema.schemata WHERE schema_name = ?', [schema])).length > 0;

async function makeTemplate(server: Pool, content: Content): Promise<void> {
  const name = templates[content];
  if (await exists(server, name)) return;
  if (content === 'empty') await server.query(`CREATE DATABASE \`${name}\` ${COLLATION}`);
  else {
    await makeTemplate(server, 'empty');
    await copySchema(server, templates.empty, name);
  }
  const pool = openAsOwner(name);
  try {
    if (content === 'empty') await migrate(pool, migrations);
    else await seedDemo(pool, new Date(MONDAY), { small: true });
  } catch (e) {
    await server.query(`DROP DATABASE \`${name}\``);
    throw e;
  } finally {
    await pool.end();
  }
}

/** Rows that were ever changed, by table, as the server counts them (userstat). */
const countsOf = async (server: Pool, schema: string): Promise<ReadonlyMap<string, number>> =>
  new Map(
    (
      await rowsOf<{ name: string; changed: number }>(
        server,
        'SELECT table_name AS name, rows_changed AS changed FROM information_schema.table_statistics WHERE table_schema = ?',
        [schema],
      )
    ).map((t) => [t.name, Number(t.changed)]),
  );

/** Tables in which the server changes rows of its own accord, uncounted, when a row of another is changed. */
const followers = (server: Pool, schema: string) =>
  rowsOf<{ name: string; parent: string }>(
    server,
    `SELECT DISTINCT table_name AS name, referenced_table_name AS parent FROM information_schema.referential_constraints
      WHERE constraint_schema = ? AND (delete_rule IN ('CASCADE', 'SET NULL') OR update_rule IN ('CASCADE', 'SET NULL'))`,
    [schema],
  );

/** What tables a schema has, and when they were made: another text when a test has changed them. */
async function shapeOf(server: Pool, schema: string): Promise<string> {
  const [shape] = await rowsOf<{ shape: string }>(
    server,
    `SELECT CONCAT(COUNT(*), ' ', MAX(create_time), ' ',
            (SELECT COUNT(*) FROM information_schema.columns WHERE table_schema = ?)) AS shape
       FROM information_schema.tables WHERE table_schema = ?`,
    [schema, schema],
  );
  return shape?.shape ?? '';
}

/** Puts a used schema back to what it began with: tables of which rows have changed are filled anew. */
async function restore(server: Pool, schema: string, content: Content, before: ReadonlyMap<string, number>) {
  const now = await countsOf(server, schema);
  const changed = new Set([...now].filter(([t, n]) => n !== (before.get(t) ?? 0)).map(([t]) => t));
  for (const f of await followers(server, schema)) if (changed.has(f.parent)) changed.add(f.name);
  const tables = (await tablesOf(server, templates[content])).filter((t) => changed.has(t.name));
  if (tables.length === 0) return;
  await unchecked(server, schema, [
    ...tables.map((t) => `DELETE FROM \`${t.name}\``),
    ...tables.map(fill(templates[content])),
    ...tables.flatMap((t) => (t.nextId ? [`ALTER TABLE \`${t.name}\` AUTO_INCREMENT = ${t.nextId}`] : [])),
  ]);
}

const SHELF = 'vorrat_shelf';

/** A schema that an earlier test is done with, put back; null when there is none. */
async function reused(server: Pool, content: Content): Promise<string | null> {
  await server.query(`CREATE DATABASE IF NOT EXISTS \`${SHELF}\``);
  await server.query(`CREATE TABLE IF NOT EXISTS \`${SHELF}\`.used (name VARCHAR(64) PRIMARY KEY,
    content VARCHAR(10) NOT NULL, free TINYINT NOT NULL, shape VARCHAR(100) NOT NULL, counts LONGTEXT NOT NULL)`);
  for (;;) {
    const [found] = await rowsOf<{ name: string; shape: string; counts: string }>(
      server,
      `SELECT name, shape, counts FROM \`${SHELF}\`.used WHERE content = ? AND free = 1 LIMIT 1`,
      [content],
    );
    if (!found) return null;
    if ((await shapeOf(server, found.name)) === found.shape) {
      await restore(server, found.name, content, new Map(JSON.parse(found.counts) as [string, number][]));
      return found.name;
    }
    await server.query(`DELETE FROM \`${SHELF}\`.used WHERE name = ?`, [found.name]);
    await server.query(`DROP DATABASE \`${found.name}\``);
  }
}

/** A schema with this content, on which the application has its rights; its name. */
export async function takeSchema(content: Content): Promise<string> {
  const server = openAsOwner('', 1);
  try {
    // One at a time: the first test of a run that needs a template makes it, others wait until it is whole.
    await server.query("SELECT GET_LOCK('vorrat_templates', 300)");
    await makeTemplate(server, content);
    const name = (await reused(server, content)) ?? `vorrat_t${randomBytes(5).toString('hex')}`;
    if (!(await exists(server, name))) {
      await copySchema(server, templates[content], name);
      await grantRights(server, name, application.user);
    }
    const counts = JSON.stringify([...(await countsOf(server, name))]);
    await server.query(`REPLACE INTO \`${SHELF}\`.used VALUES (?, ?, 0, ?, ?)`, [
      name,
      content,
      await shapeOf(server, name),
      counts,
    ]);
    return name;
  } finally {
    // Its lock goes with the connection.
    await server.end();
  }
}

/** Leaves a schema to a later test. */
export async function giveSchemaBack(server: Pool, name: string): Promise<void> {
  await server.query(`UPDATE \`${SHELF}\`.used SET free = 1 WHERE name = ?`, [name]);
}
