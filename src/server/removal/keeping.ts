/** How many old crawls a site keeps. */
import { and, desc, eq, inArray, isNull } from 'drizzle-orm';
import type { Database } from '../database';
import { crawl, site } from '../database/schema';
import { deleteCrawl } from './removal';

/** @param keep ended crawls besides those that are pinned; null for all */
export const keepCrawls = async (db: Database, siteId: number, keep: number | null): Promise<void> =>
  void (await db.update(site).set({ keepCrawls: keep }).where(eq(site.id, siteId)));

/** Keeps a crawl however many newer ones there are, or no longer. */
export const pinCrawl = async (db: Database, id: number, pinned: boolean): Promise<void> =>
  void (await db.update(crawl).set({ pinned }).where(eq(crawl.id, id)));

/**
 * Deletes the oldest crawls of a site beyond those that it keeps, as a person does: they can be brought back for a
 * moment, and a worker removes their rows.
 * @returns the crawls that were deleted
 */
export async function pruneCrawls(db: Database, siteId: number): Promise<number[]> {
  const [own] = await db.select({ keep: site.keepCrawls }).from(site).where(eq(site.id, siteId));
  if (!own || own.keep === null) return [];
  const ended = await db
    .select({ id: crawl.id })
    .from(crawl)
    .where(
      and(
        eq(crawl.siteId, siteId),
        inArray(crawl.state, ['done', 'stopped']),
        eq(crawl.pinned, false),
        isNull(crawl.deletedAt),
      ),
    )
    .orderBy(desc(crawl.id));
  const gone = ended.slice(own.keep).map(({ id }) => id);
  for (const id of gone) await deleteCrawl(db, id);
  return gone;
}
