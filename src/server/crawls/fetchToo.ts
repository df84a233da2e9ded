/** Fetching further addresses into a crawl that has ended. */
import type { Database } from '../database';
import { crawlSettings, resumeCrawl } from './crawls';
import type { Crawl } from './crawls';
import { UNLINKED_RANK } from './ranks';
import { openStore, seedFrontier } from './store';

const RUN = 1000;

/**
 * Adds addresses that no link leads to to what a crawl has still to fetch, and resumes it: depth and reach stay right.
 */
export async function fetchToo(
  db: Database,
  { id, siteId }: Pick<Crawl, 'id' | 'siteId'>,
  addresses: readonly string[],
): Promise<void> {
  const store = openStore(db, { id, siteId, settings: await crawlSettings(db, id) }, 0);
  for (let at = 0; at < addresses.length; at += RUN)
    await seedFrontier(store, addresses.slice(at, at + RUN), UNLINKED_RANK);
  await resumeCrawl(db, id);
}
