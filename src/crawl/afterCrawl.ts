import { checkBounds, crawlState, pruneCrawls } from '$server/index';
import type { Database } from '$server/index';

/**
 * What is done once a crawl has ended: its site's watch list is checked, and crawls that it no longer keeps are
 * deleted.
 */
export async function afterCrawl(db: Database, crawlId: number): Promise<void> {
  const crawl = await crawlState(db, crawlId);
  if (!crawl || crawl.deletedAt) return;
  await checkBounds(db, crawl);
  await pruneCrawls(db, crawl.siteId);
}
