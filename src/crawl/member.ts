import { scopeOf } from '$core/scope';
import type { CrawlSettings } from '$core/settings';
import { addressParts, remembering } from '$core/url';
import type { FetchError } from '$core/verdict';
import { outlastingOutage, RESOURCE_RANK } from '$server/index';
import type { CrawlStore, Frontier, PageResult, Turn } from '$server/index';
import { asker } from './ask';
import type { Client } from './client';
import { discoverer } from './discoveries';
import type { Pace } from './pace';
import type { Readers } from './readers';
import { robotsKeeper } from './robots';
import { check, unaskedPage, visit } from './visit';

/** How many pages are stored together: as many as came while the ones before were stored, within these. */
const MIN_PAGES = 24;
const LAST_PAGES = 6;
const MAX_PAGES = 128;
/** How many addresses are taken in hand together. */
const BATCH_TURNS = 128;
const MAX_IN_HAND = 4 * BATCH_TURNS;
/** What has been read is stored after so long at the latest. */
const FLUSH_MS = 1000;
/** How often a member looks around that waits for answers. */
const TICK_MS = 100;

/** Failures that no page of the host can escape: it need not be asked for each of them. */
const hostFailures = new Set<FetchError | null>(['dns', 'refused', 'unreachable', 'tls', 'private']);

export interface MemberOptions {
  settings: CrawlSettings;
  /** Whether only a selection is fetched again. */
  selectionOnly: boolean;
  store: CrawlStore;
  frontier: Frontier;
  client: Client;
  pace: Pace;
  readers: Readers;
  /** Ends the work early; what is under way is given up and stays in the frontier. */
  signal: AbortSignal;
}

/** One worker at work on the frontier of a crawl. */
export interface Member {
  /** Fetches what waits at a rank until nothing is left to take; also what is added to it meanwhile. */
  work: (rank: number) => Promise<void>;
  /** The rules of the robots.txt that holds for an address. */
  robots: ReturnType<typeof robotsKeeper>;
  /** How many members share the connections of the crawl. */
  share: (members: number) => void;
  /** The address asked for last. */
  current: () => string | null;
  /** What came of the last start page. */
  lastOfStart: () => PageResult | null;
}

