import { renumberLinks } from '$core/links';
import type { LinkBundle } from '$core/links';
import type { SitemapEntry } from '$core/sitemap';
import type { FoundFacts } from '$core/snapshot';
import { familyOf } from '$core/traps';
import type { ResultSetHeader } from 'mysql2';
import { boundedMap } from './boundedMap';
import { outcomesOf } from '$core/watch';
import { assertMember } from './crew';
import { hashOf, inRuns, inTransaction } from './database';
import type { Database, Statement } from './database';
import { dictionary } from './dictionary';
import type { Turn } from './frontier';
import { SOURCE_CODING } from './sources';
import { phrase, robotsFile, sitemapEntry, sitemapFile, url } from './schema';
import { sql } from 'drizzle-orm';

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

/** What was found at an address whose turn came. */
export interface PageResult extends FoundFacts {
  turn: Turn;
  links: LinkBundle;
  discoveries: Discovery[];
  source: Source | null;
  /** The head of the answer, a line a field. */
  headers: string | null;
}

export interface SitemapOutcome {
  address: string;
  entries: number;
  passedOver: number;
  fault: string | null;
  faultLine: number | null;
}

const MAX_STATEMENT_BYTES = 4_000_000;
const MAX_STATEMENT_ROWS = 200;
const FRONTIER_ROWS = 1000;

const pageColumns = [
  'crawl_id',
  'url_id',
  'blocked_by',
  'status',
  'error',
  'content_type',
  'headers',
  'html',
  'bytes',
  'response_ms',
  'fetched_at',
  'redirect_to',
  'title',
  'description',
  'h1',
  'language',
  'robots',
  'noindex',
  'page_nofollow',
  'canonical',
  'directives',
  'breadcrumb',
  'words',
  'content_hash',
  'fingerprint',
  'ids',
  'tries',
  'truncated',
  'carried',
  'links',
] as const;

/** The number of a family in the frontier: the first 64 bits of the hash of its pattern. */
export const familyKey = (address: string): Buffer | null => {
  const family = familyOf(address);
  return family && hashOf(family.pattern).subarray(0, 8);
};

/**
 * What a member of a crew writes to the database. Everything may be called again after a lost connection: what was
 * stored stays as it is and counts once.
 */
