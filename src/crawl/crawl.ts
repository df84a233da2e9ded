import type { CrawlSettings } from '$core/settings';
import { costsNoClick } from '$core/links';
import type { Link } from '$core/links';
import { identify, insideTest } from '$core/url';
import { fetchErrorText, isRedirectStatus } from '$core/verdict';
import type { FetchError } from '$core/verdict';
import { UNLINKED_RANK } from '$server/index';
import type { CrawlStore, Discovery, Ending, PageResult, Progress, Turn } from '$server/index';
import { openAgent } from './fetch';
import { robotsKeeper } from './robots';
import { readSitemaps } from './sitemaps';
import { unaskedPage, visit } from './visit';

/** How many pages are stored together; also how many a killed worker fetches again at most, besides those under way. */
const BATCH_PAGES = 64;
const BATCH_TURNS = 500;
/** What has been read is stored after so long at the latest. */
const FLUSH_MS = 1000;

export interface CrawlRun {
  settings: CrawlSettings;
  store: CrawlStore;
  /** Ends the crawl early; what is under way is given up and stays in the frontier. */
  signal: AbortSignal;
}

/** What the links of a page add to the frontier. */
function discoveriesOf(turn: Turn, links: readonly Link[], inside: (address: string) => boolean): Discovery[] {
  return links.flatMap(({ kind, target }): Discovery[] => {
    if (!inside(target)) return [];
    if (kind === 'click') return [{ address: target, rank: turn.rank + 1, hops: 0 }];
    if (costsNoClick(kind)) return [{ address: target, rank: turn.rank, hops: turn.hops + 1 }];
    // Declared relations make an address known, but are no way to it.
    return [{ address: target, rank: UNLINKED_RANK, hops: 0 }];
  });
}

/** Why the start page cannot be crawled, in words for the person who gave it; null when it can. */
function startFault(
  { turn, blockedBy, status, error, contentType, html, redirectTo }: PageResult,
  inside: (address: string) => boolean,
) {
  const { address } = turn;
  const host = new URL(address).host;
  if (error) return `${address} could not be read. ${fetchErrorText[error]} Check the address, and that ${host} is up.`;
  if (blockedBy)
    return `robots.txt of ${host} closes the start page: ${blockedBy}. Start elsewhere, have the rule changed, or look past robots rules.`;
  if (redirectTo && !inside(redirectTo))
    return `${address} redirects to ${redirectTo}, which is another site. Start from there instead.`;
  if (redirectTo) return null;
  if (status !== null && isRedirectStatus(status))
    return `${address} answers ${status}, a redirect that names no address.`;
  if (status !== null && status >= 400)
    return `${address} answers ${status}. Check the address; a crawl begins with a page that can be read.`;
  if (!html)
    return `${address} is ${contentType ?? 'of no known type'}, not an HTML page. Start from a page that links to others.`;
  return null;
}

/** Failures that no page of the host can escape: it need not be asked for each of them. */
const hostFailures = new Set<FetchError | null>(['dns', 'refused', 'unreachable', 'tls']);

/**
 * Crawls a site breadth-first, from the store's frontier to the store's pages. Everything of one rank is fetched
 * before the next begins, so the depths at which addresses are found are exact. May be called again for a crawl that
 * was interrupted.
 * @returns `tell`, which gives the present state of progress, and `ended`
 */