/** Makes a member of the crew. Every failure of the database that does not pass is thrown by `work`. */
export function crewMember(options: MemberOptions): Member {
  const { settings, selectionOnly, store, frontier, client, pace, readers, signal } = options;
  const scope = scopeOf(settings);
  const ask = asker(client, { pace, retries: settings.retries, signal });
  const visiting = {
    ask,
    settings,
    identify: remembering(scope.identify),
    read: readers.read,
    discoveriesOf: discoverer(scope, settings, selectionOnly),
  };
  const robots = robotsKeeper({
    ask,
    token: settings.token,
    signal,
    onRead: ({ origin, status, fault, body, crawlDelay }, host) => {
      if (crawlDelay && settings.keepCrawlDelay && settings.robots === 'obey') pace.setDelay(host, crawlDelay);
      return outlastingOutage(() => store.saveRobots({ origin, status, fault, body }));
    },
  });
  const limits = { pages: settings.limit, external: settings.externalLimit };

  let current: string | null = null;
  let lastOfStart: PageResult | null = null;
  let connections = settings.connections;

  /** Addresses taken and not yet stored. */
  const inHand = new Set<number>();
  const underway = new Set<Promise<void>>();
  let queue: Turn[] = [];
  const results: PageResult[] = [];
  let lastFlush = Date.now();
  /** What is being stored. */
  let writing: Promise<void> | null = null;
  /** False after nothing was left to take, until something was stored that may have added to the frontier. */
  let mayTake = true;
  /** The first failure of the database or of this program; the loop raises it. */
  let failure: { cause: unknown } | null = null;
  const noteFailure = (cause: unknown) => void (failure ??= { cause });
  const raiseFailure = () => {
    if (failure) throw failure.cause;
  };

  /** Stores what has been gathered, while fetching goes on. */
  const storeSome = async (): Promise<void> => {
    const batch = results.splice(0, MAX_PAGES);
    lastFlush = Date.now();
    await outlastingOutage(() => store.save(batch));
    for (const { turn } of batch) inHand.delete(turn.urlId);
    mayTake = true;
  };
  const flush = (): void => {
    writing ??= storeSome()
      .catch(noteFailure)
      .finally(() => (writing = null));
  };

  const lookAt = async (turn: Turn): Promise<PageResult> => {
    if (!scope.inside(turn.address)) return check(turn, null, ask);
    const rules = await robots(turn.address);
    const closed = rules.closedBy(turn.address);
    if (hostFailures.has(rules.error)) return unaskedPage(turn, { blockedBy: null, error: rules.error });
    if (closed !== null && settings.robots === 'obey') return unaskedPage(turn, { blockedBy: closed, error: null });
    current = turn.address;
    return turn.rank >= RESOURCE_RANK ? check(turn, closed, ask) : visit(turn, closed, visiting);
  };

  const launch = (turn: Turn) => {
    const work = lookAt(turn)
      .then((result) => {
        if (signal.aborted) return;
        if (turn.rank === 0) lastOfStart = result;
        results.push(result);
      })
      .catch(noteFailure)
      .finally(() => underway.delete(work));
    underway.add(work);
  };

  /** The next address whose host may be asked. */
  const nextTurn = (): Turn | undefined => {
    const at = queue.findIndex(({ address }) => !pace.isHeld(addressParts(address).host));
    return at < 0 ? undefined : queue.splice(at, 1)[0];
  };

  /** Takes more addresses in hand. After a lost connection, first what the database had given and nobody received. */
  const takeMore = async (rank: number): Promise<void> => {
    let again = false;
    const turns = await outlastingOutage(async () => {
      const missed = again ? (await frontier.inHand()).filter(({ urlId }) => !inHand.has(urlId)) : [];
      again = true;
      return missed.length ? missed : frontier.take(rank, BATCH_TURNS, limits);
    });
    if (turns.length === 0) mayTake = false;
    for (const { urlId } of turns) inHand.add(urlId);
    queue.push(...turns);
  };

  const work = async (rank: number): Promise<void> => {
    mayTake = true;
    let taking: Promise<void> | null = null;
    let tick: Promise<void> | null = null;
    for (;;) {
      raiseFailure();
      // What has been read is kept; what is under way is given up and waits in the frontier.
      if (signal.aborted) {
        await taking;
        queue = [];
        await Promise.all(underway);
        while (writing || results.length) {
          flush();
          await writing;
          raiseFailure();
        }
        return;
      }
      // What waits to be stored bounds what is taken, when the database is slower than the site.
      if (mayTake && !taking && queue.length < connections && inHand.size < MAX_IN_HAND)
        taking = takeMore(rank)
          .catch(noteFailure)
          .finally(() => (taking = null));
      for (let turn; underway.size < connections && (turn = nextTurn());) launch(turn);
      const idle = underway.size === 0 && !taking && queue.length === 0;
      // Nothing more to come: what is stored last should be little, for the next rank waits for it.
      const least = queue.length === 0 && !taking && !mayTake ? LAST_PAGES : MIN_PAGES;
      if (results.length >= least || (results.length && (idle || Date.now() - lastFlush > FLUSH_MS))) flush();
      // What is being stored may add to this rank.
      if (idle && !writing && !mayTake) return;
      const busy = [...underway, ...(taking ? [taking] : []), ...(writing ? [writing] : [])];
      // What was stored, or a host that may be asked again, must not wait for a page that is slow to come.
      if (busy.length || queue.length)
        await Promise.race([...busy, (tick ??= pauseFor(TICK_MS).then(() => void (tick = null)))]);
    }
  };

  return {
    work,
    robots,
    share: (members) => (connections = Math.max(1, Math.floor(settings.connections / members))),
    current: () => current,
    lastOfStart: () => lastOfStart,
  };
}

const pauseFor = (ms: number) => new Promise<void>((resolve) => setTimeout(resolve, ms));
