/** Crawls written to a test's database step by step, without a website. */
import { settingsSchema } from '$core/settings';
import type { CrawlSettings } from '$core/settings';
import { bundleLinks } from '$core/links';
import type { Link } from '$core/links';
import { nothingFound } from '$core/snapshot';
import { addCrawl, frontierOf, joinCrawl, openStore, saveSite } from '$server/index';
import type { Database, PageResult, QueuedUrl } from '$server/index';

/** A crawl that has the worker `test`, and its frontier. */
export async function storedCrawl(db: Database, start: string, given: Partial<CrawlSettings> = {}) {
  const settings = settingsSchema.parse({ start, ...given });
  const siteId = await saveSite(db, settings);
  const id = await addCrawl(db, siteId, settings, 'test');
  const worker = await joinCrawl(db, id, 'test');
  return {
    id,
    siteId,
    settings,
    worker,
    store: openStore(db, { id, siteId, settings }, worker),
    frontier: frontierOf(db, id, worker),
  };
}

/** A page that answered 200 with HTML. */
export const pageAt = (
  queued: QueuedUrl,
  discoveries: PageResult['discoveries'] = [],
  links: readonly Link[] = [],
): PageResult => ({
  ...nothingFound,
  queued,
  status: 200,
  html: true,
  bytes: 100,
  fetchedAt: new Date(0),
  title: `Title of ${queued.address}`,
  links: bundleLinks(links),
  discoveries,
  source: null,
  headers: 'content-type: text/html',
  modified: null,
});

export const click = (target: string, anchor = ''): Link => ({
  kind: 'click',
  element: 'a',
  target,
  anchor,
  rel: '',
  placement: 'main',
  above: 'body>main',
  fragment: '',
  line: 1,
  column: 1,
});
