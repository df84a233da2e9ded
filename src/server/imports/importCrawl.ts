/** An earlier crawl as a source beside a later one: the addresses that answered then. */
import { ROWS_COLUMN } from '$core/imports';
import { addressAt } from '$core/snapshot';
import { crawlState } from '../crawls';
import type { Database } from '../database';
import { openSnapshot } from '../snapshots';
import { saveImport } from './imports';
import { packParts } from './pack';

/** What a crawl is called as a source. */
export const crawlSourceName = ({ id, startedAt }: { id: number; startedAt: Date | null }): string =>
  `Crawl ${id}${startedAt ? ` of ${startedAt.toISOString().slice(0, 10)}` : ''}`;

/**
 * Makes a list of the addresses that answered 2xx in a crawl, with the depth that they had and how many pages linked to
 * them. It counts for the newest crawl at once.
 * @returns its name; null when the site has no such crawl, or it was not analysed
 */
export async function importCrawl(db: Database, siteId: number, crawlId: number): Promise<string | null> {
  const crawl = await crawlState(db, crawlId);
  if (crawl?.siteId !== siteId || crawl.deletedAt) return null;
  const snapshot = await openSnapshot(db, crawl, 'facts');
  if (!snapshot) return null;
  const status = snapshot.column('status');
  const pages = Array.from({ length: snapshot.count }, (_, page) => page).filter(
    (page) => status[page] >= 200 && status[page] < 300,
  );
  const known = (column: Int32Array) => Float64Array.from(pages, (page) => (column[page] < 0 ? NaN : column[page]));
  const name = crawlSourceName(crawl);
  const parts = await packParts({
    addresses: pages.map((page) => addressAt(snapshot, page)),
    columns: {
      [ROWS_COLUMN]: new Float64Array(pages.length).fill(1),
      depth: known(snapshot.column('depth')),
      pages_linking: known(snapshot.column('pages_linking')),
    },
    cells: null,
  });
  const rest = { file: null, digest: null, lines: pages.length, rejected: 0, rejects: [], urls: pages.length };
  await saveImport(db, siteId, { kind: 'list', name, parts, ...rest }, true);
  return name;
}
