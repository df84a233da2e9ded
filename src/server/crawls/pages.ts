/** What is stored of one page beside the snapshot: the head of its answer, its source, and its text. */
import { and, eq } from 'drizzle-orm';
import type { PageDetails } from '$core/answers';
import { blockAround, sourceLines, sourceText, textBlocks } from '$core/html';
import type { Place, SourceWindow } from '$core/html';
import { hashOf } from '../database';
import type { Database } from '../database';
import { page, source, url } from '../database/schema';
import { readSource } from './sources';

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
  if (urlId === undefined) return { headers: null, hasSource: false };
  const [own] = await db
    .select({ contentHash: page.contentHash, headers: page.headers })
    .from(page)
    .where(and(eq(page.urlId, urlId), eq(page.crawlId, row.id)));
  const [stored] = own?.contentHash
    ? await db
        .select({ size: source.size })
        .from(source)
        .where(eq(source.hash, Buffer.from(own.contentHash, 'hex')))
    : [];
  return {
    headers: own?.headers ?? null,
    hasSource: stored !== undefined,
  };
}

/** The charset that the head of an answer names with its Content-Type. */
export const charsetOf = (headers: string | null): string | undefined =>
  /^content-type:.*?charset\s*=\s*["']?([^\s"';]+)/im.exec(headers ?? '')?.[1];

/** The source of a page as it was received, with the charset of its Content-Type; null when it is not kept. */
export async function storedSource(db: Database, row: { id: number; siteId: number }, address: string) {
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
  return { bytes: await readSource(stored.coding, stored.data), charset: charsetOf(found.headers) };
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

/**
 * The lines of a page, of its text or of its source; null when the source is not kept.
 * @param of `text`: a line a block, as a person reads it
 */
export async function pageLines(
  db: Database,
  row: { id: number; siteId: number },
  address: string,
  of: 'text' | 'source',
): Promise<string[] | null> {
  const stored = await storedSource(db, row, address);
  return stored && (of === 'text' ? textBlocks : sourceText)(stored.bytes, stored.charset);
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