export function crawlStore(db: Database, crawlId: number, siteId: number, member: number) {
  const { numbersOf: addressNumbers, forget: forgetAddresses } = dictionary(db, url, siteId);
  const { numbersOf: phraseNumbers, forget: forgetPhrases } = dictionary(db, phrase, siteId);
  /** Sources that are known to be stored. */
  const sources = boundedMap<string, true>(50_000);

  type Found = Map<number, Discovery>;

  /** Adds what is new to the frontier and moves forward what was found on a shorter way. @returns how many are new */
  async function discover(run: Statement, found: Found): Promise<number> {
    let added = 0;
    for (const part of inRuns([...found], FRONTIER_ROWS)) {
      const select = 'select url_id, rank from frontier where crawl_id = ? and url_id in (?)';
      const ids = part.map(([id]) => id);
      const known = new Map(
        (await run(select, [crawlId, ids])).map((row) => [row.url_id as number, row.rank as number]),
      );
      const fresh = part.filter(([id]) => !known.has(id));
      let inserted = 0;
      if (fresh.length) {
        const rows = fresh.map(([id, { address, rank, hops }]) => [crawlId, id, rank, hops, familyKey(address)]);
        const insert = 'insert ignore into frontier (crawl_id, url_id, rank, hops, family) values ?';
        inserted = (await run<ResultSetHeader>(insert, [rows])).affectedRows;
      }
      added += inserted;
      // What another worker added in between may stand at a longer way than ours.
      const raced = inserted < fresh.length;
      const nearer = part.filter(([id, { rank }]) => (known.has(id) ? known.get(id)! > rank : raced));
      const byPlace = new Map<string, { rank: number; hops: number; ids: number[] }>();
      for (const [id, { rank, hops }] of nearer) {
        const place = byPlace.get(`${rank} ${hops}`);
        if (place) place.ids.push(id);
        else byPlace.set(`${rank} ${hops}`, { rank, hops, ids: [id] });
      }
      for (const { rank, hops, ids } of byPlace.values()) {
        const update =
          'update frontier set rank = ?, hops = ? where crawl_id = ? and url_id in (?) and rank > ? and done = 0';
        await run(update, [rank, hops, crawlId, ids, rank]);
      }
    }
    return added;
  }

  async function numberDiscoveries(discoveries: readonly Discovery[]): Promise<Found> {
    const numbers = await addressNumbers(new Set(discoveries.map(({ address }) => address)));
    const found: Found = new Map();
    for (const discovery of discoveries) {
      const id = numbers.get(discovery.address)!;
      const before = found.get(id);
      if (!before || before.rank > discovery.rank) found.set(id, discovery);
    }
    // Workers that write the same rows in the same order wait for each other; in different orders they lock up.
    return new Map([...found].sort(([a], [b]) => a - b));
  }

  async function writeDiscoveries(discoveries: readonly Discovery[]): Promise<void> {
    const found = await numberDiscoveries(discoveries);
    await inTransaction(db, async (run) => {
      const added = await discover(run, found);
      if (added) await run('update crawl set known = known + ? where id = ?', [added, crawlId]);
    });
  }

  async function pageRows(results: readonly PageResult[]) {
    const targets = new Set<string>();
    const texts = new Set<string>();
    for (const { links } of results) {
      for (const target of links.addresses) targets.add(target);
      for (const text of links.phrases) texts.add(text);
    }
    texts.delete('');
    const addresses = await addressNumbers(targets);
    const phrases = await phraseNumbers(texts).then((numbers) => numbers.set('', 0));
    const numbered = ({ links }: PageResult) =>
      renumberLinks(
        links.packed,
        links.addresses.map((text) => addresses.get(text)!),
        links.phrases.map((text) => phrases.get(text)!),
      );
    return results.map((page) => [
      crawlId,
      page.turn.urlId,
      page.blockedBy,
      page.status,
      page.error,
      page.contentType,
      page.headers,
      page.html,
      page.bytes,
      page.responseMs,
      page.fetchedAt,
      page.redirectTo,
      page.title,
      page.description,
      page.h1,
      page.language,
      page.robots,
      page.noindex,
      page.pageNofollow,
      page.canonical,
      page.directives,
      page.breadcrumb && JSON.stringify(page.breadcrumb),
      page.words,
      page.contentHash && Buffer.from(page.contentHash, 'hex'),
      page.fingerprint && Buffer.from(page.fingerprint),
      page.ids,
      page.tries,
      page.truncated,
      page.carried,
      Buffer.from(numbered(page)),
    ]);
  }

  async function saveSources(results: readonly PageResult[]): Promise<void> {
    const fresh = new Map<string, Source>();
    for (const { source } of results) {
      if (source && !sources.get(source.hash)) fresh.set(source.hash, source);
    }
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

  return {
    /** Gives back the memory of what it knows, when a crawl has come to its end. */
    forget(): void {
      forgetAddresses();
      forgetPhrases();
      sources.clear();
    },

    /** Puts addresses into the frontier. */
    seed: (addresses: readonly string[], rank: number) =>
      writeDiscoveries(addresses.map((address) => ({ address, rank, hops: 0 }))),

    /**
     * Stores pages and what they led to, all of it or nothing.
     * @throws LostMembership
     */
    async save(results: readonly PageResult[]): Promise<void> {
      const rows = await pageRows(results);
      const found = await numberDiscoveries(results.flatMap(({ discoveries }) => discoveries));
      await saveSources(results);
      await inTransaction(db, async (run) => {
        await assertMember(run, member);
        for (const part of bySize(rows, (row) => 2 * (row[row.length - 1] as Buffer).length + 2000))
          await run(
            `insert into page (${pageColumns.join(', ')}) values ? on duplicate key update crawl_id = crawl_id`,
            [part],
          );
        const done = results.map(({ turn }) => turn.urlId);
        const mark = 'update frontier set done = 1, held_by = null where crawl_id = ? and url_id in (?) and done = 0';
        const { affectedRows } = await run<ResultSetHeader>(mark, [crawlId, done]);
        const added = await discover(run, found);
        // Nothing is marked when an earlier try had come through after all: then it was counted too.
        if (affectedRows === 0) return;
        const kinds = new Map<string, number>();
        for (const kind of results.flatMap(outcomesOf)) kinds.set(kind, (kinds.get(kind) ?? 0) + 1);
        const tallies = [...kinds].sort().map(([kind, n]) => [crawlId, kind, n]);
        await run('insert into tally (crawl_id, kind, n) values ? on duplicate key update n = n + values(n)', [
          tallies,
        ]);
        const unanswered = results.filter(({ error }) => error).length;
        const bytes = results.reduce((sum, page) => sum + (page.bytes ?? 0), 0);
        const unasked = results.filter(({ fetchedAt }) => fetchedAt === null).length;
        await run(
          `update crawl set known = known + ?, done = done + ?, unanswered = unanswered + ?, bytes = bytes + ?,
             asked = greatest(0, asked - ?) where id = ?`,
          [added, affectedRows, unanswered, bytes, unasked, crawlId],
        );
      });
    },

    saveRobots: (file: { origin: string; status: number | null; fault: string | null; body: string }) =>
      db
        .insert(robotsFile)
        .values({ crawlId, originHash: hashOf(file.origin), ...file })
        .onDuplicateKeyUpdate({ set: { status: file.status, fault: file.fault, body: file.body } }),

    /**
     * Stores entries of a sitemap.
     * @param entries their addresses in normal form
     * @param discoveries where in the frontier they belong
     */
    async saveListings(sitemap: string, entries: readonly SitemapEntry[], discoveries: readonly Discovery[]) {
      const numbers = await addressNumbers(new Set([sitemap, ...entries.map(({ loc }) => loc)]));
      const sitemapId = numbers.get(sitemap)!;
      for (const run of inRuns(entries, FRONTIER_ROWS))
        await db
          .insert(sitemapEntry)
          .values(
            run.map(({ loc, lastmod, line }) => ({
              crawlId,
              sitemapId,
              line,
              urlId: numbers.get(loc)!,
              lastmod: lastmod?.slice(0, 64) ?? null,
            })),
          )
          // A row that is there already stays as it is.
          .onDuplicateKeyUpdate({ set: { crawlId: sql`${sitemapEntry.crawlId}` } });
      await writeDiscoveries(discoveries);
    },

    async saveSitemap({ address, ...outcome }: SitemapOutcome) {
      const urlId = (await addressNumbers(new Set([address]))).get(address)!;
      await db
        .insert(sitemapFile)
        .values({ crawlId, urlId, ...outcome })
        .onDuplicateKeyUpdate({ set: outcome });
    },
  };
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

export type CrawlStore = ReturnType<typeof crawlStore>;
