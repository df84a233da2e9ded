/** The sitemaps of a crawl that wait to be read: what is to come stays in the database, as with its frontier. */
import type { ResultSetHeader, RowDataPacket } from 'mysql2';
import type { FetchedSitemap } from '$core/snapshot';
import type { CrawlStore } from './store';

/** Sitemaps that a crawl knows at most. */
export const MAX_SITEMAPS = 50_000;

/** A sitemap to read. */
export interface QueuedSitemap extends Pick<FetchedSitemap, 'address' | 'index'> {
  /** How many indexes lead to it. */
  nesting: number;
}

/** Until it is read, whoever looks at it is told so. */
const NOT_READ = JSON.stringify({ code: 'sitemap_not_read' });

/**
 * Adds the sitemaps that robots.txt, the settings or an index name; those that are known already stay as they are.
 * @returns how many were left out because the crawl knows as many as it may
 */
export async function queueSitemaps(
  { db, crawlId, urls }: CrawlStore,
  addresses: readonly string[],
  { index, nesting }: Omit<QueuedSitemap, 'address'>,
): Promise<number> {
  const known = 'select count(*) as n from sitemap_file where crawl_id = ?';
  const [[{ n }]] = await db.$client.query<RowDataPacket[]>(known, [crawlId]);
  const named = [...new Set(addresses)];
  const taken = named.slice(0, Math.max(0, MAX_SITEMAPS - (n as number)));
  if (taken.length) {
    const numbers = await urls.numbersOf(new Set(index === null ? taken : [...taken, index]));
    const indexId = index === null ? null : numbers.get(index)!;
    const rows = taken.map((address) => [crawlId, numbers.get(address)!, true, nesting, indexId, NOT_READ]);
    const insert = 'insert ignore into sitemap_file (crawl_id, url_id, waiting, nesting, index_id, fault) values ?';
    await db.$client.query<ResultSetHeader>(insert, [rows]);
  }
  return named.length - taken.length;
}

/** The sitemaps to read next, those that fewer indexes lead to first. */
export async function nextSitemaps({ db, crawlId }: CrawlStore, count: number): Promise<QueuedSitemap[]> {
  const [rows] = await db.$client.query<RowDataPacket[]>(
    `select u.text as address, i.text as \`index\`, s.nesting
       from sitemap_file s join url u on u.id = s.url_id left join url i on i.id = s.index_id
      where s.crawl_id = ? and s.waiting = 1 order by s.nesting, s.url_id limit ?`,
    [crawlId, count],
  );
  return rows as unknown as QueuedSitemap[];
}

/** How many sitemaps wait to be read, and how many entries those have that were read. */
export async function sitemapState({ db, crawlId }: CrawlStore): Promise<{ waiting: number; entries: number }> {
  const [[row]] = await db.$client.query<RowDataPacket[]>(
    'select coalesce(sum(waiting), 0) as waiting, coalesce(sum(entries), 0) as entries from sitemap_file where crawl_id = ?',
    [crawlId],
  );
  return { waiting: Number(row.waiting), entries: Number(row.entries) };
}
