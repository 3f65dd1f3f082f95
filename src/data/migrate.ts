import { readdirSync, readFileSync } from 'node:fs';
import { join } from 'node:path';
import type { Pool } from 'mysql2/promise';

/** Statements of a migration file: split at a semicolon that ends a line, comments dropped. */
export const statementsOf = (sql: string): string[] =>
  sql
    .replace(/^--.*$/gm, '')
    .split(/;\s*$/m)
    .map((s) => s.trim())
    .filter((s) => s !== '');

export type Migrated = { readonly file: string; readonly statements: number };

/** Brings the schema up to date: one runner at a time; each statement is one step, recorded when done, so a run that was
 *  cut off goes on where it stopped. Refuses when what ran is not a prefix of the files. */
export async function migrate(pool: Pool, folder: string): Promise<Migrated[]> {
  const files = readdirSync(folder)
    .filter((f) => /^\d{4}_\w+\.sql$/.test(f))
    .sort();
  const connection = await pool.getConnection();
  try {
    await connection.query("SELECT GET_LOCK('vorrat_migration', 60)");
    await connection.query(
      'CREATE TABLE IF NOT EXISTS schema_migration (file VARCHAR(80) NOT NULL PRIMARY KEY, steps INT NOT NULL, done TINYINT(1) NOT NULL)',
    );
    const [ran] = (await connection.query(
      'SELECT file, steps, done FROM schema_migration ORDER BY file',
    )) as unknown as [{ file: string; steps: number; done: number }[]];
    ran.forEach((r, i) => {
      if (files[i] !== r.file) throw new Error(`migration ${r.file} ran here but is not number ${i + 1} of the files`);
    });
    const done: Migrated[] = [];
    for (const [i, file] of files.entries()) {
      const state = ran[i];
      if (state?.done) continue;
      const statements = statementsOf(readFileSync(join(folder, file), 'utf8'));
      if (!state) await connection.query('INSERT INTO schema_migration VALUES (?, 0, 0)', [file]);
      for (let step = state?.steps ?? 0; step < statements.length; step += 1) {
        await connection.query(statements[step] as string);
        await connection.query('UPDATE schema_migration SET steps = ? WHERE file = ?', [step + 1, file]);
      }
      await connection.query('UPDATE schema_migration SET done = 1 WHERE file = ?', [file]);
      done.push({ file, statements: statements.length });
    }
    return done;
  } finally {
    await connection.query("SELECT RELEASE_LOCK('vorrat_migration')").catch(() => undefined);
    connection.release();
  }
}
