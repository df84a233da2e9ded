import { randomBytes } from 'node:crypto';
import { sql } from 'drizzle-orm';
import { closeDatabase, databaseUrl, openDatabase, prepareDatabase } from '$server/index';
import type { Database } from '$server/index';

export interface TestDatabase {
  db: Database;
  url: string;
  drop: () => Promise<void>;
}

/** A database of its own beside the one that DATABASE_URL names, with all tables. */
export async function testDatabase(): Promise<TestDatabase> {
  const url = new URL(databaseUrl());
  const name = `edgemap_test_${randomBytes(6).toString('hex')}`;
  url.pathname = `/${name}`;
  await prepareDatabase(url.href);
  const db = openDatabase(url.href);
  return {
    db,
    url: url.href,
    drop: async () => {
      await db.execute(sql.raw(`drop database \`${name}\``));
      await closeDatabase(db);
    },
  };
}
