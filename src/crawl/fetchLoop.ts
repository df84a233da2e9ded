/** How one worker fetches what waits in the frontier of a crawl: many addresses at once, stored in batches. */
import { setTimeout as sleep } from 'node:timers/promises';
import type { FetchError } from '$core/facts';
import { scopeOf } from '$core/scope';
import type { Scope } from '$core/scope';
import type { CrawlSettings } from '$core/settings';
import { addressParts } from '$core/url';
import { RESOURCE_RANK, retryOutage, savePages, saveRobots } from '$server/index';
import type { CrawlStore, Frontier, PageResult, QueuedUrl } from '$server/index';
import type { Client } from './client';
import { discoverer } from './discoveries';
import type { HostLimiter } from './hostLimiter';
import { checkAddress, fetchPage, unfetchedPage } from './page';
import type { PageOptions } from './page';
import type { ParserPool } from './parserPool';
import { fetchWith } from './retry';
import type { Fetch } from './retry';
import { robotsCache } from './robots';

/** How many pages are stored together: as many as came while the ones before were stored, within these. */
const MIN_PAGES = 24;
const LAST_PAGES = 6;
const MAX_PAGES = 128;
/** How many addresses are taken from the frontier together. */
const BATCH_URLS = 128;
const MAX_HELD = 4 * BATCH_URLS;
/** Pages are stored after so long at the latest. */
const FLUSH_MS = 1000;
/** How often the loop looks around while it waits for answers. */
const TICK_MS = 100;

/** Failures that no page of the host can escape: it need not be asked for each of them. */
const hostFailures = new Set<FetchError | null>(['dns', 'refused', 'unreachable', 'tls', 'private']);

export interface FetchLoopOptions {
  settings: CrawlSettings;
  /** Whether only a selection is fetched again. */
  selectionOnly: boolean;
  store: CrawlStore;
  frontier: Frontier;
  client: Client;
  limiter: HostLimiter;
  parsers: ParserPool;
  /** Ends the work early; what is under way is given up and stays in the frontier. */
  signal: AbortSignal;
}

export interface FetchLoop {
  /** Fetches what waits at a rank until nothing is left to take; also what is added to it meanwhile. */
  run: (rank: number) => Promise<void>;
  /** The rules of the robots.txt that holds for an address. */
  robots: ReturnType<typeof robotsCache>;
  /** Tells how many workers share the connections of the crawl. */
  divideAmong: (workers: number) => void;
  /** Lets nothing more be fetched for now, or again. */
  hold: (held: boolean) => void;
  /** The address asked for last. */
  current: () => string | null;
  /** The result of the last start page. */
  lastOfStart: () => PageResult | null;
}

/** What a loop remembers between two ranks. */
interface LoopState {
  current: string | null;
  lastOfStart: PageResult | null;
  connections: number;
  /** Whether nothing may be fetched for now. */
  onHold: boolean;
  /** Numbers of addresses that were taken and are not stored yet. */
  held: Set<number>;
  /** Taken addresses that nobody has fetched yet. */
  queue: QueuedUrl[];
  underway: Set<Promise<void>>;
  /** Results that are not stored yet. */
  results: PageResult[];
  /** Taken addresses whose hosts ask to wait, again and again. */
  left: QueuedUrl[];
  lastFlush: number;
  /** The batch that is being stored. */
  writing: Promise<void> | null;
  /** False after nothing was left to take, until something was stored that may have added to the frontier. */
  mayTake: boolean;
  /** The first failure of the database or of this program; the loop raises it. */
  failure: { cause: unknown } | null;
}

interface Loop extends FetchLoopOptions {
  state: LoopState;
  scope: Scope;
  fetch: Fetch;
  robots: FetchLoop['robots'];
  pageOptions: PageOptions;
}

/** Prepares the fetch loop of a worker. Every failure of the database that does not pass is thrown by `run`. */
export function fetchLoop(options: FetchLoopOptions): FetchLoop {
  const { settings, selectionOnly, store, client, limiter, parsers, signal } = options;
  const scope = scopeOf(settings);
  const fetch = fetchWith(client, { limiter, retries: settings.retries, signal });
  const state: LoopState = {
    current: null,
    lastOfStart: null,
    connections: settings.connections,
    onHold: false,
    held: new Set(),
    queue: [],
    underway: new Set(),
    results: [],
    left: [],
    lastFlush: Date.now(),
    writing: null,
    mayTake: true,
    failure: null,
  };
  const robots = robotsCache({
    fetch,
    parse: parsers.parseRobots,
    token: settings.token,
    signal,
    onRead: ({ origin, status, fault, body, answer, crawlDelay }, host) => {
      if (crawlDelay && settings.keepCrawlDelay && settings.robots === 'obey') limiter.setCrawlDelay(host, crawlDelay);
      return retryOutage(() => saveRobots(store, { origin, status, fault, body, answer }));
    },
  });
  const pageOptions: PageOptions = {
    fetch,
    settings,
    identify: scope.identify,
    parse: parsers.parse,
    discoveriesOf: discoverer(scope, settings, selectionOnly),
  };
  const loop: Loop = { ...options, state, scope, fetch, robots, pageOptions };
  return {
    run: (rank) => run(loop, rank),
    robots,
    divideAmong: (workers) => (state.connections = Math.max(1, Math.floor(settings.connections / workers))),
    hold: (held) => (state.onHold = held),
    current: () => state.current,
    lastOfStart: () => state.lastOfStart,
  };
}

const noteFailure = (state: LoopState) => (cause: unknown) => void (state.failure ??= { cause });
function raiseFailure({ failure }: LoopState): void {
  if (failure) throw failure.cause;
}

