/** Runs leased jobs: leads crawls, helps with those of other workers, and analyses ended crawls anew. */
import { setMaxListeners } from 'node:events';
import { setTimeout as sleep } from 'node:timers/promises';
import type { Message } from '$core/messages';
import type { CrawlSettings } from '$core/settings';
import type { Snapshot } from '$core/snapshot';
import {
  crawlCookies,
  crawlState,
  diskTrouble,
  endJob,
  endCrawl,
  forgetStore,
  frontierOf,
  getCrawl,
  hostLimits,
  importedAddresses,
  importsOfCrawl,
  isLed,
  joinCrawl,
  leaveCrawl,
  markStarted,
  measureSpace,
  noteProgress,
  openStore,
  releaseCrawl,
  renewLease,
  renewWorker,
  retryOutage,
  saveCookies,
  secretsOf,
  setRank,
  startIsRead,
  trapReview,
  workerCount,
} from '$server/index';
import type { Crawl, CrawlState, Database, Ending, Lease } from '$server/index';
import { afterCrawl } from './afterCrawl';
import { analyseCrawl } from './analysis';
import { openClient } from './client';
import type { Timeouts } from './client';
import { fetchLoop } from './fetchLoop';
import { heartbeat } from './heartbeat';
import { leadCrawl } from './lead';
import { startParsers } from './parserPool';
import { sharedLimiter } from './sharedLimiter';
import { analyseAlong } from './soFar';
import { isError } from '$core/errors';

/** How long the leading worker waits for the others to store what they have before it takes their work over. */
const FAREWELL_MS = 10_000;
const IDLE_MS = 100;

/** Why a running crawl is interrupted: a person asked for it, this program ends, or another worker has the job. */
export type Interruption = 'stop' | 'pause' | 'shutdown' | 'lost' | 'limit';

/** How far a crawl is. */
export interface Progress extends Pick<CrawlState, 'known' | 'done' | 'unanswered' | 'bytes' | 'current'> {
  /** Why nothing is fetched for now; null when something is. */
  trouble: Message | null;
}

export interface WorkerOptions {
  db: Database;
  /** A name that no other worker has. */
  owner: string;
  /** Whether loopback and private addresses may be asked. */
  allowPrivate: boolean;
  /** Aborted with an {@link Interruption} as its reason. */
  signal: AbortSignal;
  onProgress?: (progress: Progress) => void;
  /** Why nothing may be stored for now, as {@link diskTrouble} tells it. */
  trouble?: () => Promise<Message | null>;
  timeouts?: Timeouts;
}

export interface JobRun extends WorkerOptions {
  lease: Lease;
  /** Receives what the crawl was made into, for whoever needs it at once. */
  onSnapshot?: (snapshot: Snapshot) => void;
}

/** Which limit of size or time a crawl has reached; null when none. */
function limitReached({ megabytes, minutes }: CrawlSettings, { bytes, ranMs }: CrawlState): Message | null {
  if (megabytes !== null && bytes >= megabytes * 2 ** 20) return { code: 'size_limit', megabytes };
  if (minutes !== null && ranMs >= minutes * 60_000) return { code: 'time_limit', minutes };
  return null;
}

/** Interrupts work when the worker is to end, or when it is called. */
function interruptible(outer: AbortSignal) {
  const controller = new AbortController();
  const forward = () => controller.abort(outer.reason);
  outer.addEventListener('abort', forward);
  if (outer.aborted) forward();
  const { signal } = controller;
  // Every request under way listens for the end.
  setMaxListeners(0, signal);
  return {
    signal,
    interrupt: (reason: Interruption) => controller.abort(reason),
    interruption: () => (signal.aborted ? (signal.reason as Interruption) : null),
    release: () => outer.removeEventListener('abort', forward),
  };
}

/**
 * Sets a worker to work on a crawl: everything that the leading worker and those that help have in common.
 * @param lease of the leading worker; null for those that help
 */
async function joinWork(options: WorkerOptions, row: Crawl, lease: Lease | null) {
  const { db, owner } = options;
  const { id: crawlId, settings } = row;
  const { signal, interrupt, interruption, release } = interruptible(options.signal);
  const workerId = await joinCrawl(db, crawlId, owner);
  const cookies = settings.keepCookies ? await crawlCookies(db, crawlId) : null;
  const { allowPrivate, timeouts } = options;
  const client = openClient({ settings, secrets: secretsOf(row), allowPrivate, cookies, timeouts });
  const limiter = sharedLimiter(db, settings.rate);
  const store = openStore(db, row, workerId);
  const frontier = frontierOf(db, crawlId, workerId);
  const selectionOnly = row.baseId !== null;
  const parsers = startParsers({ settings, selectionOnly }, signal);
  const loop = fetchLoop({ settings, selectionOnly, store, frontier, client, limiter, parsers, signal });
  let endedBy: Message | null = null;

  let lastBeat = performance.now();
  const beat = async (): Promise<void> => {
    const ran = performance.now() - lastBeat;
    lastBeat += ran;
    if (lease && !(await renewLease(db, lease))) return interrupt('lost');
    if (lease) await noteProgress(db, crawlId, loop.current(), ran);
    const workers = await renewWorker(db, crawlId, workerId);
    if (workers === 0) return interrupt('lost');
    loop.divideAmong(workers);
    limiter.learn(await hostLimits(db));
    const changed = lease ? client.changedCookies() : null;
    if (changed) await saveCookies(db, crawlId, changed);
    const trouble = await (options.trouble ?? diskTrouble)();
    loop.hold(trouble !== null);
    const now = await crawlState(db, crawlId);
    if (!now) return interrupt('lost');
    options.onProgress?.({ ...now, current: loop.current(), trouble });
    if (now.request) return interrupt(now.request);
    if (!lease) return now.state === 'running' ? undefined : interrupt('lost');
    endedBy = limitReached(settings, now);
    if (endedBy) interrupt('limit');
  };
  const stopBeating = heartbeat(beat);

  return {
    settings,
    selectionOnly,
    workerId,
    client,
    limiter,
    store,
    frontier,
    loop,
    parsers,
    signal,
    interruption,
    endedBy: () => endedBy,
    async close() {
      await stopBeating();
      release();
      interrupt('lost');
      await Promise.all([client.agent.destroy(), parsers.close()]);
    },
  };
}

