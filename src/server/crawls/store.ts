/**
 * What a worker of a crawl writes to the database. Everything may be called again after a lost connection: what was
 * stored stays as it is and counts once.
 */
import { getTableColumns, sql } from 'drizzle-orm';
import { toSnakeCase } from 'drizzle-orm/casing';
import type { ResultSetHeader, RowDataPacket } from 'mysql2';
import { renumberLinks } from '$core/links';
import type { LinkBundle } from '$core/links';
import type { SitemapEntry } from '$core/sitemap';
import type { FoundFacts, FetchedRobots, FetchedSitemap } from '$core/snapshot';
import { familyOf } from '$core/traps';
import { knownLimitOf } from '$core/settings';
import { outcomesOf } from '$core/closedSite';
import { boundedMap } from '../caches';
import { dictionary, hashOf, inRuns, inTransaction } from '../database';
import type { Database, Dictionary, Statement } from '../database';
import { page, phrase, robotsFile, sitemapEntry, sitemapFile, url } from '../database/schema';
import type { Crawl } from './crawls';
import type { QueuedUrl } from './frontier';
import { SOURCE_CODING } from './sources';
import { lockCrawl, lockWorker } from './workers';

/** An address that was found, and where in the frontier it belongs. */
export interface Discovery {
  address: string;
  rank: number;
  hops: number;
}

/** HTML as it was received, compressed by `compressSource`. */
export interface Source {
  /** As a page's `contentHash`. */
  hash: string;
  size: number;
  data: Uint8Array;
}

/** What was found at an address of the frontier. */
export interface PageResult extends FoundFacts {
  queued: QueuedUrl;
  links: LinkBundle;
  discoveries: Discovery[];
  source: Source | null;
  /** The head of the answer, a line a field. */
  headers: string | null;
  /** When the page says that it was changed last, a W3C date. */
  modified: string | null;
}

const MAX_STATEMENT_BYTES = 4_000_000;
const MAX_STATEMENT_ROWS = 200;
const FRONTIER_ROWS = 1000;
/** Sources that are remembered as stored. */
const KNOWN_SOURCES = 50_000;

/** The number of a family in the frontier: the first 64 bits of the hash of its pattern. */
export const familyKey = (address: string): Buffer | null => {
  const family = familyOf(address);
  return family && hashOf(family.pattern).subarray(0, 8);
};

/** What the functions of this file have in common for one worker of one crawl. */
export interface CrawlStore {
  db: Database;
  crawlId: number;
  workerId: number;
  /** Addresses that may be known at most. */
  knownLimit: number;
  urls: Dictionary;
  phrases: Dictionary;
  /** Hashes of sources that are known to be stored. */
  sources: ReturnType<typeof boundedMap<string, true>>;
}

export const openStore = (
  db: Database,
  { id: crawlId, siteId, settings }: Pick<Crawl, 'id' | 'siteId' | 'settings'>,
  workerId: number,
): CrawlStore => ({
  db,
  crawlId,
  workerId,
  knownLimit: knownLimitOf(settings),
  urls: dictionary(db, url, siteId),
  phrases: dictionary(db, phrase, siteId),
  sources: boundedMap(KNOWN_SOURCES),
});

/** Gives back the memory of what a store knows, when a crawl has come to its end. */
export function forgetStore({ urls, phrases, sources }: CrawlStore): void {
  urls.forget();
  phrases.forget();
  sources.clear();
}

type Found = Map<number, Discovery>;

async function numberDiscoveries({ urls }: CrawlStore, discoveries: readonly Discovery[]): Promise<Found> {
  const numbers = await urls.numbersOf(new Set(discoveries.map(({ address }) => address)));
  const found: Found = new Map();
  for (const discovery of discoveries) {
    const id = numbers.get(discovery.address)!;
    const before = found.get(id);
    if (!before || before.rank > discovery.rank) found.set(id, discovery);
  }
  // Workers that write the same rows in the same order wait for each other; in different orders they lock up.
  return new Map([...found].sort(([a], [b]) => a - b));
}

/**
 * Adds what is new to the frontier, as far as more may be known, and moves forward what was found on a shorter route.
 * @param room how many may be added
 * @returns how many are new
 */
async function addToFrontier(run: Statement, crawlId: number, found: Found, room: number): Promise<number> {
  let added = 0;
  for (const part of inRuns([...found], FRONTIER_ROWS)) {
    const ids = part.map(([id]) => id);
    const rows = await run('select url_id, rank from frontier where crawl_id = ? and url_id in (?)', [crawlId, ids]);
    const known = new Map(rows.map((row) => [row.url_id as number, row.rank as number]));
    const fresh = part.filter(([id]) => !known.has(id)).slice(0, Math.max(0, room - added));
    let inserted = 0;
    if (fresh.length) {
      const values = fresh.map(([id, { address, rank, hops }]) => [crawlId, id, rank, hops, familyKey(address)]);
      const insert = 'insert ignore into frontier (crawl_id, url_id, rank, hops, family) values ?';
      inserted = (await run<ResultSetHeader>(insert, [values])).affectedRows;
    }
    added += inserted;
    // What another worker added in between may be at a longer route than ours.
    const raced = inserted < fresh.length;
    const nearer = part.filter(([id, { rank }]) => (known.has(id) ? known.get(id)! > rank : raced));
    await moveForward(run, crawlId, nearer);
  }
  return added;
}

