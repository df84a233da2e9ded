/** How the worker that leads a crawl takes it from rank to rank. */
import { setTimeout as sleep } from 'node:timers/promises';
import { scopeOf } from '$core/scope';
import type { Message } from '$core/messages';
import type { CrawlSettings } from '$core/settings';
import { addressParts, originOf } from '$core/url';
import { isRedirectStatus } from '$core/verdict';
import {
  ASIDE_RANK,
  inRuns,
  nextSitemaps,
  queueSitemaps,
  retryOutage,
  saveListings,
  saveSitemap,
  seedFrontier,
  sitemapState,
  UNLINKED_RANK,
} from '$server/index';
import type { CrawlStore, Ending, Frontier, PageResult, TrapReview } from '$server/index';
import type { Client } from './client';
import type { FetchLoop } from './fetchLoop';
import type { HostLimiter } from './hostLimiter';
import type { ParserPool } from './parserPool';
import { readSitemaps } from './sitemaps';

/** How often the leading worker looks whether the others are done with a rank. */
const OTHERS_MS = 50;
const SEED_RUN = 1000;
/** Entries of sitemaps that a crawl takes in at most, all sitemaps together. */
const MAX_ENTRIES = 5_000_000;

export interface CrawlRun {
  settings: CrawlSettings;
  /** Whether only a selection is fetched again; the rest was carried over. */
  selectionOnly: boolean;
  /** Addresses of imported lists, some at a time. */
  listed: () => AsyncIterable<string[]>;
  loop: FetchLoop;
  store: CrawlStore;
  frontier: Frontier;
  traps: TrapReview;
  client: Client;
  limiter: HostLimiter;
  parsers: Pick<ParserPool, 'openSitemap'>;
  /** Tells all workers at which rank to work. */
  onRank: (rank: number) => Promise<unknown>;
  /** Whether a page of HTML was found among the start pages. */
  startIsRead: () => Promise<boolean>;
  /** Ends the crawl early; what is under way is given up and stays in the frontier. */
  signal: AbortSignal;
}

/** Why the start page cannot be crawled; null when it can. */
export function startFault(
  { queued, robotsRule, status, error, contentType, html, redirectTo }: PageResult,
  inside: (address: string) => boolean,
): Message | null {
  const { address } = queued;
  const { host } = addressParts(address);
  if (error) return { code: 'start_error', address, host, error };
  if (robotsRule?.directive === 'unreadable') return { code: 'start_robots_unreadable', host };
  if (robotsRule) return { code: 'start_blocked', host, rule: robotsRule };
  if (redirectTo && !inside(redirectTo)) return { code: 'start_outside', address, target: redirectTo };
  if (redirectTo) return null;
  if (status !== null && isRedirectStatus(status)) return { code: 'start_nowhere', address, status };
  if (status === 401) return { code: 'start_login', address };
  if (status !== null && status >= 400) return { code: 'start_status', address, status };
  return html ? null : { code: 'start_type', address, type: contentType };
}

/** The rank of an address that only sitemaps and lists know. */
function listedRank({ settings }: CrawlRun): (address: string) => number {
  const { keeps } = scopeOf(settings);
  return (address) => (keeps(address).keeps ? UNLINKED_RANK : ASIDE_RANK);
}

/** @param end ends the reading; what is not read by then waits for the crawl to be resumed */
async function readNamedSitemaps(run: CrawlRun, end: AbortController): Promise<void> {
  const { settings, store, client, limiter, loop } = run;
  const { signal } = end;
  const { inside, identify } = scopeOf(settings);
  const rankOf = listedRank(run);
  const named = settings.sitemapsFromRobots ? (await loop.robots(settings.start)).sitemaps : [];
  const addresses = named.flatMap(({ address }) => identify(address, settings.start)?.address ?? []);
  const all = [...new Set([...addresses, ...settings.sitemaps])];
  let { entries: taken } = await retryOutage(() => sitemapState(store));
  await readSitemaps(all, settings.usualSitemaps ? [originOf(settings.start)] : [], {
    client,
    openParser: run.parsers.openSitemap,
    policy: { limiter, retries: settings.retries, signal },
    identify,
    inside,
    onEntries: (sitemap, entries) => {
      taken += entries.length;
      if (taken > MAX_ENTRIES) end.abort();
      return retryOutage(() => saveListings(store, sitemap, entries, rankOf));
    },
    onRead: (outcome) => retryOutage(() => saveSitemap(store, outcome)),
    queue: {
      add: (named, from) => retryOutage(() => queueSitemaps(store, named, from)),
      next: (count) => retryOutage(() => nextSitemaps(store, count)),
    },
  });
}