/** Waits until the other workers have left, as they do when they are asked to or the crawl has no work for them. */
async function farewell(db: Database, crawlId: number): Promise<void> {
  for (const began = Date.now(); Date.now() - began < FAREWELL_MS; await sleep(IDLE_MS))
    if ((await workerCount(db, crawlId)) <= 1) return;
}

async function crawlOfLease(db: Database, { crawlId }: Lease): Promise<Crawl> {
  const row = await getCrawl(db, crawlId);
  if (!row) throw new Error(`Crawl ${crawlId} is gone.`);
  return row;
}

/**
 * Leads a leased crawl to its end: crawl, snapshot, record of the ending.
 * @returns how it ended; null when it was paused, given back or taken over, to be resumed later or elsewhere
 */
export async function runCrawl(run: JobRun): Promise<Ending | null> {
  try {
    return await leadToEnd(run);
  } catch (error) {
    if (isError(error, 'lease_lost', 'membership_lost')) return null;
    throw error;
  }
}

async function leadToEnd(run: JobRun): Promise<Ending | null> {
  const { db, lease } = run;
  const { crawlId } = lease;
  const row = await crawlOfLease(db, lease);
  await markStarted(db, lease);
  // Logs hold what anybody ever asked for; what of it is to be fetched a person decides.
  const lists = (await importsOfCrawl(db, crawlId)).flatMap(({ id, kind }) => (kind === 'list' ? [id] : []));
  const work = await joinWork(run, row, lease);
  try {
    const stopAnalysing = analyseAlong(db, lease, row);
    const leading = leadCrawl({
      ...work,
      listed: () => importedAddresses(db, lists),
      traps: trapReview(db, crawlId, work.settings.trapLimit),
      onRank: (rank) => retryOutage(() => setRank(db, lease, rank)),
      startIsRead: () => startIsRead(db, crawlId),
    });
    const ending = await leading.finally(stopAnalysing);
    const interruption = work.interruption();
    if (interruption === 'lost') return null;
    // No rank has work for the others from here on.
    await setRank(db, lease, -1);
    if (interruption === 'stop' || interruption === 'pause' || interruption === 'limit') await farewell(db, crawlId);
    await leaveCrawl(db, crawlId, work.workerId);
    // The analysis needs the memory.
    forgetStore(work.store);
    await work.parsers.close();
    if (interruption === 'shutdown' || interruption === 'pause') {
      await releaseCrawl(db, lease, interruption === 'pause' ? 'paused' : 'waiting');
      return null;
    }
    const final: Ending = interruption === 'limit' ? { state: 'done', reason: work.endedBy(), limited: true } : ending;
    if (final.state !== 'failed') {
      const keepLease = heartbeat(async () => void (await renewLease(db, lease)));
      const left = final.limited ? 'limit' : 'stopped';
      const snapshot = await analyseCrawl(db, lease, row, { left }).finally(keepLease);
      await measureSpace(db, crawlId);
      run.onSnapshot?.(snapshot);
    }
    await endCrawl(db, lease, final);
    // The crawl has ended, whatever becomes of this: what is not counted now is counted when it is looked at.
    await afterCrawl(db, crawlId).catch(() => {});
    return final;
  } finally {
    await work.close();
  }
}

/** Helps with a crawl that another worker leads, until it ends or that worker is gone. */
export async function helpWith(options: WorkerOptions, crawlId: number): Promise<void> {
  const { db } = options;
  const row = await getCrawl(db, crawlId);
  if (row?.state !== 'running') return;
  const work = await joinWork(options, row, null);
  try {
    while (!work.signal.aborted && (await isLed(db, crawlId))) {
      const now = await crawlState(db, crawlId);
      if (now?.state !== 'running' || now.request) break;
      if (now.rank >= 0) await work.loop.run(now.rank);
      await sleep(IDLE_MS, undefined, { signal: work.signal }).catch(() => {});
    }
    if (work.interruption() !== 'lost') await leaveCrawl(db, crawlId, work.workerId);
  } catch (error) {
    if (!isError(error, 'membership_lost')) throw error;
  } finally {
    await work.close();
  }
}

/** Analyses an ended crawl anew, as its leased job asks for. @returns null when another worker has taken over */
export async function runAnalysis({ db, lease }: Pick<JobRun, 'db' | 'lease'>): Promise<Snapshot | null> {
  const keepLease = heartbeat(async () => void (await renewLease(db, lease)));
  try {
    const row = await crawlOfLease(db, lease);
    const snapshot = await analyseCrawl(db, lease, row, {
      left: row.planned ? 'planned' : row.limited ? 'limit' : 'stopped',
    });
    await measureSpace(db, row.id);
    await endJob(db, lease);
    return snapshot;
  } catch (error) {
    if (isError(error, 'lease_lost')) return null;
    throw error;
  } finally {
    await keepLease();
  }
}
