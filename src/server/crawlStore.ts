import { and, asc, between, count, eq, inArray, isNotNull, lte, notInArray, or, sql, sum } from 'drizzle-orm';
import type { AnyMySqlColumn } from 'drizzle-orm/mysql-core';
import { packLinks } from '$core/links';
import type { Link } from '$core/links';
import type { SitemapEntry } from '$core/sitemap';
import type { FoundFacts } from '$core/snapshot';
import { hashOf, inRuns } from './database';
import type { Database, Runner } from './database';
import { boundedMap } from './boundedMap';
import { dictionary } from './dictionary';
import { frontier, page, phrase, robotsFile, sitemapEntry, sitemapFile, url } from './schema';

/**
 * Ranks order the frontier: clicks from the start, then, from this number on, clicks from an address that only another
 * source than links knows.
 */
export const UNLINKED_RANK = 1_000_000;
/** Redirects in a row that are followed. */
export const MAX_HOPS = 10;

/** An address whose turn has come. */
export interface Turn {
  urlId: number;
  address: string;
  rank: number;
  hops: number;
}

/** An inside address that was found. */
export interface Discovery {
  address: string;
  rank: number;
  hops: number;
}

/** What was found at an address whose turn came. */
export interface PageResult extends FoundFacts {
  turn: Turn;
  fetchedAt: Date | null;
  links: Link[];
  discoveries: Discovery[];
}

export interface SitemapOutcome {
  address: string;
  entries: number;
  passedOver: number;
  fault: string | null;
  faultLine: number | null;
}

/** A row that is there already stays as it is. (`insert ignore` would also bend values that do not fit.) */
const keepFirst = (crawlId: AnyMySqlColumn) => ({ set: { crawlId: sql`${crawlId}` } });

const MAX_STATEMENT_BYTES = 4_000_000;
const MAX_STATEMENT_ROWS = 200;

