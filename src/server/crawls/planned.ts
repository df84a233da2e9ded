/** A site that does not exist yet: a crawl that has fetched nothing, for a draft to be put on. */
import { hashOf } from '../database';
import type { Database } from '../database';
import { crawl, frontier, job, url } from '../database/schema';
import type { CrawlSettings } from '$core/settings';
import { sql } from 'drizzle-orm';

/** Adds a crawl that knows the start page and nothing of it; a worker analyses it. @returns its number */
export const addPlannedCrawl = (db: Database, siteId: number, settings: CrawlSettings): Promise<number> =>
  db.transaction(async (tx) => {
    const at = new Date();
    const row = { siteId, settings, state: 'done', planned: true, known: 1, startedAt: at, endedAt: at } as const;
    const [{ id }] = await tx.insert(crawl).values(row).$returningId();
    const { start } = settings;
    const address = { siteId, hash: hashOf(start), text: start };
    await tx
      .insert(url)
      .values(address)
      .onDuplicateKeyUpdate({ set: { id: sql`last_insert_id(${url.id})` } });
    const [[{ urlId }]] = (await tx.execute(sql`select last_insert_id() as urlId`)) as unknown as [{ urlId: number }[]];
    await tx.insert(frontier).values({ crawlId: id, urlId, rank: 0 });
    await tx.insert(job).values({ crawlId: id, kind: 'analysis' });
    return id;
  });
