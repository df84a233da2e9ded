/** Sources of URLs besides the crawl: lists of addresses that a person has given. Their addresses are kept packed. */
import { and, asc, desc, eq, inArray, isNull, sql } from 'drizzle-orm';
import { dictionary, inRuns } from '../database';
import type { Database } from '../database';
import { crawlImport, importChunk, url, urlImport } from '../database/schema';
import { packNumbers, unpackNumbers } from './packing';

/** Numbers in one chunk, at eight bytes at most. */
const CHUNK_NUMBERS = 100_000;
const READ_ROWS = 1000;

export interface UrlImport {
  id: number;
  name: string;
  /** How many addresses it holds. */
  urls: number;
}

/** The name of the list that the settings screen edits. */
export const SETTINGS_LIST = 'Settings';

/** The lists of a site that its next crawl uses. */
export const importsOf = (db: Database, siteId: number): Promise<UrlImport[]> =>
  db
    .select({ id: urlImport.id, name: urlImport.name, urls: urlImport.urls })
    .from(urlImport)
    .where(and(eq(urlImport.siteId, siteId), isNull(urlImport.replacedAt)))
    .orderBy(asc(urlImport.id));

/** The lists that a crawl used. */
export const importsOfCrawl = (db: Database, crawlId: number): Promise<UrlImport[]> =>
  db
    .select({ id: urlImport.id, name: urlImport.name, urls: urlImport.urls })
    .from(crawlImport)
    .innerJoin(urlImport, eq(urlImport.id, crawlImport.importId))
    .where(eq(crawlImport.crawlId, crawlId))
    .orderBy(asc(urlImport.id));

/**
 * Stores a list of a site in place of one of the same name. Nothing is stored when that holds the same addresses.
 * @param addresses in normal form; an empty list only takes the earlier one away
 */
export async function saveList(db: Database, siteId: number, name: string, addresses: readonly string[]) {
  const numbers = [...(await dictionary(db, url, siteId).numbersOf(new Set(addresses))).values()];
  const [before] = await db
    .select({ id: urlImport.id })
    .from(urlImport)
    .where(and(eq(urlImport.siteId, siteId), eq(urlImport.name, name), isNull(urlImport.replacedAt)))
    .orderBy(desc(urlImport.id))
    .limit(1);
  if (before) {
    const known = new Set(await numbersOf(db, before.id));
    if (known.size === numbers.length && numbers.every((number) => known.has(number))) return;
  } else if (numbers.length === 0) return;
  const ordered = numbers.sort((a, b) => a - b);
  await db.transaction(async (tx) => {
    if (before)
      await tx
        .update(urlImport)
        .set({ replacedAt: sql`current_timestamp(3)` })
        .where(eq(urlImport.id, before.id));
    if (ordered.length === 0) return;
    const [{ id }] = await tx
      .insert(urlImport)
      .values({ siteId, kind: 'list', name, urls: ordered.length })
      .$returningId();
    let seq = 0;
    for (const run of inRuns(ordered, CHUNK_NUMBERS))
      await tx.insert(importChunk).values({ importId: id, seq: seq++, data: Buffer.from(packNumbers(run)) });
  });
}

async function numbersOf(db: Database, importId: number): Promise<number[]> {
  const chunks = await db
    .select({ data: importChunk.data })
    .from(importChunk)
    .where(eq(importChunk.importId, importId))
    .orderBy(asc(importChunk.seq));
  return chunks.flatMap(({ data }) => unpackNumbers(data));
}

/** The addresses of some imports, each once, some thousand at a time. */
export async function* importedAddresses(db: Database, imports: readonly number[]): AsyncGenerator<string[]> {
  const numbers = new Set<number>();
  for (const id of imports) for (const number of await numbersOf(db, id)) numbers.add(number);
  for (const run of inRuns([...numbers], READ_ROWS)) {
    const rows = await db.select({ text: url.text }).from(url).where(inArray(url.id, run)).orderBy(asc(url.id));
    yield rows.map(({ text }) => text);
  }
}

/** The numbers of the addresses that the lists of a crawl hold. */
export async function listedNumbers(db: Database, crawlId: number): Promise<Set<number>> {
  const numbers = new Set<number>();
  for (const { id } of await importsOfCrawl(db, crawlId))
    for (const number of await numbersOf(db, id)) numbers.add(number);
  return numbers;
}

/** Notes, within a transaction, that a crawl uses the lists that its site has now. */
export const useImports = (db: Pick<Database, 'execute'>, crawlId: number, siteId: number) =>
  db.execute(
    sql`insert into ${crawlImport} (crawl_id, import_id)
        select ${crawlId}, id from ${urlImport} where site_id = ${siteId} and replaced_at is null`,
  );

/** Notes that a crawl uses the lists that another one used. */
export const copyImports = (db: Pick<Database, 'execute'>, crawlId: number, from: number) =>
  db.execute(
    sql`insert ignore into ${crawlImport} (crawl_id, import_id)
        select ${crawlId}, import_id from ${crawlImport} where crawl_id = ${from}`,
  );