/** Answers that ask to wait. */
const asksToWait = (status: number | null) => status === 429 || status === 503;

/** Fetches one address as its rank and the rules of its host ask for. */
async function fetchOne({ scope, settings, fetch, robots, pageOptions, state }: Loop, queued: QueuedUrl) {
  const { address, rank } = queued;
  if (!scope.inside(address)) return checkAddress(queued, null, fetch);
  const rules = await robots(address);
  if (hostFailures.has(rules.error)) return unfetchedPage(queued, { robotsRule: null, error: rules.error });
  const rule = rules.closedBy(address);
  if (rule !== null && settings.robots === 'obey') return unfetchedPage(queued, { robotsRule: rule, error: null });
  state.current = address;
  return rank >= RESOURCE_RANK ? checkAddress(queued, rule, fetch) : fetchPage(queued, rule, pageOptions);
}

function launch(loop: Loop, queued: QueuedUrl): void {
  const { state, limiter, signal } = loop;
  const work = fetchOne(loop, queued)
    .then((result) => {
      if (signal.aborted) return;
      if (asksToWait(result.status) && limiter.isLeft(addressParts(queued.address).host))
        return void state.left.push(queued);
      if (queued.rank === 0) state.lastOfStart = result;
      state.results.push(result);
    })
    .catch((cause: unknown) => {
      // What is under way when the crawl is stopped is given up.
      if (!signal.aborted) noteFailure(state)(cause);
    })
    .finally(() => state.underway.delete(work));
  state.underway.add(work);
}

/** The next address whose host may be asked. */
function nextUrl({ state, limiter }: Loop): QueuedUrl | undefined {
  const isLeft = ({ address }: QueuedUrl) => limiter.isLeft(addressParts(address).host);
  if (state.queue.some(isLeft)) {
    state.left.push(...state.queue.filter(isLeft));
    state.queue = state.queue.filter((queued) => !isLeft(queued));
  }
  const at = state.queue.findIndex(({ address }) => !limiter.isHeld(addressParts(address).host));
  return at < 0 ? undefined : state.queue.splice(at, 1)[0];
}

/** Takes more addresses. After a lost connection, first what the database had given and nobody received. */
async function takeMore({ state, frontier, settings }: Loop, rank: number): Promise<void> {
  const limits = { pages: settings.limit, external: settings.externalLimit };
  let again = false;
  const urls = await retryOutage(async () => {
    const missed = again ? (await frontier.held()).filter(({ urlId }) => !state.held.has(urlId)) : [];
    again = true;
    return missed.length ? missed : frontier.take(rank, BATCH_URLS, limits);
  });
  if (urls.length === 0) state.mayTake = false;
  for (const { urlId } of urls) state.held.add(urlId);
  state.queue.push(...urls);
}

/** Stores a batch of results, and which addresses are left, while fetching goes on. */
function flush({ state, store, frontier }: Loop): void {
  const storeBatch = async (): Promise<void> => {
    const left = state.left.splice(0).map(({ urlId }) => urlId);
    if (left.length) await retryOutage(() => frontier.leaveHosts(left));
    for (const urlId of left) state.held.delete(urlId);
    const batch = state.results.splice(0, MAX_PAGES);
    state.lastFlush = Date.now();
    if (batch.length) await retryOutage(() => savePages(store, batch));
    for (const { queued } of batch) state.held.delete(queued.urlId);
    state.mayTake = true;
  };
  state.writing ??= storeBatch()
    .catch(noteFailure(state))
    .finally(() => (state.writing = null));
}

/** Ends early: what has been fetched is stored; what is under way is given up and waits in the frontier. */
async function windDown(loop: Loop, taking: Promise<void> | null): Promise<void> {
  const { state } = loop;
  await taking;
  state.queue = [];
  await Promise.all(state.underway);
  while (state.writing || state.results.length) {
    flush(loop);
    await state.writing;
    raiseFailure(state);
  }
}

async function run(loop: Loop, rank: number): Promise<void> {
  const { state, signal } = loop;
  state.mayTake = true;
  let taking: Promise<void> | null = null;
  let tick: Promise<void> | null = null;
  for (;;) {
    raiseFailure(state);
    if (signal.aborted) return windDown(loop, taking);
    // What waits to be stored bounds what is taken, when the database is slower than the site.
    if (
      state.mayTake &&
      !state.onHold &&
      !taking &&
      state.queue.length < state.connections &&
      state.held.size < MAX_HELD
    )
      taking = takeMore(loop, rank)
        .catch(noteFailure(state))
        .finally(() => (taking = null));
    for (let url; !state.onHold && state.underway.size < state.connections && (url = nextUrl(loop));) launch(loop, url);
    const idle = state.underway.size === 0 && !taking && state.queue.length === 0;
    // Nothing more to come: what is stored last should be little, for the next rank waits for it.
    const least = state.queue.length === 0 && !taking && !state.mayTake ? LAST_PAGES : MIN_PAGES;
    const isDue = idle || Date.now() - state.lastFlush > FLUSH_MS;
    const waiting = state.results.length + state.left.length;
    if (waiting >= least || (waiting && isDue)) flush(loop);
    // What is being stored may add to this rank.
    if (idle && !state.writing && !state.mayTake) return;
    const busy = [...state.underway, ...(taking ? [taking] : []), ...(state.writing ? [state.writing] : [])];
    // What was stored, or a host that may be asked again, must not wait for a page that is slow to come.
    if (busy.length || state.queue.length || state.onHold)
      await Promise.race([...busy, (tick ??= sleep(TICK_MS).then(() => void (tick = null)))]);
  }
}
