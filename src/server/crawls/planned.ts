/** A site that does not exist yet: a crawl that has fetched nothing, for a draft to be put on. */
import type { CrawlSettings } from '$core/settings';
import { dictionary } from '../database';
import type { Database } from '../database';
import { crawl, frontier, job, url } from '../database/schema';

/** Adds a crawl that knows the start page and nothing of it; a worker analyses it. @returns its number */
export async function addPlannedCrawl(db: Database, siteId: number, settings: CrawlSettings): Promise<number> {
  const { start } = settings;
  const urlId = (await dictionary(db, url, siteId).numbersOf(new Set([start]))).get(start)!;
  return db.transaction(async (tx) => {
    const at = new Date();
    const row = { siteId, settings, state: 'done', planned: true, known: 1, startedAt: at, endedAt: at } as const;
    const [{ id }] = await tx.insert(crawl).values(row).$returningId();
    await tx.insert(frontier).values({ crawlId: id, urlId, rank: 0 });
    await tx.insert(job).values({ crawlId: id, kind: 'analysis' });
    return id;
  });
}
