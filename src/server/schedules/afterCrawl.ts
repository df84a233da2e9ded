import { checkBounds } from '../bounds';
import { crawlState } from '../crawls';
import type { Database } from '../database';
import { pruneCrawls } from './keeping';

/** What is done once a crawl has ended: its site's watch list is checked, and crawls that it no longer keeps are deleted. */
export async function afterCrawl(db: Database, crawlId: number): Promise<void> {
  const crawl = await crawlState(db, crawlId);
  if (!crawl || crawl.deletedAt) return;
  await checkBounds(db, crawl);
  await pruneCrawls(db, crawl.siteId);
}
