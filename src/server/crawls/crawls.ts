/** Crawls as rows: adding them, what is asked of them, and how they stand. */
import { and, desc, eq, getTableColumns, inArray, isNull, lte, sql } from 'drizzle-orm';
import type { CrawlSettings } from '$core/settings';
import type { Database } from '../database';
import { crawl, frontier, job, robotsFile, site, sitemapFile, url } from '../database/schema';
import { useImports } from '../imports';
import { isOfCrawl, leaseEnd } from '../jobs/lease';
import { seal, unseal } from '../sites/secrets';

export type Crawl = typeof crawl.$inferSelect;

/** The columns that tell how a crawl stands. */
const { settings: _settings, secrets: _secrets, cookies: _cookies, ...stateColumns } = getTableColumns(crawl);
export type CrawlState = Pick<Crawl, keyof typeof stateColumns>;

/**
 * Adds a crawl, with the secrets and the lists of its site, and the job to run it.
 * @param owner when given, the job is leased to it from the beginning and no other worker takes it
 */
export async function addCrawl(
  db: Pick<Database, 'transaction'>,
  siteId: number,
  settings: CrawlSettings,
  owner?: string,
): Promise<number> {
  return db.transaction(async (tx) => {
    const [{ secrets }] = await tx.select({ secrets: site.secrets }).from(site).where(eq(site.id, siteId));
    const [{ id }] = await tx.insert(crawl).values({ siteId, settings, secrets }).$returningId();
    await useImports(tx, id, siteId);
    await tx
      .insert(job)
      .values(owner ? { crawlId: id, state: 'leased', owner, lease: 1, leaseUntil: leaseEnd } : { crawlId: id });
    return id;
  });
}

/**
 * Resumes a crawl that was stopped, paused or ended at a limit; what it had is kept.
 * @param settings the limits it goes on with, when they are others
 */
export async function resumeCrawl(db: Database, id: number, settings?: CrawlSettings): Promise<void> {
  await db.transaction(async (tx) => {
    await tx
      .update(job)
      .set({ kind: 'crawl', state: 'waiting', owner: null, leaseUntil: null, losses: 0 })
      .where(isOfCrawl(id));
    await tx.update(frontier).set({ hostLeft: false }).where(eq(frontier.crawlId, id));
    const anew = { state: 'waiting', reason: null, limited: false, request: null, endedAt: null } as const;
    await tx
      .update(crawl)
      .set({ ...anew, ...(settings && { settings }) })
      .where(eq(crawl.id, id));
  });
}

/** Asks the workers of a crawl to stop or pause. A crawl that no worker works on pauses at once. */
export async function requestCrawl(db: Database, id: number, request: 'stop' | 'pause'): Promise<void> {
  await db.update(crawl).set({ request }).where(eq(crawl.id, id));
  if (request === 'stop') {
    // A paused crawl has no workers; one has to take it up in order to end it.
    await db
      .update(job)
      .set({ state: 'waiting' })
      .where(and(isOfCrawl(id), eq(job.state, 'paused')));
    return;
  }
  const [result] = await db
    .update(job)
    .set({ state: 'paused' })
    .where(and(isOfCrawl(id), eq(job.state, 'waiting')));
  if (result.affectedRows) await db.update(crawl).set({ state: 'paused', request: null }).where(eq(crawl.id, id));
}

/** A crawl with its settings. */
export async function getCrawl(db: Database, id: number): Promise<Crawl | undefined> {
  return (await db.select().from(crawl).where(eq(crawl.id, id)))[0];
}

/** The settings of a crawl as they were. */
export async function crawlSettings(db: Database, id: number): Promise<CrawlSettings> {
  const [row] = await db.select({ settings: crawl.settings }).from(crawl).where(eq(crawl.id, id));
  return row.settings;
}

/** How a crawl stands. */
export async function crawlState(db: Database, id: number): Promise<CrawlState | undefined> {
  return (await db.select(stateColumns).from(crawl).where(eq(crawl.id, id)))[0];
}

/** The crawls of a site that are not deleted, newest first. */
export const crawlsOf = (db: Database, siteId: number, limit = 50): Promise<CrawlState[]> =>
  db
    .select(stateColumns)
    .from(crawl)
    .where(and(eq(crawl.siteId, siteId), isNull(crawl.deletedAt)))
    .orderBy(desc(crawl.id))
    .limit(limit);

/** The newest crawls of all sites that are not deleted, newest first. */
export const recentCrawls = (db: Database, limit: number): Promise<CrawlState[]> =>
  db.select(stateColumns).from(crawl).where(isNull(crawl.deletedAt)).orderBy(desc(crawl.id)).limit(limit);

/** The two newest crawls of each site, newest first: what a list of sites compares. */
export async function newestCrawls(db: Database): Promise<CrawlState[]> {
  const placed = db
    .select({
      id: crawl.id,
      place: sql<number>`row_number() over (partition by ${crawl.siteId} order by ${crawl.id} desc)`.as('place'),
    })
    .from(crawl)
    .where(isNull(crawl.deletedAt))
    .as('placed');
  const newest = db.select({ id: placed.id }).from(placed).where(lte(placed.place, 2));
  return db.select(stateColumns).from(crawl).where(inArray(crawl.id, newest)).orderBy(desc(crawl.id));
}

/** Notes what a crawl is fetching, and for how long it has run since it last said so. */
export const noteProgress = async (db: Database, id: number, current: string | null, ranMs: number): Promise<void> =>
  void (await db
    .update(crawl)
    .set({ current, ranMs: sql`${crawl.ranMs} + ${Math.round(ranMs)}` })
    .where(eq(crawl.id, id)));

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
      skipped: sitemapFile.skipped,
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
