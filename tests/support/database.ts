import { randomBytes } from 'node:crypto';
import { count, eq, sql } from 'drizzle-orm';
import { closeDatabase, databaseUrl, openDatabase, prepareDatabase } from '$server/index';
import type { Database } from '$server/index';
import { crawlWorker, job, page } from '../../src/server/database/schema';

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

const past = sql`current_timestamp(3) - interval 1 second`;

/** Lets the leases of a crawl run out at once, as they do by themselves some time after a worker has died. */
export async function expireLease(db: Database, crawlId: number): Promise<void> {
  await db.update(job).set({ leaseUntil: past }).where(eq(job.crawlId, crawlId));
  await db.update(crawlWorker).set({ leaseUntil: past }).where(eq(crawlWorker.crawlId, crawlId));
}

/** As {@link expireLease}, for one worker of a crawl. */
export const expireWorker = (db: Database, workerId: number) =>
  db.update(crawlWorker).set({ leaseUntil: past }).where(eq(crawlWorker.id, workerId));

/** How many pages of a crawl are stored. */
export async function storedPages(db: Database, crawlId: number): Promise<number> {
  return (await db.select({ n: count() }).from(page).where(eq(page.crawlId, crawlId)))[0].n;
}
