import type { Pool, PoolConnection } from 'mysql2/promise';
import type { Result } from '@/core/result';
import { DatabaseBusy, DatabaseUnavailable, isConnectionFault, isRetryable } from './errors';
import { flushMarks } from './repositories/marks';
import { Tx } from './sql';

const MAX_RETRIES = 5;
const pause = (ms: number) => new Promise((done) => setTimeout(done, ms));

async function connectionOf(pool: Pool): Promise<PoolConnection> {
  try {
    return await pool.getConnection();
  } catch (e) {
    throw isConnectionFault(e) ? new DatabaseUnavailable(e) : e;
  }
}

/** Runs `body` on one connection behind `begin` and before COMMIT; gives the connection back clean, or not at all. */
async function once<T>(
  pool: Pool,
  begin: readonly string[],
  body: (tx: Tx) => Promise<T>,
  keep: (value: T) => boolean,
): Promise<T> {
  const connection = await connectionOf(pool);
  let clean = false;
  try {
    const tx = new Tx(connection, begin);
    const value = await body(tx);
    if (keep(value)) await flushMarks(tx);
    await tx.end(keep(value) ? 'COMMIT' : 'ROLLBACK');
    clean = true;
    return value;
  } catch (e) {
    if (isConnectionFault(e)) throw new DatabaseUnavailable(e);
    clean = await connection.query('ROLLBACK').then(
      () => true,
      () => false,
    );
    throw e;
  } finally {
    if (clean) connection.release();
    else connection.destroy();
  }
}

const SNAPSHOT = [
  'SET TRANSACTION ISOLATION LEVEL REPEATABLE READ',
  'START TRANSACTION WITH CONSISTENT SNAPSHOT, READ ONLY',
];

/** A read of more than one table from one moment. A lost connection (the server was restarted) is tried once more. */
export async function readSnapshot<T>(pool: Pool, body: (tx: Tx) => Promise<T>): Promise<T> {
  const attempt = () => once(pool, SNAPSHOT, body, () => true);
  try {
    return await attempt();
  } catch (e) {
    if (!(e instanceof DatabaseUnavailable)) throw e;
    return attempt();
  }
}

/** A write. An error value rolls back; a deadlock or lock wait rolls back all and is tried again, at most five times.
 *  Errors: throws DatabaseUnavailable (never retried: the idempotency key tells), DatabaseBusy. */
export async function write<T, E>(pool: Pool, body: (tx: Tx) => Promise<Result<T, E>>): Promise<Result<T, E>> {
  for (let attempt = 0; ; attempt += 1) {
    try {
      return await once(pool, ['START TRANSACTION'], body, (r) => r.ok);
    } catch (e) {
      if (!isRetryable(e)) throw e;
      if (attempt >= MAX_RETRIES) throw new DatabaseBusy(e);
      await pause(Math.random() * 20 * 2 ** attempt);
    }
  }
}

/** A step of a write that may fail without the rest: an error value takes back what the step has written. What it marked stays
 *  marked, which is harmless. */
export async function step<T, E>(tx: Tx, body: () => Promise<Result<T, E>>): Promise<Result<T, E>> {
  await tx.run('SAVEPOINT step');
  const done = await body();
  await tx.run(done.ok ? 'RELEASE SAVEPOINT step' : 'ROLLBACK TO SAVEPOINT step');
  return done;
}
