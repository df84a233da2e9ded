/** What is stored of one page beside the snapshot: the head of its answer, its source, and how it was in other crawls. */
import { and, desc, eq, inArray } from 'drizzle-orm';
import type { PageDetails } from '$core/answers';
import { blockAround, sourceLines } from '$core/html';
import type { Place, SourceWindow } from '$core/html';
import { verdictOf } from '$core/verdict';
import { hashOf } from '../database';
import type { Database } from '../database';
import { crawl, page, source, url } from '../database/schema';
import { readSource } from './sources';

const MOST_CRAWLS = 12;

const urlIdOf = async (db: Database, siteId: number, address: string) =>
  (
    await db
      .select({ id: url.id })
      .from(url)
      .where(and(eq(url.siteId, siteId), eq(url.hash, hashOf(address))))
  )[0]?.id;

/** What is stored of a page of a crawl. */
export async function pageDetails(
  db: Database,
  row: { id: number; siteId: number },
  address: string,
): Promise<PageDetails> {
  const urlId = await urlIdOf(db, row.siteId, address);
  if (urlId === undefined) return { headers: null, hasSource: false, history: [] };
  const rows = await db
    .select({
      crawl: crawl.id,
      at: crawl.endedAt,
      found: {
        robotsRule: page.robotsRule,
        status: page.status,
        error: page.error,
        html: page.html,
        noindex: page.noindex,
        canonical: page.canonical,
        redirectTo: page.redirectTo,
        title: page.title,
        wordCount: page.wordCount,
        contentHash: page.contentHash,
        headers: page.headers,
      },
    })
    .from(page)
    .innerJoin(crawl, eq(crawl.id, page.crawlId))
    .where(and(eq(page.urlId, urlId), eq(crawl.siteId, row.siteId), inArray(crawl.state, ['done', 'stopped'])))
    .orderBy(desc(crawl.id))
    .limit(MOST_CRAWLS);
  const own = rows.find(({ crawl }) => crawl === row.id)?.found;
  const [stored] = own?.contentHash
    ? await db
        .select({ size: source.size })
        .from(source)
        .where(eq(source.hash, Buffer.from(own.contentHash, 'hex')))
    : [];
  return {
    headers: own?.headers ?? null,
    hasSource: stored !== undefined,
    history: rows.map(({ crawl, at, found }, i) => {
      const before = rows[i + 1]?.found.contentHash;
      return {
        crawl,
        at: at!,
        verdict: verdictOf({
          unvisited: false,
          blocked: found.robotsRule !== null,
          unanswered: found.error !== null,
          status: found.status,
          redirects: found.redirectTo !== null,
          html: found.html,
          noindex: found.noindex === true,
          canonicalElsewhere: found.canonical !== null && found.canonical !== address,
        }),
        status: found.status,
        title: found.title,
        wordCount: found.wordCount,
        same: before && found.contentHash ? before === found.contentHash : null,
      };
    }),
  };
}

/** The source of a page as it was received, with the charset of its Content-Type; null when it is not kept. */
async function storedSource(db: Database, row: { id: number; siteId: number }, address: string) {
  const urlId = await urlIdOf(db, row.siteId, address);
  if (urlId === undefined) return null;
  const [found] = await db
    .select({ hash: page.contentHash, headers: page.headers })
    .from(page)
    .where(and(eq(page.crawlId, row.id), eq(page.urlId, urlId)));
  if (!found?.hash) return null;
  const [stored] = await db
    .select()
    .from(source)
    .where(eq(source.hash, Buffer.from(found.hash, 'hex')));
  if (!stored) return null;
  const charset = /^content-type:.*?charset\s*=\s*["']?([^\s"';]+)/im.exec(found.headers ?? '')?.[1];
  return { bytes: await readSource(stored.coding, stored.data), charset };
}

/** Some lines of the source of a page; null when it is not kept. */
export async function pageSource(
  db: Database,
  row: { id: number; siteId: number },
  address: string,
  marks: readonly Place[],
  from: number,
  count: number,
): Promise<SourceWindow | null> {
  const stored = await storedSource(db, row, address);
  return stored && sourceLines(stored.bytes, stored.charset, marks, from, count);
}

/** The text of the block in which a link stands; null when the source is not kept. */
export async function linkBlock(
  db: Database,
  row: { id: number; siteId: number },
  address: string,
  place: Place,
): Promise<string | null> {
  const stored = await storedSource(db, row, address);
  return stored && blockAround(stored.bytes, stored.charset, place);
}
