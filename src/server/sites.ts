import { desc, eq, inArray, sql } from 'drizzle-orm';
import type { CrawlSettings } from '$core/settings';
import { hashOf } from './database';
import type { Database } from './database';
import { crawl, job, robotsFile, site, sitemapFile, url } from './schema';

export type Site = typeof site.$inferSelect;
export type Crawl = typeof crawl.$inferSelect;

/** The site with this start address, made if there is none, with these settings from now on. */
export async function saveSite(db: Database, settings: CrawlSettings): Promise<number> {
  const startHash = hashOf(settings.start);
  await db
    .insert(site)
    .values({ start: settings.start, startHash, settings })
    .onDuplicateKeyUpdate({ set: { settings } });
  const [row] = await db.select({ id: site.id }).from(site).where(eq(site.startHash, startHash));
  return row.id;
}

/**
 * Adds a crawl and the job to run it.
 * @param owner when given, the job is leased to it from the beginning and no other worker takes it
 */
export async function addCrawl(db: Database, siteId: number, settings: CrawlSettings, owner?: string): Promise<number> {
  return db.transaction(async (tx) => {
    const [{ id }] = await tx.insert(crawl).values({ siteId, settings }).$returningId();
    await tx
      .insert(job)
      .values(owner ? { crawlId: id, state: 'leased', owner, leaseUntil: leaseEnd } : { crawlId: id });
    return id;
  });
}

/** How long a lease holds without being renewed. */
const LEASE_SECONDS = 30;
export const leaseEnd = sql<Date>`current_timestamp(3) + interval ${sql.raw(String(LEASE_SECONDS))} second`;

/** Lets a crawl that was stopped go on where it was; what it had is kept. */
export async function continueCrawl(db: Database, id: number): Promise<void> {
  await db.transaction(async (tx) => {
    await tx
      .update(crawl)
      .set({ state: 'waiting', reason: null, stopRequested: false, endedAt: null })
      .where(eq(crawl.id, id));
    await tx.update(job).set({ state: 'waiting', owner: null, leaseUntil: null }).where(eq(job.crawlId, id));
  });
}

export const requestStop = (db: Database, id: number) =>
  db.update(crawl).set({ stopRequested: true }).where(eq(crawl.id, id));

export async function getSite(db: Database, id: number): Promise<Site | undefined> {
  return (await db.select().from(site).where(eq(site.id, id)))[0];
}

export async function getCrawl(db: Database, id: number): Promise<Crawl | undefined> {
  return (await db.select().from(crawl).where(eq(crawl.id, id)))[0];
}

/** The crawls of a site, newest first. */
export const crawlsOf = (db: Database, siteId: number, limit = 50): Promise<Crawl[]> =>
  db.select().from(crawl).where(eq(crawl.siteId, siteId)).orderBy(desc(crawl.id)).limit(limit);

/** All sites with their newest crawl, the most recently crawled first. */
export async function sitesWithNewestCrawl(db: Database): Promise<{ site: Site; newest: Crawl | undefined }[]> {
  const sites = await db.select().from(site);
  const newest = db
    .select({ id: sql<number>`max(${crawl.id})`.as('newest_id') })
    .from(crawl)
    .groupBy(crawl.siteId);
  const crawls = sites.length ? await db.select().from(crawl).where(inArray(crawl.id, newest)) : [];
  const bySite = new Map(crawls.map((row) => [row.siteId, row]));
  return sites
    .map((row) => ({ site: row, newest: bySite.get(row.id) }))
    .sort((a, b) => (b.newest?.id ?? 0) - (a.newest?.id ?? 0));
}

/** The files a crawl read besides pages: robots.txt of each origin, and sitemaps with what was wrong with them. */
export async function filesOf(db: Database, crawlId: number) {
  const robots = await db
    .select({ origin: robotsFile.origin, status: robotsFile.status, fault: robotsFile.fault })
    .from(robotsFile)
    .where(eq(robotsFile.crawlId, crawlId));
  const sitemaps = await db
    .select({
      address: url.text,
      entries: sitemapFile.entries,
      passedOver: sitemapFile.passedOver,
      fault: sitemapFile.fault,
      line: sitemapFile.faultLine,
    })
    .from(sitemapFile)
    .innerJoin(url, eq(url.id, sitemapFile.urlId))
    .where(eq(sitemapFile.crawlId, crawlId))
    .orderBy(sitemapFile.urlId)
    .limit(200);
  return { robots, sitemaps };
}
