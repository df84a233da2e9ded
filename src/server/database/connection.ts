import { hash } from 'node:crypto';
import { setTimeout as sleep } from 'node:timers/promises';
import { drizzle } from 'drizzle-orm/mysql2';
import type { MySql2Database } from 'drizzle-orm/mysql2';
import mysql from 'mysql2/promise';
import type { RowDataPacket } from 'mysql2/promise';
import * as schema from './schema';
import { failure, isError } from '$core/errors';

export type Database = MySql2Database<typeof schema> & { $client: mysql.Pool; url: string };
/** The database that DATABASE_URL names. */
export function databaseUrl(): string {
  const url = process.env.DATABASE_URL;
  if (!url) throw failure('operator', 'DATABASE_URL is not set.', 'Start Edge Map with ./edgemap, which sets it.');
  return url;
}

/**
 * What holds on every connection, whatever the server's own settings are. Moments are kept in UTC. Values that do not
 * fit are errors. Workers write side by side: locks on gaps between rows would make them wait for each other without
 * need.
 */
const CONNECTION = `set time_zone = '+00:00', tx_isolation = 'READ-COMMITTED', collation_connection = 'utf8mb4_bin',
  sql_mode = 'STRICT_TRANS_TABLES,ERROR_FOR_DIVISION_BY_ZERO,NO_AUTO_CREATE_USER,NO_ENGINE_SUBSTITUTION'`;

/** Opens a pool of connections; nothing is connected until the first statement. */
export function openDatabase(url = databaseUrl()): Database {
  const pool = mysql.createPool({ uri: url, timezone: 'Z', charset: 'utf8mb4_bin', connectionLimit: 6, trace: false });
  pool.on('connection', (connection) => void connection.query(CONNECTION));
  return Object.assign(drizzle({ client: pool, schema, mode: 'default', casing: 'snake_case' }), { url });
}

export const closeDatabase = (db: Database) => db.$client.end();

/** The first 128 bits of SHA-256: how texts of any length are found by an index. */
export const hashOf = (text: string) => hash('sha256', text, 'buffer').subarray(0, 16);

/** Rows that are read at once. */
export const READ_ROWS = 1000;

/**
 * Reads the rows of a table in the order of their addresses, some at a time.
 * @param read gives at most {@link READ_ROWS} rows whose address has a higher number
 */
export async function* inOrder<R extends { urlId: number }>(
  read: (after: number) => Promise<R[]>,
): AsyncGenerator<R[]> {
  let after = 0;
  for (;;) {
    const rows = await read(after);
    yield rows;
    if (rows.length < READ_ROWS) return;
    after = rows[rows.length - 1].urlId;
  }
}

/** Runs one statement and gives what the driver answers. */
export type Statement = <T = RowDataPacket[]>(sql: string, values?: unknown[]) => Promise<T>;

const DEADLOCK_TRIES = 10;
const deadlockCode = /^(ER_LOCK_DEADLOCK|ER_LOCK_WAIT_TIMEOUT|ER_CHECKREAD)$/;

/** True when a statement failed because others stood in its way, so that nothing of it was done. */
function isDeadlock(error: unknown): boolean {
  for (let at = error; at instanceof Error; at = at.cause)
    if (deadlockCode.test((at as { code?: string }).code ?? '')) return true;
  return false;
}

/**
 * Runs statements as one, on one connection; written for the driver itself, for what runs thousands of times in a
 * crawl. Begins again when another transaction stood in its way, so `work` may run more than once.
 * @param work given `run`, which writes values into the statement, and `send`, which sends them beside it: better for
 *   many bytes, and only for statements that are few
 * @param isolation `repeatable read` also locks the gaps between the rows that a locking read meets
 */
export async function inTransaction<T>(
  db: Database,
  work: (run: Statement, send: Statement) => Promise<T>,
  isolation: 'read committed' | 'repeatable read' = 'read committed',
): Promise<T> {
  for (let tries = 1; ; tries++) {
    const connection = await db.$client.getConnection();
    const run = (async (sql: string, values?: unknown[]) => (await connection.query(sql, values))[0]) as Statement;
    const send = (async (sql: string, values?: mysql.ExecuteValues) =>
      (await connection.execute(sql, values))[0]) as Statement;
    try {
      if (isolation !== 'read committed') await connection.query(`set transaction isolation level ${isolation}`);
      await connection.beginTransaction();
      const result = await work(run, send);
      await connection.commit();
      connection.release();
      return result;
    } catch (error) {
      await connection.rollback().then(
        () => connection.release(),
        () => connection.destroy(),
      );
      if (!isDeadlock(error) || tries === DEADLOCK_TRIES) throw error;
    }
  }
}

const OUTAGE_MS = 120_000;
const RETRY_MS = 500;

/**
 * Runs work that may be run again: after a deadlock, when a database that has gone away for a moment is back, and when
 * there is room on its disk again, which only a person can make.
 * @throws the failure itself when the database stays away for two minutes, or when it is another failure
 */
export async function retryOutage<T>(work: () => Promise<T>): Promise<T> {
  const began = Date.now();
  for (let tries = 1; ; tries++) {
    try {
      return await work();
    } catch (error) {
      if (isDeadlock(error) && tries < DEADLOCK_TRIES) continue;
      const mayPass = isDiskFull(error) || (isConnectionLoss(error) && Date.now() - began <= OUTAGE_MS);
      if (!mayPass) throw error;
      await sleep(RETRY_MS);
    }
  }
}

const lossCode =
  /^(PROTOCOL_CONNECTION_LOST|ECONNREFUSED|ECONNRESET|EPIPE|ETIMEDOUT|ENOENT|ER_SERVER_SHUTDOWN|ER_NORMAL_SHUTDOWN|ER_CONNECTION_KILLED|ER_CON_COUNT_ERROR)$/;

/** True when a statement failed because the database could not be reached, so that trying again may help. */
export function isConnectionLoss(error: unknown): boolean {
  for (let at = error; at instanceof Error; at = at.cause) {
    const { code } = at as { code?: string };
    if (isError(at, 'database_lost') || (code && lossCode.test(code))) return true;
    // The driver gives this one no code: the connection had closed before the statement was sent.
    if (at.message.includes('in closed state')) return true;
  }
  return false;
}

const fullCode = /^(ER_DISK_FULL|ER_RECORD_FILE_FULL|ER_DISK_FULL_NOWAIT|ENOSPC)$/;

/** True when a statement failed because the disk of the database is full. */
export function isDiskFull(error: unknown): boolean {
  for (let at = error; at instanceof Error; at = at.cause) {
    const { code } = at as { code?: string };
    // Other failures to write name the number of the system's error (28, ENOSPC) in their text.
    if ((code && fullCode.test(code)) || /No space left on device|Errcode: 28\b/i.test(at.message)) return true;
  }
  return false;
}

let shared: Database | null = null;
/** The one pool of the web application. */
export const appDatabase = () => (shared ??= openDatabase());
