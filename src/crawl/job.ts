import { setMaxListeners } from 'node:events';
import { setTimeout as sleep } from 'node:timers/promises';
import { thousands } from '$core/numbers';
import {
  beatCrew,
  crawlCookies,
  crawlStore,
  crewSize,
  frontierOf,
  getCrawl,
  heldHosts,
  holdHost,
  isLed,
  joinCrew,
  leaveCrew,
  LostMembership,
  makeSnapshot,
  markEnded,
  markStarted,
  outlastingOutage,
  releaseJob,
  renewJob,
  reserveRequests,
  saveCookies,
  secretsOf,
  setRank,
  startIsRead,
  trapReview,
} from '$server/index';
import type { Crawl, Database, Ending, Progress } from '$server/index';
import type { Snapshot } from '$core/snapshot';
import { openClient } from './client';
import type { Timeouts } from './client';
import { leadCrawl } from './crawl';
import { crewMember } from './member';
import { paceOf } from './pace';
import { openReaders } from './readers';

const BEAT_MS = 500;
/** How long whoever leads waits for the others to hand in what they have before it takes their work over. */
const FAREWELL_MS = 10_000;
const IDLE_MS = 100;

/** Why a running crawl is interrupted: a person asked for it, this program ends, or another worker has the job. */
export type Interruption = 'stop' | 'pause' | 'shutdown' | 'lost' | 'limit';

export interface JobRun {
  db: Database;
  crawlId: number;
  /** The owner that holds the lease. */
  owner: string;
  /** Whether loopback and private addresses may be asked. */
  allowPrivate: boolean;
  /** Aborted with an {@link Interruption} as its reason. */
  signal: AbortSignal;
  onProgress?: (progress: Progress) => void;
  timeouts?: Timeouts;
  /** Receives what the crawl was made into, for whoever needs it at once. */
  onSnapshot?: (snapshot: Snapshot) => void;
}

/** Which limit of size or time a crawl has reached, in words; null when none. */
function limitReached({ settings, bytes, ranMs }: Crawl): string | null {
  if (settings.megabytes !== null && bytes >= settings.megabytes * 2 ** 20)
    return `It ended at its limit of ${thousands(settings.megabytes)} MiB received.`;
  if (settings.minutes !== null && ranMs >= settings.minutes * 60_000)
    return `It ended at its limit of ${settings.minutes === 1 ? '1 minute' : `${thousands(settings.minutes)} minutes`}.`;
  return null;
}

/** Sets a worker to work on a crawl: everything that whoever leads and whoever helps have in common. */
async function takePart(run: JobRun, row: Crawl, isLead: boolean) {
  const { db, crawlId, owner } = run;
  const interrupt = new AbortController();
  const forward = () => interrupt.abort(run.signal.reason);
  run.signal.addEventListener('abort', forward);
  if (run.signal.aborted) forward();
  const { signal } = interrupt;
  // Every request under way listens for the end.
  setMaxListeners(0, signal);
  const end = (reason: Interruption) => interrupt.abort(reason);

  const { settings } = row;
  const number = await joinCrew(db, crawlId, owner);
  const cookies = settings.keepCookies ? await crawlCookies(db, crawlId) : null;
  const client = openClient({
    settings,
    secrets: secretsOf(row),
    allowPrivate: run.allowPrivate,
    cookies,
    timeouts: run.timeouts,
  });
  const shared = {
    reserve: (host: string, every: number, count: number) =>
      outlastingOutage(() => reserveRequests(db, host, every, count)),
    hold: (host: string, ms: number, reason: string) => outlastingOutage(() => holdHost(db, host, ms, reason)),
  };
  const pace = paceOf(settings.rate, shared, signal);
  const store = crawlStore(db, crawlId, row.siteId, number);
  const frontier = frontierOf(db, crawlId, number);
  const selectionOnly = row.baseId !== null;
  const readers = openReaders({ settings, selectionOnly });
  const member = crewMember({ settings, selectionOnly, store, frontier, client, pace, readers, signal });
  let endedBy: string | null = null;

  let lastBeat = performance.now();
  const beat = async (): Promise<void> => {
    const ran = performance.now() - lastBeat;
    lastBeat += ran;
    if (isLead && !(await renewJob(db, crawlId, owner, member.current(), ran))) return end('lost');
    const members = await beatCrew(db, crawlId, number);
    if (members === 0) return end('lost');
    member.share(members);
    pace.learn(await heldHosts(db));
    const changed = isLead ? client.changedCookies() : null;
    if (changed) await saveCookies(db, crawlId, changed);
    const now = await getCrawl(db, crawlId);
    if (!now) return end('lost');
    run.onProgress?.({ ...now, current: member.current() });
    if (now.request) return end(now.request);
    if (!isLead) return now.state === 'running' ? undefined : end('lost');
    endedBy = limitReached(now);
    if (endedBy) end('limit');
  };
  let beating: Promise<void> | null = null;
  const timer = setInterval(() => {
    // The crawl itself meets a lost database too, and waits for it.
    beating ??= beat()
      .catch(() => {})
      .finally(() => (beating = null));
  }, BEAT_MS);

  return {
    settings,
    selectionOnly,
    number,
    client,
    pace,
    store,
    frontier,
    member,
    readers,
    signal,
    endedBy: () => endedBy,
    interruption: () => (signal.aborted ? (signal.reason as Interruption) : null),
    async close() {
      clearInterval(timer);
      await beating;
      run.signal.removeEventListener('abort', forward);
      interrupt.abort('lost');
      await Promise.all([client.agent.destroy(), readers.close()]);
    },
  };
}

