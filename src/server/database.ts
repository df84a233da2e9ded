import { createHash } from 'node:crypto';
import { fileURLToPath } from 'node:url';
import { existsSync } from 'node:fs';
import { dirname, join } from 'node:path';
import { drizzle } from 'drizzle-orm/mysql2';
import type { MySql2Database } from 'drizzle-orm/mysql2';
import { migrate } from 'drizzle-orm/mysql2/migrator';
import mysql from 'mysql2/promise';
import * as schema from './schema';

export type Database = MySql2Database<typeof schema> & { $client: mysql.Pool };
/** What runs a statement: the database, or a transaction on it. */
export type Runner = Pick<Database, 'select' | 'insert' | 'update' | 'delete' | 'execute'>;

/** Something a person must put right before the program can go on; its message says what. */
export class OperatorError extends Error {}

/** The database that DATABASE_URL names. */
export function databaseUrl(): string {
  const url = process.env.DATABASE_URL;
  if (!url) throw new OperatorError('DATABASE_URL is not set. Start Edge Map with ./edgemap, which sets it.');
  return url;
}

/** Opens a pool of connections; nothing is connected until the first statement. */
export function openDatabase(url = databaseUrl()): Database {
  const pool = mysql.createPool({ uri: url, timezone: 'Z', charset: 'utf8mb4_bin', connectionLimit: 6 });
  // Moments are kept in UTC whatever the server's own zone is.
  pool.on('connection', (connection) => void connection.query(`set time_zone = '+00:00'`));
  return drizzle({ client: pool, schema, mode: 'default', casing: 'snake_case' }) as Database;
}

export const closeDatabase = (db: Database) => db.$client.end();

/** The folder of migrations, seen from the sources as well as from what is built of them. */
function migrationsFolder(): string {
  let folder = dirname(fileURLToPath(import.meta.url));
  while (!existsSync(join(folder, 'drizzle', 'meta'))) {
    if (folder === dirname(folder)) throw new OperatorError('The folder “drizzle” with the migrations is missing.');
    folder = dirname(folder);
  }
  return join(folder, 'drizzle');
}

/** Creates the database if it is missing, and brings its tables up to date. Several processes may ask at once. */
export async function prepareDatabase(url = databaseUrl()): Promise<void> {
  const target = new URL(url);
  const name = decodeURIComponent(target.pathname.slice(1));
  if (!/^\w+$/.test(name)) throw new OperatorError(`DATABASE_URL must name a database, such as …/edgemap.`);
  target.pathname = '/';
  let connection: mysql.Connection;
  try {
    connection = await mysql.createConnection(target.href);
  } catch (error) {
    throw new OperatorError(`The database at ${target.host} does not answer: ${(error as Error).message}`);
  }
  try {
    await connection.query(`create database if not exists \`${name}\` character set utf8mb4 collate utf8mb4_bin`);
    await connection.query(`select get_lock('edgemap.migrate', 120)`);
    const db = openDatabase(url);
    try {
      await migrate(db, { migrationsFolder: migrationsFolder() });
    } finally {
      await closeDatabase(db);
    }
  } finally {
    await connection.end();
  }
}

/** The first 128 bits of SHA-256: how texts of any length are found by an index. */
export const hashOf = (text: string) => createHash('sha256').update(text).digest().subarray(0, 16);

/** Splits a list into runs, so that a statement never grows without bound. */
export function* inRuns<T>(items: readonly T[], size: number): Generator<T[]> {
  for (let at = 0; at < items.length; at += size) yield items.slice(at, at + size);
}

/** True when a statement failed because the database could not be reached, so that trying again may help. */
export function isConnectionLoss(error: unknown): boolean {
  for (let at = error; at instanceof Error; at = at.cause) {
    const { code } = at as { code?: string };
    if (code && /^(PROTOCOL_CONNECTION_LOST|ECONNREFUSED|ECONNRESET|EPIPE|ETIMEDOUT|ER_SERVER_SHUTDOWN)$/.test(code))
      return true;
  }
  return false;
}

let shared: Database | null = null;
/** The one pool of the web application. */
export const appDatabase = () => (shared ??= openDatabase());
