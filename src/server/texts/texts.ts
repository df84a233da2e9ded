/** The index of a crawl's texts (src/core/textIndex): what it is made of, its stored form, and what is open of it. */
import { promisify } from 'node:util';
import { brotliCompress, brotliDecompress, constants } from 'node:zlib';
import { and, asc, eq, gt, isNotNull } from 'drizzle-orm';
import { openTextIndex, TEXT_INDEX_VERSION } from '$core/textIndex';
import type { TextIndex, TextParts } from '$core/textIndex';
import { unpackFirstSeen } from '$core/wordings';
import type { FirstSeen } from '$core/wordings';
import { sizedCache } from '../caches';
import type { Crawl } from '../crawls';
import { charsetOf } from '../crawls/pages';
import { readSource } from '../crawls/sources';
import { inTransaction } from '../database';
import type { Database } from '../database';
import { page, source, textChunk, url } from '../database/schema';
import { lockLease } from '../jobs';
import type { Lease } from '../jobs';

/** A page of a crawl whose source is kept. */
export interface StoredPage {
  urlId: number;
  address: string;
  language: string | null;
  bytes: Uint8Array;
  charset: string | undefined;
}

/** Sources that are read together. */
const SOURCES = 50;

/** The pages of a crawl whose sources are kept, in the order of their numbers in the database. */
export async function* storedPages(db: Database, crawlId: number): AsyncGenerator<StoredPage> {
  for (let after = 0; ;) {
    const rows = await db
      .select({
        urlId: page.urlId,
        address: url.text,
        language: page.language,
        headers: page.headers,
        coding: source.coding,
        data: source.data,
      })
      .from(page)
      .innerJoin(url, eq(url.id, page.urlId))
      .innerJoin(source, eq(source.hash, page.contentHash))
      .where(and(eq(page.crawlId, crawlId), gt(page.urlId, after), isNotNull(page.contentHash)))
      .orderBy(asc(page.urlId))
      .limit(SOURCES);
    if (rows.length === 0) return;
    for (const { headers, coding, data, ...row } of rows)
      yield { ...row, bytes: await readSource(coding, data), charset: charsetOf(headers) };
    after = rows[rows.length - 1].urlId;
  }
}

const compress = promisify(brotliCompress);
const decompress = promisify(brotliDecompress);
const QUALITY = 4;
const CHUNK_BYTES = 1 << 20;
/** Which analysis of the crawl the numbers of pages are of. */
const ANALYSIS_PART = 'analysis';

/**
 * Stores the index of a crawl's texts in place of an earlier one.
 * @param analysedAt of the snapshot whose numbers of pages it has
 * @throws lease_lost
 */
export async function storeTexts(db: Database, lease: Lease, parts: TextParts, analysedAt: Date | null): Promise<void> {
  const packed: [name: string, data: Buffer][] = [];
  const options = { params: { [constants.BROTLI_PARAM_QUALITY]: QUALITY } };
  for (const [name, bytes] of parts) packed.push([name, await compress(bytes, options)]);
  packed.push([ANALYSIS_PART, await compress(stampOf(analysedAt))]);
  await inTransaction(db, async (run, send) => {
    await lockLease(run, lease);
    await run('delete from text_chunk where crawl_id = ?', [lease.crawlId]);
    for (const [name, data] of packed)
      for (let seq = 0; seq === 0 || seq * CHUNK_BYTES < data.length; seq++)
        await send('insert into text_chunk (crawl_id, part, seq, data) values (?, ?, ?, ?)', [
          lease.crawlId,
          name,
          seq,
          data.subarray(seq * CHUNK_BYTES, (seq + 1) * CHUNK_BYTES),
        ]);
  });
}

const stampOf = (analysedAt: Date | null) => `${TEXT_INDEX_VERSION} ${analysedAt?.getTime()}`;

/** Since when links have their words (src/core/wordings/firstSeen.ts). */
export const FIRST_SEEN_PART = 'first_seen';

/** Some parts that are stored for a crawl, by their names; all without. */
async function partsOf(db: Database, crawlId: number, only?: string): Promise<TextParts> {
  const rows = await db
    .select({ part: textChunk.part, data: textChunk.data })
    .from(textChunk)
    .where(and(eq(textChunk.crawlId, crawlId), only === undefined ? undefined : eq(textChunk.part, only)))
    .orderBy(asc(textChunk.part), asc(textChunk.seq));
  const chunks = new Map<string, Buffer[]>();
  for (const { part, data } of rows) chunks.set(part, [...(chunks.get(part) ?? []), data]);
  const parts: TextParts = new Map();
  for (const [name, pieces] of chunks) parts.set(name, await decompress(Buffer.concat(pieces)));
  return parts;
}

/** What a crawl tells of when wordings were first seen; null when its texts are not indexed. */
export async function readFirstSeen(db: Database, crawlId: number): Promise<FirstSeen | null> {
  const part = (await partsOf(db, crawlId, FIRST_SEEN_PART)).get(FIRST_SEEN_PART);
  return part ? unpackFirstSeen(part) : null;
}

/** What is stored of an index; null when there is none of this analysis by this version of the program. */
async function readParts(db: Database, { id, analysedAt }: Indexed): Promise<TextParts | null> {
  const parts = await partsOf(db, id);
  const stamp = parts.get(ANALYSIS_PART);
  return stamp && new TextDecoder().decode(stamp) === stampOf(analysedAt) ? parts : null;
}

type Indexed = Pick<Crawl, 'id' | 'analysedAt'>;

const MAX_OPEN_BYTES = 512 << 20;
const open = sizedCache<TextIndex>(MAX_OPEN_BYTES, ({ bytes }) => bytes);
/** Those that are being read: whoever asks meanwhile waits for the same. */
const opening = new Map<string, Promise<TextIndex | null>>();

/** The index of a crawl's texts, kept open for the next question; null when there is none of its last analysis. */
export async function openTexts(db: Database, row: Indexed): Promise<TextIndex | null> {
  const key = `${db.url} ${row.id}@${row.analysedAt?.getTime()}`;
  const known = open.get(key);
  if (known) return known;
  let reading = opening.get(key);
  if (!reading) {
    reading = readParts(db, row)
      .then((parts) => parts && openTextIndex(parts))
      .finally(() => opening.delete(key));
    opening.set(key, reading);
  }
  const index = await reading;
  if (index) open.set(key, index);
  return index;
}