/** Waits until the others of the crew have left, as they do when they are asked to or the crawl has no work for them. */
async function farewell(db: Database, crawlId: number): Promise<void> {
  for (const began = Date.now(); Date.now() - began < FAREWELL_MS; await sleep(IDLE_MS))
    if ((await crewSize(db, crawlId)) <= 1) return;
}

/**
 * Leads a leased crawl to its end: crawl, snapshot, record of the ending.
 * @returns how it ended; null when it was paused, given back or taken over, to be continued later or elsewhere
 */
export async function runJob(run: JobRun): Promise<Ending | null> {
  const { db, crawlId } = run;
  const row = await getCrawl(db, crawlId);
  if (!row) throw new Error(`Crawl ${crawlId} is gone.`);
  await markStarted(db, crawlId);
  const part = await takePart(run, row, true);
  try {
    const ending = await leadCrawl({
      ...part,
      traps: trapReview(db, crawlId, part.settings.trapLimit),
      onRank: (rank) => outlastingOutage(() => setRank(db, crawlId, rank)),
      startIsRead: () => startIsRead(db, crawlId),
    }).catch((error: unknown) => {
      if (error instanceof LostMembership) return null;
      throw error;
    });
    const interruption = part.interruption();
    if (!ending || interruption === 'lost') return null;
    // No rank has work for the others from here on.
    await setRank(db, crawlId, -1);
    if (interruption === 'stop' || interruption === 'pause' || interruption === 'limit') await farewell(db, crawlId);
    await leaveCrew(db, crawlId, part.number);
    // The analysis needs the memory.
    part.store.forget();
    await part.readers.close();
    if (interruption === 'shutdown' || interruption === 'pause') {
      await releaseJob(db, crawlId, interruption === 'pause' ? 'paused' : 'waiting');
      return null;
    }
    const limit = part.endedBy();
    const final: Ending = interruption === 'limit' ? { state: 'done', reason: limit, limited: true } : ending;
    if (final.state !== 'failed') {
      const snapshot = await makeSnapshot(db, { ...row, limited: final.limited });
      run.onSnapshot?.(snapshot);
    }
    await markEnded(db, crawlId, final);
    return final;
  } finally {
    await part.close();
  }
}

/** Helps with a crawl that another worker leads, until it ends or that worker is gone. */
export async function helpWith(run: JobRun): Promise<void> {
  const { db, crawlId } = run;
  const row = await getCrawl(db, crawlId);
  if (row?.state !== 'running') return;
  const part = await takePart(run, row, false);
  try {
    while (!part.signal.aborted && (await isLed(db, crawlId))) {
      const now = await getCrawl(db, crawlId);
      if (now?.state !== 'running' || now.request) break;
      if (now.rank >= 0) await part.member.work(now.rank);
      await sleep(IDLE_MS, undefined, { signal: part.signal }).catch(() => {});
    }
    if (part.interruption() !== 'lost') await leaveCrew(db, crawlId, part.number);
  } catch (error) {
    if (!(error instanceof LostMembership)) throw error;
  } finally {
    await part.close();
  }
}
