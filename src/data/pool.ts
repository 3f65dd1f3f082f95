import { createPool, type Pool } from 'mysql2/promise';

export type DatabaseSettings = {
  readonly host: string;
  readonly port: number;
  readonly user: string;
  readonly password: string;
  readonly database: string;
};

/** What strict means here: surplus digits, impossible dates and cut texts are refused, not repaired. */
export const SQL_MODE =
  'STRICT_ALL_TABLES,ONLY_FULL_GROUP_BY,NO_ZERO_DATE,NO_ZERO_IN_DATE,ERROR_FOR_DIVISION_BY_ZERO,NO_ENGINE_SUBSTITUTION';

/** A pool with our conventions: dates and decimals as strings, UTC, strict mode, named placeholders. */
export function openPool(settings: DatabaseSettings, connectionLimit = 10): Pool {
  const pool = createPool({
    ...settings,
    connectionLimit,
    connectTimeout: 4000,
    charset: 'utf8mb4',
    timezone: 'Z',
    dateStrings: true,
    supportBigNumbers: true,
    namedPlaceholders: true,
    maxPreparedStatements: 500,
    // A stack is taken with every statement otherwise, for the one that fails; its text is in the error anyhow.
    trace: process.env.NODE_ENV === 'development',
    // Reads that are asked for together go in one message; see asking.ts. Values in such a text are escaped by the driver.
    multipleStatements: true,
  });
  pool.on('connection', (connection) => {
    // Queued on the new connection ahead of the first statement.
    connection.query(
      `SET SESSION sql_mode='${SQL_MODE}', time_zone='+00:00', innodb_lock_wait_timeout=5, tx_isolation='READ-COMMITTED'`,
    );
  });
  return pool;
}

/** Database settings from the environment, as the start command sets them. */
export function settingsFromEnvironment(env: Record<string, string | undefined>): DatabaseSettings {
  const need = (name: string) => {
    const value = env[name];
    if (!value) throw new Error(`${name} is not set; start with npm run demo or npm run dev`);
    return value;
  };
  return {
    host: '127.0.0.1',
    port: Number(need('VORRAT_DB_PORT')),
    user: need('VORRAT_DB_USER'),
    password: need('VORRAT_DB_PASSWORD'),
    database: env.VORRAT_DB_NAME ?? 'vorrat',
  };
}
