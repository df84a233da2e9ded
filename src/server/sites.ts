import { and, desc, eq, inArray, sql } from 'drizzle-orm';
import { noSecrets, secretsSchema } from '$core/settings';
import type { CrawlSettings, Secrets } from '$core/settings';
import { hashOf } from './database';
import type { Database } from './database';
import { seal, unseal } from './secrets';
import { crawl, job, robotsFile, site, sitemapFile, url } from './schema';

export type Site = typeof site.$inferSelect;
export type Crawl = typeof crawl.$inferSelect;

/**
 * The site with this start address, made if there is none, with these settings from now on.
 * @param secrets headers, cookies and password from now on; those it has are kept when absent
 */
export async function saveSite(db: Database, settings: CrawlSettings, secrets?: Secrets): Promise<number> {
  const startHash = hashOf(settings.start);
  const sealed = secrets && { secrets: hasSecrets(secrets) ? seal(secrets) : null };
  await db
    .insert(site)
    .values({ start: settings.start, startHash, settings, ...sealed })
    .onDuplicateKeyUpdate({ set: { settings, ...sealed } });
  const [row] = await db.select({ id: site.id }).from(site).where(eq(site.startHash, startHash));
  return row.id;
}

const hasSecrets = ({ headers, cookie, basic }: Secrets) => headers.length > 0 || cookie !== '' || basic !== null;

/** What a site or crawl sends with its requests and nobody sees again. */
export const secretsOf = ({ secrets }: Pick<Crawl, 'secrets'>): Secrets =>
  secrets ? secretsSchema.parse(unseal(secrets)) : noSecrets;

/**
 * Adds a crawl, with the secrets of its site, and the job to run it.
 * @param owner when given, the job is leased to it from the beginning and no other worker takes it
 */
export async function addCrawl(db: Database, siteId: number, settings: CrawlSettings, owner?: string): Promise<number> {
  return db.transaction(async (tx) => {
    const [{ secrets }] = await tx.select({ secrets: site.secrets }).from(site).where(eq(site.id, siteId));
    const [{ id }] = await tx.insert(crawl).values({ siteId, settings, secrets }).$returningId();
    await tx
      .insert(job)
      .values(owner ? { crawlId: id, state: 'leased', owner, leaseUntil: leaseEnd } : { crawlId: id });
    return id;
  });
}

/** How long a lease holds without being renewed. */
export const LEASE_SECONDS = 30;
export const leaseEnd = sql<Date>`current_timestamp(3) + interval ${sql.raw(String(LEASE_SECONDS))} second`;

/**
 * Lets a crawl that was stopped, paused or ended at a limit go on where it was; what it had is kept.
 * @param settings the limits it goes on with, when they are others
 */
export async function continueCrawl(db: Database, id: number, settings?: CrawlSettings): Promise<void> {
  await db.transaction(async (tx) => {
    await tx
      .update(crawl)
      .set({
        state: 'waiting',
        reason: null,
        limited: false,
        request: null,
        endedAt: null,
        ...(settings && { settings }),
      })
      .where(eq(crawl.id, id));
    await tx.update(job).set({ state: 'waiting', owner: null, leaseUntil: null }).where(eq(job.crawlId, id));
  });
}

/** Asks the crew of a crawl to stop or pause. A crawl that nobody works on pauses at once. */
export async function askCrew(db: Database, id: number, request: 'stop' | 'pause'): Promise<void> {
  await db.update(crawl).set({ request }).where(eq(crawl.id, id));
  if (request === 'stop') {
    // A paused crawl has no crew; a worker has to take it up in order to end it.
    await db
      .update(job)
      .set({ state: 'waiting' })
      .where(and(eq(job.crawlId, id), eq(job.state, 'paused')));
    return;
  }
  const [result] = await db
    .update(job)
    .set({ state: 'paused' })
    .where(and(eq(job.crawlId, id), eq(job.state, 'waiting')));
  if (result.affectedRows) await db.update(crawl).set({ state: 'paused', request: null }).where(eq(crawl.id, id));
}

export async function getSite(db: Database, id: number): Promise<Site | undefined> {
  return (await db.select().from(site).where(eq(site.id, id)))[0];
}

/** The site that is known by a start address. */
export async function siteByStart(db: Database, start: string): Promise<Site | undefined> {
  return (
    await db
      .select()
      .from(site)
      .where(eq(site.startHash, hashOf(start)))
  )[0];
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

/** The cookies that a crawl has kept; null when there are none. */
export async function crawlCookies(db: Database, id: number): Promise<unknown> {
  const [row] = await db.select({ cookies: crawl.cookies }).from(crawl).where(eq(crawl.id, id));
  return row?.cookies ? unseal(row.cookies) : null;
}

export const saveCookies = (db: Database, id: number, cookies: unknown) =>
  db
    .update(crawl)
    .set({ cookies: seal(cookies) })
    .where(eq(crawl.id, id));