/** Reads the sitemaps of a crawl beside its pages. */
function startSitemaps(run: CrawlRun) {
  const end = new AbortController();
  const giveUp = () => end.abort(run.signal.reason);
  run.signal.addEventListener('abort', giveUp);
  let failure: { cause: unknown } | null = null;
  const read = readNamedSitemaps(run, end)
    .catch((cause: unknown) => {
      // What was being read is given up with the crawl, which is no failure.
      if (!run.signal.aborted) failure = { cause };
    })
    .finally(() => run.signal.removeEventListener('abort', giveUp));
  return {
    /** Waits until all are read, for as long as the settings say, and gives the others up. */
    async finish(): Promise<void> {
      const timer = setTimeout(() => end.abort(), run.settings.sitemapMinutes * 60_000);
      await read.finally(() => clearTimeout(timer));
      if (failure) throw (failure as { cause: unknown }).cause;
    },
  };
}

/** Puts the start addresses and those of lists into the frontier, as far as it comes until the crawl is to end. */
async function seedStart(run: CrawlRun): Promise<void> {
  const { settings, store, signal } = run;
  const { inside } = scopeOf(settings);
  const rankOf = listedRank(run);
  const seed = async (addresses: readonly string[], rank: number) => {
    for (const part of inRuns(addresses, SEED_RUN))
      if (!signal.aborted) await retryOutage(() => seedFrontier(store, part, rank));
  };
  await seed([settings.start, ...settings.starts], 0);
  for await (const part of run.listed()) {
    if (signal.aborted) return;
    for (const rank of [UNLINKED_RANK, ASIDE_RANK])
      await seed(
        part.filter((address) => inside(address) && rankOf(address) === rank),
        rank,
      );
  }
}

const stopped: Ending = { state: 'stopped', reason: { code: 'stopped' }, limited: false };

/** How a crawl has ended that had to leave a host; null when it has not. */
async function hostLeft({ frontier }: CrawlRun): Promise<Ending | null> {
  const left = await retryOutage(() => frontier.leftHosts());
  if (!left) return null;
  const { host } = addressParts(left.example);
  return { state: 'stopped', reason: { code: 'host_left', host, pages: left.pages }, limited: false };
}

/** How a crawl has ended that has nothing more to fetch. @param limited whether more pages could be fetched */
async function endingOf(run: CrawlRun, limited: boolean): Promise<Ending> {
  const { settings, store, frontier } = run;
  // At the limit, and with nothing left that could have been fetched, nothing was limited.
  if (limited && (await retryOutage(() => frontier.nextRank(settings.depth))) !== null)
    return { state: 'done', reason: { code: 'page_limit', pages: settings.limit }, limited: true };
  const left = await hostLeft(run);
  if (left) return left;
  const { waiting: sitemaps, entries } = await retryOutage(() => sitemapState(store));
  if (sitemaps === 0) return { state: 'done', reason: null, limited: false };
  const reason: Message =
    entries >= MAX_ENTRIES
      ? { code: 'sitemap_entries_limit', sitemaps, entries: MAX_ENTRIES }
      : { code: 'sitemaps_left', sitemaps, minutes: settings.sitemapMinutes };
  return { state: 'done', reason, limited: true };
}

/** Fetches everything of one rank, with all workers. What a worker that dies gives back meanwhile is fetched too. */
async function workAt({ onRank, loop, frontier, signal }: CrawlRun, rank: number): Promise<void> {
  await onRank(rank);
  for (let waited = true; waited;) {
    waited = false;
    await loop.run(rank);
    while (!signal.aborted && (await retryOutage(() => frontier.othersHold(rank)))) {
      waited = true;
      await sleep(OTHERS_MS);
    }
  }
}

/**
 * Leads the crawl of a site, breadth-first. Everything of one rank is fetched, by all workers, before the next begins,
 * so the depths at which addresses are found are exact. May be called again for a crawl that was interrupted.
 */
export async function leadCrawl(run: CrawlRun): Promise<Ending> {
  const { settings, selectionOnly, loop, frontier, traps, signal } = run;
  if (!selectionOnly) await seedStart(run);
  if (signal.aborted) return stopped;
  await retryOutage(traps.resume);
  await workAt(run, 0);
  if (signal.aborted) return stopped;
  if (!(await retryOutage(run.startIsRead))) {
    // What was not asked for once more may be there when the crawl is resumed.
    const left = await hostLeft(run);
    if (left) return left;
    const last = loop.lastOfStart();
    const fault = last && startFault(last, scopeOf(settings).inside);
    return { state: 'failed', reason: fault ?? { code: 'start_unread', address: settings.start }, limited: false };
  }
  const sitemaps = selectionOnly ? null : startSitemaps(run);
  let limited = false;
  for (;;) {
    if (signal.aborted) return stopped;
    const next = () => retryOutage(() => frontier.nextRank(settings.depth, limited));
    let rank = await next();
    if (rank === null || rank >= UNLINKED_RANK) {
      // Before addresses that nothing links to are fetched, all of them should be known.
      await sitemaps?.finish();
      if (signal.aborted) return stopped;
      rank = await next();
    }
    if (rank === null) return endingOf(run, limited);
    await retryOutage(() => traps.before(rank));
    await workAt(run, rank);
    if (signal.aborted) return stopped;
    await retryOutage(() => traps.after());
    // What is only checked goes on when no more pages may be fetched.
    limited = await retryOutage(() => frontier.atLimit(settings.limit));
  }
}