async function moveForward(run: Statement, crawlId: number, nearer: [number, Discovery][]): Promise<void> {
  const byPlace = new Map<string, { rank: number; hops: number; ids: number[] }>();
  for (const [id, { rank, hops }] of nearer) {
    const place = byPlace.get(`${rank} ${hops}`);
    if (place) place.ids.push(id);
    else byPlace.set(`${rank} ${hops}`, { rank, hops, ids: [id] });
  }
  const update =
    'update frontier set rank = ?, hops = ? where crawl_id = ? and url_id in (?) and rank > ? and done = 0';
  for (const { rank, hops, ids } of byPlace.values()) await run(update, [rank, hops, crawlId, ids, rank]);
}

async function saveDiscoveries(store: CrawlStore, discoveries: readonly Discovery[]): Promise<void> {
  if (await isFull(store)) return;
  const found = await numberDiscoveries(store, discoveries);
  await inTransaction(store.db, async (run) => {
    const { known } = await lockCrawl(run, store.crawlId);
    const added = await addToFrontier(run, store.crawlId, found, store.knownLimit - known);
    if (added) await run('update crawl set known = known + ? where id = ?', [added, store.crawlId]);
  });
}

/** Puts addresses into the frontier. */
export const seedFrontier = (store: CrawlStore, addresses: readonly string[], rank: number) =>
  saveDiscoveries(
    store,
    addresses.map((address) => ({ address, rank, hops: 0 })),
  );

/** The columns of the table of pages in the order of the schema, each with how its values are written. */
export const pageColumns = Object.entries(getTableColumns(page)).map(([name, column]) => ({
  name: name as keyof typeof page.$inferInsert,
  sqlName: toSnakeCase(name),
  write: (value: unknown) => (value === null || value === undefined ? null : column.mapToDriverValue(value)),
}));

type Row = unknown[];

/** The rows of pages, with the texts of their links numbered. */
async function pageRows({ urls, phrases, crawlId }: CrawlStore, results: readonly PageResult[]): Promise<Row[]> {
  const targets = new Set<string>();
  const texts = new Set<string>();
  for (const { links } of results) {
    for (const target of links.addresses) targets.add(target);
    for (const text of links.phrases) texts.add(text);
  }
  texts.delete('');
  const addresses = await urls.numbersOf(targets);
  const phraseNumbers = (await phrases.numbersOf(texts)).set('', 0);
  return results.map((result) => {
    const { packed, addresses: own, phrases: said } = result.links;
    const links = renumberLinks(
      packed,
      own.map((text) => addresses.get(text)!),
      said.map((text) => phraseNumbers.get(text)!),
    );
    const values = { ...result, crawlId, urlId: result.queued.urlId, links: Buffer.from(links) };
    return pageColumns.map(({ name, write }) => write(values[name as keyof typeof values]));
  });
}

async function saveSources({ db, sources }: CrawlStore, results: readonly PageResult[]): Promise<void> {
  const fresh = new Map<string, Source>();
  for (const { source } of results) if (source && !sources.get(source.hash)) fresh.set(source.hash, source);
  // Bytes go beside the statement: written into it they are twice as many, to be made here and undone there.
  for (const part of bySize([...fresh.values()], ({ data }) => data.length)) {
    const rows = part.map(() => '(?, ?, ?, ?)').join(', ');
    const values = part.flatMap(({ hash, size, data }) => [
      Buffer.from(hash, 'hex'),
      size,
      SOURCE_CODING,
      Buffer.from(data.buffer, data.byteOffset, data.length),
    ]);
    await db.$client.execute(`insert ignore into source (hash, size, coding, data) values ${rows}`, values);
  }
  for (const name of fresh.keys()) sources.set(name, true);
}

const insertPages = `insert into page (${pageColumns.map(({ sqlName }) => sqlName).join(', ')}) values ?
  on duplicate key update crawl_id = crawl_id`;

/** Roughly how many bytes a row takes in a statement; bytes are written in two digits each. */
const rowBytes = (row: Row) =>
  row.reduce<number>(
    (sum, value) =>
      sum + (typeof value === 'string' ? value.length * 2 : Buffer.isBuffer(value) ? value.length * 2 : 12),
    0,
  );

/**
 * Stores pages and what they led to, all of it or nothing.
 * @throws membership_lost
 */