export function runCrawl({ settings, store, signal }: CrawlRun): { tell: () => Progress; ended: Promise<Ending> } {
  const progress: Progress = { known: 0, done: 0, unanswered: 0, bytes: 0, current: null };
  /** Addresses asked for, or about to be. */
  let asked = 0;
  const inside = insideTest(settings.start);
  const agent = openAgent(settings);
  const robots = robotsKeeper(agent, signal, ({ origin, status, fault, body }) =>
    store.saveRobots({ origin, status, fault, body }),
  );

  // Adds after what was awaited, so that two writers never overwrite each other's sum.
  const addKnown = (added: number) => void (progress.known += added);

  const underway = new Map<number, Promise<void>>();
  /** Addresses whose turn has come and whose result is not yet in the database: it would give them again. */
  const unsaved = new Set<number>();
  let results: PageResult[] = [];
  let lastFlush = Date.now();
  let writing: Promise<void> = Promise.resolve();
  let lastOfStart: PageResult | null = null;
  /** The first failure of the database or of this program; the loop raises it. */
  let failure: unknown = null;
  const noteFailure = (error: unknown) => void (failure ??= error);

  /** Stores what has been gathered, while fetching goes on. */
  const flush = (): Promise<void> => {
    const batch = results;
    results = [];
    lastFlush = Date.now();
    if (batch.length)
      writing = writing.then(async () => {
        addKnown(await store.save(batch));
        for (const { turn } of batch) unsaved.delete(turn.urlId);
      });
    writing.catch(noteFailure);
    return writing;
  };

  const lookAt = async (turn: Turn): Promise<PageResult> => {
    const rules = await robots(turn.address);
    const closed = rules.closedBy(turn.address);
    const down = hostFailures.has(rules.error);
    if (down || (closed !== null && settings.robots === 'obey')) {
      asked--;
      return unaskedPage(turn, down ? { blockedBy: null, error: rules.error } : { blockedBy: closed, error: null });
    }
    progress.current = turn.address;
    return visit(turn, closed, agent, signal);
  };

  const take = async (turn: Turn): Promise<void> => {
    const result = await lookAt(turn);
    if (signal.aborted) return;
    result.discoveries = discoveriesOf(turn, result.links, inside);
    if (turn.rank === 0) lastOfStart = result;
    progress.done++;
    progress.bytes += result.bytes ?? 0;
    if (result.error) progress.unanswered++;
    results.push(result);
  };

  const launch = (turn: Turn) => {
    asked++;
    unsaved.add(turn.urlId);
    const work = take(turn)
      .catch(noteFailure)
      .finally(() => underway.delete(turn.urlId));
    underway.set(turn.urlId, work);
  };

  const room = () => settings.limit - asked;

  /** Fetches everything of one rank, also what is added to it meanwhile. */
  const fetchRank = async (rank: number): Promise<void> => {
    let queue: Turn[] = [];
    for (;;) {
      if (failure) throw failure;
      // What has been read is kept; what is under way is given up and waits in the frontier.
      if (signal.aborted) return flush();
      if (queue.length === 0 && room() > 0) {
        await flush();
        queue = await store.turnsAt(rank, [...unsaved], Math.min(BATCH_TURNS, room()));
      }
      while (queue.length && underway.size < settings.connections && room() > 0) launch(queue.shift()!);
      if (results.length >= BATCH_PAGES || (results.length && Date.now() - lastFlush > FLUSH_MS)) void flush();
      if (underway.size > 0) await Promise.race(underway.values());
      else if (results.length > 0) await flush();
      else return flush();
    }
  };

  const readNamedSitemaps = async (): Promise<void> => {
    const { sitemaps } = await robots(settings.start);
    const named = sitemaps.flatMap(({ address }) => identify(address, settings.start)?.address ?? []);
    await readSitemaps([...new Set([...named, ...settings.sitemaps])], agent, signal, {
      inside,
      onEntries: async (address, entries) => addKnown(await store.saveListings(address, entries)),
      onRead: store.saveSitemap,
    });
  };

  const run = async (): Promise<Ending> => {
    await store.begin([settings.start]);
    const { fetched, ...before } = await store.counts();
    Object.assign(progress, before);
    asked = fetched;

    await fetchRank(0);
    if (!signal.aborted && !(await store.startIsRead())) {
      const reason = lastOfStart && startFault(lastOfStart, inside);
      return {
        state: 'failed',
        reason: reason ?? `${settings.start} leads to no page that can be read.`,
        limited: false,
      };
    }
    const sitemapsRead = readNamedSitemaps().catch(noteFailure);
    for (;;) {
      let rank = await store.nextRank(settings.depth);
      if (rank === null || rank >= UNLINKED_RANK) {
        // Before addresses that nothing links to have their turn, all of them should be known.
        await sitemapsRead;
        rank = await store.nextRank(settings.depth);
      }
      if (failure) throw failure;
      if (signal.aborted)
        return { state: 'stopped', reason: 'It was stopped before everything was fetched.', limited: false };
      if (rank === null) return { state: 'done', reason: null, limited: false };
      if (room() <= 0) {
        await sitemapsRead;
        const reason = `It ended at its limit of ${settings.limit.toLocaleString('en')} pages.`;
        return { state: 'done', reason, limited: true };
      }
      await fetchRank(rank);
    }
  };

  const ended = run().finally(() => agent.destroy());
  return { tell: () => progress, ended };
}
