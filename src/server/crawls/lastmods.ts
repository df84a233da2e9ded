/** When pages were changed last, as far as something shows it. */
import { and, asc, desc, eq, gt, inArray, isNull, lt } from 'drizzle-orm';
import { readW3cDate } from '$core/sitemap';
import { inOrder, READ_ROWS } from '../database';
import type { Database } from '../database';
import { crawl, page, url } from '../database/schema';
import type { Crawl } from './crawls';

/** Earlier crawls that are looked at. */
const MAX_CRAWLS = 50;

/** Hands over the pages of a crawl that were read, some at a time. */
const pagesOf = (db: Database, crawlId: number) =>
  inOrder((after) =>
    db
      .select({
        urlId: page.urlId,
        address: url.text,
        headers: page.headers,
        modified: page.modified,
        hash: page.contentHash,
        fetchedAt: page.fetchedAt,
      })
      .from(page)
      .innerJoin(url, eq(url.id, page.urlId))
      .where(and(eq(page.crawlId, crawlId), gt(page.urlId, after)))
      .orderBy(asc(page.urlId))
      .limit(READ_ROWS),
  );

/** What a page says itself of its last change: the header, else its structured data; nothing that is still to come. */
function saidModified({ headers, modified }: { headers: string | null; modified: string | null }): string | null {
  const found = /^last-modified:\s*(.+)$/im.exec(headers ?? '');
  const time = found ? Date.parse(found[1]) : NaN;
  if (time <= Date.now()) return second(time);
  return modified !== null && (readW3cDate(modified) ?? Infinity) <= Date.now() ? modified : null;
}
const second = (time: number) => new Date(time).toISOString().replace(/\.\d+Z/, 'Z');
const day = (time: Date) => time.toISOString().slice(0, 10);

/**
 * Finds the dates of the last change of pages: what the Last-Modified header or its structured data says, or the day of
 * the crawl that first found the content as it is now, where an earlier crawl found another. Pages of which neither is
 * known are absent.
 * @returns W3C dates by address
 */
export async function lastmodsOf(db: Database, { id, siteId }: Crawl): Promise<Map<string, string>> {
  const found = new Map<string, string>();
  /** Pages that say nothing: their content now, and since when it has been so. */
  const open = new Map<number, { address: string; hash: string; since: Date }>();
  for await (const rows of pagesOf(db, id))
    for (const row of rows) {
      const { urlId, address, hash, fetchedAt } = row;
      const said = saidModified(row);
      if (said !== null) found.set(address, said);
      else if (hash && fetchedAt) open.set(urlId, { address, hash, since: fetchedAt });
    }
  const before = await db
    .select({ id: crawl.id })
    .from(crawl)
    .where(
      and(
        eq(crawl.siteId, siteId),
        lt(crawl.id, id),
        isNull(crawl.deletedAt),
        inArray(crawl.state, ['done', 'stopped']),
      ),
    )
    .orderBy(desc(crawl.id))
    .limit(MAX_CRAWLS);
  for (const earlier of before) {
    if (open.size === 0) break;
    for await (const rows of pagesOf(db, earlier.id))
      for (const { urlId, hash, fetchedAt } of rows) {
        const now = open.get(urlId);
        if (!now || !hash || !fetchedAt) continue;
        if (hash === now.hash) now.since = fetchedAt;
        else {
          found.set(now.address, day(now.since));
          open.delete(urlId);
        }
      }
  }
  return found;
}
