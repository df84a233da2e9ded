import { and, eq, ne, sql } from 'drizzle-orm';
import { job } from '../database/schema';

/** How long a lease holds without being renewed. */
export const LEASE_SECONDS = 30;
export const leaseEnd = sql<Date>`current_timestamp(3) + interval ${sql.raw(String(LEASE_SECONDS))} second`;

/** The job that crawls or analyses a crawl. */
export const isOfCrawl = (crawlId: number) => and(eq(job.crawlId, crawlId), ne(job.kind, 'texts'));