export async function savePages(store: CrawlStore, results: readonly PageResult[]): Promise<void> {
  const { db, crawlId, workerId, knownLimit } = store;
  const rows = await pageRows(store, results);
  const found = await numberDiscoveries(
    store,
    results.flatMap(({ discoveries }) => discoveries),
  );
  await saveSources(store, results);
  await inTransaction(db, async (run) => {
    await lockWorker(run, workerId);
    for (const part of bySize(rows, rowBytes)) await run(insertPages, [part]);
    const { known } = await lockCrawl(run, crawlId);
    const done = results.map(({ queued }) => queued.urlId);
    const mark = 'update frontier set done = 1, held_by = null where crawl_id = ? and url_id in (?) and done = 0';
    const { affectedRows } = await run<ResultSetHeader>(mark, [crawlId, done]);
    const added = await addToFrontier(run, crawlId, found, knownLimit - known);
    // Nothing is marked when an earlier try had come through after all: then it was counted too.
    if (affectedRows > 0) await count(run, crawlId, results, affectedRows, added);
  });
}

/** Adds stored pages to the counts of their crawl. */
async function count(run: Statement, crawlId: number, results: readonly PageResult[], done: number, added: number) {
  const kinds = new Map<string, number>();
  for (const kind of results.flatMap(outcomesOf)) kinds.set(kind, (kinds.get(kind) ?? 0) + 1);
  const tallies = [...kinds].sort().map(([kind, n]) => [crawlId, kind, n]);
  await run('insert into tally (crawl_id, kind, n) values ? on duplicate key update n = n + values(n)', [tallies]);
  const unanswered = results.filter(({ error }) => error).length;
  const bytes = results.reduce((sum, { bytes }) => sum + (bytes ?? 0), 0);
  const unasked = results.filter(({ fetchedAt }) => fetchedAt === null).length;
  await run(
    `update crawl set known = known + ?, done = done + ?, unanswered = unanswered + ?, bytes = bytes + ?,
       asked = greatest(0, asked - ?) where id = ?`,
    [added, done, unanswered, bytes, unasked, crawlId],
  );
}

/** Stores how a robots.txt was answered. */
export const saveRobots = ({ db, crawlId }: CrawlStore, { origin, ...outcome }: FetchedRobots) =>
  db
    .insert(robotsFile)
    .values({ crawlId, originHash: hashOf(origin), origin, ...outcome })
    .onDuplicateKeyUpdate({ set: outcome });

/** Whether a crawl knows as many addresses as it may. */
async function isFull({ db, crawlId, knownLimit }: CrawlStore): Promise<boolean> {
  const [[row]] = await db.$client.query<RowDataPacket[]>('select known from crawl where id = ?', [crawlId]);
  return row !== undefined && row.known >= knownLimit;
}

/**
 * Stores entries of a sitemap: of a crawl that knows as many addresses as it may, only those of known ones.
 * @param entries their addresses in normal form
 * @param rankOf where in the frontier an address belongs
 */
export async function saveListings(
  store: CrawlStore,
  sitemap: string,
  entries: readonly SitemapEntry[],
  rankOf: (address: string) => number,
): Promise<void> {
  const { db, crawlId, urls } = store;
  const addresses = new Set(entries.map(({ loc }) => loc));
  const full = await isFull(store);
  const numbers = full ? await urls.known(addresses) : await urls.numbersOf(addresses);
  const listed = full ? entries.filter(({ loc }) => numbers.has(loc)) : entries;
  const sitemapId = (await urls.numbersOf(new Set([sitemap]))).get(sitemap)!;
  for (const run of inRuns(listed, FRONTIER_ROWS))
    await db
      .insert(sitemapEntry)
      .values(
        run.map(({ loc, lastmod, alternates, line }) => ({
          crawlId,
          sitemapId,
          line,
          urlId: numbers.get(loc)!,
          lastmod: lastmod?.slice(0, 64) ?? null,
          alternates: alternates?.length ? alternates : null,
        })),
      )
      // A row that is there already stays as it is.
      .onDuplicateKeyUpdate({ set: { crawlId: sql`${sitemapEntry.crawlId}` } });
  if (!full)
    await saveDiscoveries(
      store,
      [...addresses].map((address) => ({ address, rank: rankOf(address), hops: 0 })),
    );
}

/** Stores how the reading of a sitemap went. */
export async function saveSitemap({ db, crawlId, urls }: CrawlStore, { address, index, ...outcome }: FetchedSitemap) {
  const numbers = await urls.numbersOf(new Set(index === null ? [address] : [address, index]));
  const row = { ...outcome, indexId: index === null ? null : numbers.get(index)!, waiting: false };
  await db
    .insert(sitemapFile)
    .values({ crawlId, urlId: numbers.get(address)!, ...row })
    .onDuplicateKeyUpdate({ set: row });
}

/** Splits rows into runs that one statement can carry. */
function bySize<T>(rows: readonly T[], size: (row: T) => number): T[][] {
  const runs: T[][] = [];
  let bytes = 0;
  for (const row of rows) {
    const own = size(row);
    const last = runs[runs.length - 1];
    if (last && last.length < MAX_STATEMENT_ROWS && bytes + own <= MAX_STATEMENT_BYTES) last.push(row);
    else {
      runs.push([row]);
      bytes = 0;
    }
    bytes += own;
  }
  return runs;
}
