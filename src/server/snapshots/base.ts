/** Reads what a crawl found back from its rows, as a base to be analysed. */
import { and, asc, eq, getTableColumns, getTableName, gt, sql } from 'drizzle-orm';
import { alias } from 'drizzle-orm/mysql-core';
import type { RowDataPacket } from 'mysql2';
import type { UnvisitedReason } from '$core/facts';
import { countPackedLinks } from '$core/links';
import { scopeOf } from '$core/scope';
import type { Scope } from '$core/scope';
import { knownLimitOf } from '$core/settings';
import { baseBuilder, nothingFound } from '$core/snapshot';
import type { Base, Check, SiteFiles } from '$core/snapshot';
import type { Crawl } from '../crawls';
import { ASIDE_RANK, MAX_HOPS, RESOURCE_RANK, UNLINKED_RANK } from '../crawls/ranks';
import { inOrder, inRuns, READ_ROWS } from '../database';
import type { Database } from '../database';
import { frontier, page, phrase, robotsFile, sitemapEntry, sitemapFile, url } from '../database/schema';
import { listedAddresses } from '../imports';

type Reading = Pick<Database, 'select'>;

/** Bytes of packed links that hold their number. */
const PACKED_HEAD = 12;

/** Why an address that was never fetched was not. @param left when nothing else speaks against it */
function unvisitedReason(
  row: { rank: number; hops: number; cut: boolean; hostLeft: boolean; address: string },
  { settings, baseId }: Crawl,
  scope: Scope,
  left: UnvisitedReason,
): UnvisitedReason {
  if (!scope.keeps(row.address).keeps) return 'scope';
  if (row.rank >= ASIDE_RANK) return baseId === null ? 'kind' : 'selection';
  if (row.cut) return 'trap';
  if (row.hostLeft) return 'host';
  if (row.hops > MAX_HOPS) return 'hops';
  if (settings.depth !== null && row.rank % UNLINKED_RANK > settings.depth) return 'depth';
  return left;
}

/** Everything that a crawl knows but links: pages, and how those answered that were only checked. */
async function readPages(db: Reading, row: Crawl, left: UnvisitedReason) {
  const scope = scopeOf(row.settings);
  const builder = baseBuilder();
  const withLinks = new Set<number>();
  const checks = new Map<number, Check>();
  const { links, headers, ...columns } = getTableColumns(page);
  // The number of links is at the beginning of what is packed.
  const head = sql<Buffer | null>`left(${links}, ${PACKED_HEAD})`;
  const { urlId, rank, hops, cut, hostLeft } = frontier;
  const place = { urlId, rank, hops, cut, hostLeft };
  const read = (after: number) =>
    db
      .select({ ...place, address: url.text, page: columns, head })
      .from(frontier)
      .innerJoin(url, eq(url.id, frontier.urlId))
      .leftJoin(page, and(eq(page.crawlId, frontier.crawlId), eq(page.urlId, frontier.urlId)))
      .where(and(eq(frontier.crawlId, row.id), gt(frontier.urlId, after)))
      .orderBy(asc(frontier.urlId))
      .limit(READ_ROWS);
  for await (const rows of inOrder(read))
    for (const { page: found, head, ...queued } of rows) {
      const { urlId: number, rank, address } = queued;
      if (rank >= RESOURCE_RANK && rank < ASIDE_RANK) {
        if (found) checks.set(number, { status: found.status, error: found.error });
        continue;
      }
      const linkCount = head ? countPackedLinks(head) : 0;
      if (linkCount) withLinks.add(number);
      builder.addPage({
        number,
        address,
        unvisitedReason: found ? null : unvisitedReason(queued, row, scope, left),
        linkCount,
        found: found ?? nothingFound,
      });
    }
  return { builder, withLinks, checks };
}