/** What a running crawl reads from and writes to the database. One process at a time writes for a crawl. */
export function crawlStore(db: Database, crawlId: number, siteId: number) {
  const addressNumbers = dictionary(db, url, siteId);
  const phraseNumbers = dictionary(db, phrase, siteId);
  /** The best rank written for an address, to spare the database what it knows. */
  const ranks = boundedMap<number, number>(500_000);
  const waiting = and(eq(frontier.crawlId, crawlId), eq(frontier.done, false), lte(frontier.hops, MAX_HOPS));
  // Writes follow one another, so that a sitemap read beside the crawl never races it.
  let last: Promise<unknown> = Promise.resolve();
  const inTurn = <T>(work: () => Promise<T>): Promise<T> => {
    const next = last.then(work, work);
    last = next.catch(() => {});
    return next;
  };

  /** Adds what is new to the frontier and moves forward what was found on a shorter way. @returns how many are new */
  async function discover(run: Runner, found: Map<number, { rank: number; hops: number }>): Promise<number> {
    const unsure = [...found].filter(([id, { rank }]) => (ranks.get(id) ?? Infinity) > rank);
    let added = 0;
    for (const part of inRuns(unsure, 1000)) {
      const known = new Map(
        (await run
            .select({ id: frontier.urlId, rank: frontier.rank })
            .from(frontier)
            .where(and(eq(frontier.crawlId, crawlId), inArray(frontier.urlId, part.map(([id]) => id))))) // prettier-ignore
          .map(({ id, rank }) => [id, rank]),
      );
      const fresh = part.filter(([id]) => !known.has(id));
      if (fresh.length)
        await run.insert(frontier).values(fresh.map(([urlId, { rank, hops }]) => ({ crawlId, urlId, rank, hops })));
      for (const [urlId, { rank, hops }] of part)
        if ((known.get(urlId) ?? -1) > rank)
          await run
            .update(frontier)
            .set({ rank, hops })
            .where(and(eq(frontier.crawlId, crawlId), eq(frontier.urlId, urlId)));
      added += fresh.length;
    }
    return added;
  }

  const remember = (found: Map<number, { rank: number }>) => {
    for (const [id, { rank }] of found) if ((ranks.get(id) ?? Infinity) > rank) ranks.set(id, rank);
  };

  async function numberDiscoveries(discoveries: readonly Discovery[]) {
    const numbers = await addressNumbers(new Set(discoveries.map(({ address }) => address)));
    const found = new Map<number, { rank: number; hops: number }>();
    for (const { address, rank, hops } of discoveries) {
      const id = numbers.get(address)!;
      const before = found.get(id);
      if (!before || before.rank > rank) found.set(id, { rank, hops });
    }
    return found;
  }

  async function writeDiscoveries(discoveries: readonly Discovery[]): Promise<number> {
    const found = await numberDiscoveries(discoveries);
    const added = await db.transaction((tx) => discover(tx, found));
    remember(found);
    return added;
  }

  async function pageRows(results: readonly PageResult[]) {
    const targets = new Set<string>();
    const texts = new Set<string>();
    for (const { links } of results)
      for (const { target, anchor, rel, path } of links) {
        targets.add(target);
        texts.add(anchor).add(rel).add(path);
      }
    texts.delete('');
    const addresses = await addressNumbers(targets);
    const phrases = await phraseNumbers(texts).then((numbers) => numbers.set('', 0));
    const address = (text: string) => addresses.get(text)!;
    const phrase = (text: string) => phrases.get(text)!;
    return results.map(({ turn, discoveries: _, links, ...facts }) => ({
      ...facts,
      crawlId,
      urlId: turn.urlId,
      links: Buffer.from(packLinks(links, address, phrase)),
    }));
  }

  return {
    /** Puts start addresses at the head of the frontier. @returns how many were not known */
    begin: (addresses: readonly string[]) =>
      inTurn(() => writeDiscoveries(addresses.map((address) => ({ address, rank: 0, hops: 0 })))),

    /** How far the crawl is, counted from the rows: what a crawl that goes on begins with. */
    async counts() {
      const [known] = await db.select({ n: count() }).from(frontier).where(eq(frontier.crawlId, crawlId));
      const [pages] = await db
        .select({
          done: count(),
          fetched: count(page.fetchedAt),
          unanswered: count(page.error),
          bytes: sum(page.bytes),
        })
        .from(page)
        .where(eq(page.crawlId, crawlId));
      return { known: known.n, ...pages, bytes: Number(pages.bytes ?? 0) };
    },

    /**
     * The best rank at which something waits; null when nothing does.
     * @param depth clicks beyond which nothing is fetched; null for no limit
     */
    async nextRank(depth: number | null): Promise<number | null> {
      const within =
        depth === null
          ? undefined
          : or(lte(frontier.rank, depth), between(frontier.rank, UNLINKED_RANK, UNLINKED_RANK + depth));
      const [row] = await db
        .select({ rank: frontier.rank })
        .from(frontier)
        .where(and(waiting, within))
        .orderBy(asc(frontier.rank))
        .limit(1);
      return row?.rank ?? null;
    },

    /**
     * Addresses that wait at a rank, in the order in which they became known.
     * @param without addresses that are in hand already
     */
    turnsAt: (rank: number, without: readonly number[], limit: number): Promise<Turn[]> =>
      db
        .select({ urlId: frontier.urlId, address: url.text, rank: frontier.rank, hops: frontier.hops })
        .from(frontier)
        .innerJoin(url, eq(url.id, frontier.urlId))
        .where(
          and(waiting, eq(frontier.rank, rank), without.length ? notInArray(frontier.urlId, [...without]) : undefined),
        )
        .orderBy(asc(frontier.urlId))
        .limit(limit),

    /** Whether an answer with HTML was found among the start pages and what they redirect to. */
    async startIsRead(): Promise<boolean> {
      const rows = await db
        .select({ id: page.urlId })
        .from(page)
        .innerJoin(frontier, and(eq(frontier.crawlId, crawlId), eq(frontier.urlId, page.urlId)))
        .where(and(eq(page.crawlId, crawlId), eq(frontier.rank, 0), eq(page.html, true), isNotNull(page.fetchedAt)))
        .limit(1);
      return rows.length > 0;
    },

    /** Stores pages and what they led to, all of it or nothing. @returns how many addresses are new */
    save: (results: readonly PageResult[]) =>
      inTurn(async () => {
        const rows = await pageRows(results);
        const found = await numberDiscoveries(results.flatMap(({ discoveries }) => discoveries));
        const added = await db.transaction(async (tx) => {
          let run: typeof rows = [];
          let size = 0;
          const write = async () => {
            if (run.length) await tx.insert(page).values(run).onDuplicateKeyUpdate(keepFirst(page.crawlId));
            run = [];
            size = 0;
          };
          for (const row of rows) {
            run.push(row);
            size += row.links.length + 1000;
            if (run.length >= MAX_STATEMENT_ROWS || size > MAX_STATEMENT_BYTES) await write();
          }
          await write();
          const done = rows.map(({ urlId }) => urlId);
          await tx
            .update(frontier)
            .set({ done: true })
            .where(and(eq(frontier.crawlId, crawlId), inArray(frontier.urlId, done)));
          return discover(tx, found);
        });
        remember(found);
        return added;
      }),

    saveRobots: (file: { origin: string; status: number | null; fault: string | null; body: string }) =>
      inTurn(() =>
        db
          .insert(robotsFile)
          .values({ crawlId, originHash: hashOf(file.origin), ...file })
          .onDuplicateKeyUpdate({ set: { status: file.status, fault: file.fault, body: file.body } }),
      ),

    /** Stores entries of a sitemap, addresses in normal form, and puts them behind everything that is linked. */
    saveListings: (sitemap: string, entries: readonly SitemapEntry[]) =>
      inTurn(async () => {
        const numbers = await addressNumbers(new Set([sitemap, ...entries.map(({ loc }) => loc)]));
        const sitemapId = numbers.get(sitemap)!;
        for (const run of inRuns(entries, 1000))
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
            .onDuplicateKeyUpdate(keepFirst(sitemapEntry.crawlId));
        return writeDiscoveries(entries.map(({ loc }) => ({ address: loc, rank: UNLINKED_RANK, hops: 0 })));
      }),

    saveSitemap: ({ address, ...outcome }: SitemapOutcome) =>
      inTurn(async () => {
        const urlId = (await addressNumbers(new Set([address]))).get(address)!;
        await db
          .insert(sitemapFile)
          .values({ crawlId, urlId, ...outcome })
          .onDuplicateKeyUpdate({ set: outcome });
      }),
  };
}

export type CrawlStore = ReturnType<typeof crawlStore>;
