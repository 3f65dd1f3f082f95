/** The database could not be reached. Pages and handlers say so; nothing was changed. */
export class DatabaseUnavailable extends Error {
  readonly digest = 'database_unavailable';
  constructor(cause: unknown) {
    super('database unavailable', { cause });
    this.name = 'DatabaseUnavailable';
  }
}

/** Retried often enough and still in each other's way; nothing was changed. */
export class DatabaseBusy extends Error {
  readonly digest = 'database_busy';
  constructor(cause: unknown) {
    super('database busy', { cause });
    this.name = 'DatabaseBusy';
  }
}

type Fault = { errno?: number; code?: string; fatal?: boolean };

/** MariaDB error numbers: 1213 deadlock, 1205 lock wait timeout. Both leave nothing behind after a rollback. */
export const isRetryable = (e: unknown): boolean => [1213, 1205].includes((e as Fault)?.errno ?? 0);

/** 1062 duplicate entry for a unique key. */
export const isDuplicate = (e: unknown): boolean => (e as Fault)?.errno === 1062;

/** 1451 a row that something refers to. */
export const isReferenced = (e: unknown): boolean => (e as Fault)?.errno === 1451;

const connectionCodes = new Set([
  'ECONNREFUSED',
  'ECONNRESET',
  'ENOENT',
  'EPIPE',
  'ETIMEDOUT',
  'PROTOCOL_CONNECTION_LOST',
  'PROTOCOL_ENQUEUE_AFTER_FATAL_ERROR',
  'ER_SERVER_SHUTDOWN',
]);

/** The connection is gone or was never made (1053, 1152, 1927: the server went away under it). A fatal fault without a
 *  number is mysql2's own word for a connection that was already closed. */
export function isConnectionFault(e: unknown): boolean {
  const { code = '', errno, fatal } = (e ?? {}) as Fault;
  if (fatal && errno === undefined) return true;
  return connectionCodes.has(code) || [1053, 1152, 1927, 2006, 2013].includes(errno ?? 0);
}