/** Hands the packed links of all pages over, some at a time. */
const readLinks = (db: Reading, crawlId: number) =>
  inOrder((after) =>
    db
      .select({ urlId: page.urlId, links: page.links })
      .from(page)
      .where(and(eq(page.crawlId, crawlId), gt(page.urlId, after)))
      .orderBy(asc(page.urlId))
      .limit(READ_ROWS),
  );

/** Written for the driver itself: a large crawl has a hundred thousand texts. */
async function readTexts(db: Database, table: typeof url | typeof phrase, ids: Iterable<number>) {
  const texts = new Map<number, string>();
  for (const run of inRuns([...ids], READ_ROWS)) {
    const select = 'select id, text from ?? where id in (?)';
    const [rows] = await db.$client.query<RowDataPacket[]>(select, [getTableName(table), run]);
    for (const { id, text } of rows) texts.set(id, text);
  }
  return texts;
}

const robotsColumns = {
  origin: robotsFile.origin,
  status: robotsFile.status,
  fault: robotsFile.fault,
  body: robotsFile.body,
  answer: robotsFile.answer,
};

async function readFiles(db: Database, crawlId: number): Promise<SiteFiles> {
  const robots = await db
    .select(robotsColumns)
    .from(robotsFile)
    .where(eq(robotsFile.crawlId, crawlId))
    .orderBy(asc(robotsFile.origin));
  const { entries, skipped, isFeed, fault, faultLine, answer } = sitemapFile;
  const index = alias(url, 'index_url');
  const sitemaps = await db
    .select({ address: url.text, index: index.text, entries, skipped, isFeed, fault, faultLine, answer })
    .from(sitemapFile)
    .innerJoin(url, eq(url.id, sitemapFile.urlId))
    .leftJoin(index, eq(index.id, sitemapFile.indexId))
    .where(eq(sitemapFile.crawlId, crawlId))
    .orderBy(asc(url.text));
  return { robots, sitemaps };
}

async function readListings(db: Database, crawlId: number) {
  const entries = await db
    .select({
      number: sitemapEntry.urlId,
      sitemapId: sitemapEntry.sitemapId,
      line: sitemapEntry.line,
      lastmod: sitemapEntry.lastmod,
      alternates: sitemapEntry.alternates,
    })
    .from(sitemapEntry)
    .where(eq(sitemapEntry.crawlId, crawlId));
  const sitemaps = await readTexts(db, url, new Set(entries.map(({ sitemapId }) => sitemapId)));
  return entries.map(({ sitemapId, alternates, ...entry }) => ({
    ...entry,
    alternates: alternates ?? [],
    sitemap: sitemaps.get(sitemapId) ?? '',
  }));
}

/**
 * The base of a crawl, which may still be running.
 * @param left why addresses that nothing else speaks against have not been fetched
 */
export async function readBase(db: Database, row: Crawl, left: UnvisitedReason): Promise<Base> {
  // All of it as it is at one moment: what pages link to must be among the known addresses.
  const { layout, checks } = await db.transaction(
    async (tx) => {
      const { builder, withLinks, checks } = await readPages(tx, row, left);
      const layout = builder.layOut();
      for await (const rows of readLinks(tx, row.id))
        for (const { urlId, links } of rows) if (withLinks.has(urlId)) layout.addLinks(urlId, links);
      return { layout, checks };
    },
    { isolationLevel: 'repeatable read', accessMode: 'read only' },
  );
  const named = layout.named();
  const outside = await readTexts(db, url, named.outside);
  const { inside } = scopeOf(row.settings);
  const isFull = row.known >= knownLimitOf(row.settings);
  const beyond = isFull ? [...outside].flatMap(([number, address]) => (inside(address) ? [number] : [])) : [];
  return layout.finish({
    starts: [row.settings.start, ...row.settings.starts],
    listed: await listedAddresses(db, row.id),
    checks,
    outside,
    beyond: new Set(beyond),
    phrases: await readTexts(db, phrase, named.phrases),
    listings: await readListings(db, row.id),
    files: await readFiles(db, row.id),
  });
}
