import { hostname } from 'node:os';
import { setTimeout as sleep } from 'node:timers/promises';
import type { Logger } from 'pino';
import {
  BEAT_MS,
  endJob,
  endCrawl,
  helpableCrawl,
  isConnectionLoss,
  leaseJob,
  releaseDead,
  requestTexts,
  removeDeleted,
  sayAlive,
  sayGone,
  startDue,
} from '$server/index';
import type { Database, Lease } from '$server/index';
import { helpWith, runAnalysis, runCrawl } from './job';
import { runLiveChecks } from './liveChecks';
import { indexTexts } from './textIndex';
import { isError } from '$core/errors';

const IDLE_MS = 500;
const RETRY_MS = 2000;
/** How often an idle worker looks for what was deleted. */
const REMOVAL_MS = 5000;
/** How often a worker looks for crawls that are due. */
const SCHEDULE_MS = 5000;

/** How the names of workers begin that others may help. A crawl at a terminal keeps to the settings of its terminal. */
const WORKER = 'worker:';
const processName = (pid: number) => `${hostname().slice(0, 40)}:${pid}:`;
const nameOf = (kind: string) => `${kind}${processName(process.pid)}${Date.now().toString(36)}`;
/** A name for this process, which no other has. */
export const terminalName = () => nameOf('terminal:');

/** What is known of the process in whose place this one was started. */
export interface Predecessor {
  pid: number;
  /** How many there have been. */
  restarts: number;
}

export interface WorkOptions {
  db: Database;
  log: Logger;
  allowPrivate: boolean;
  /** The worker that ended by itself before this one; what it held is free at once. */
  predecessor: Predecessor | null;
  signal: AbortSignal;
}

/** Takes jobs from the database and runs them, one at a time, or helps others with theirs, until the signal comes. */
export async function work({ db, log, allowPrivate, predecessor, signal }: WorkOptions): Promise<void> {
  const owner = nameOf(WORKER);
  if (predecessor) await releaseDead(db, WORKER + processName(predecessor.pid)).catch(() => {});
  // A database that does not answer is waited for below.
  const beat = () => sayAlive(db, owner, predecessor?.restarts ?? 0).catch(() => {});
  await beat();
  const beating = setInterval(() => void beat(), BEAT_MS);
  log.info({ owner }, 'worker ready');
  try {
    // Whoever asks for a check waits for it, however long a crawl takes.
    const checking = runLiveChecks({ db, log, allowPrivate, signal });
    await takeJobs({ db, log, owner, allowPrivate, signal });
    await checking;
  } finally {
    clearInterval(beating);
    await sayGone(db, owner).catch(() => {});
  }
}

async function takeJobs({ log, ...options }: Omit<WorkOptions, 'predecessor'> & { owner: string }): Promise<void> {
  const { db, owner, signal } = options;
  const removeIfDue = atIntervals(REMOVAL_MS, async () => {
    if (await removeDeleted(db, signal)) log.info('removed what was deleted');
  });
  const startIfDue = atIntervals(SCHEDULE_MS, async () => {
    for (const crawlId of await startDue(db)) log.info({ crawlId }, 'scheduled crawl added');
  });
  while (!signal.aborted) {
    let lease: Lease | null = null;
    try {
      await startIfDue();
      lease = await leaseJob(db, owner);
      const helped = lease === null ? await helpableCrawl(db, WORKER) : null;
      if (lease?.kind === 'analysis') {
        log.info(lease, 'analysis begins');
        await runAnalysis({ db, lease });
        await requestTexts(db, lease.crawlId);
      } else if (lease?.kind === 'texts') {
        log.info(lease, 'index of texts begins');
        await indexTexts({ db, lease, signal });
      } else if (lease) {
        log.info(lease, 'crawl begins');
        const ending = await runCrawl({ ...options, lease });
        log.info({ ...lease, ...ending }, ending ? 'crawl ended' : 'crawl given back');
        if (ending && ending.state !== 'failed') await requestTexts(db, lease.crawlId);
      } else if (helped !== null) {
        log.info({ crawlId: helped }, 'helps with a crawl');
        await helpWith(options, helped);
      } else await removeIfDue();
      if (lease === null) await sleep(IDLE_MS, undefined, { signal }).catch(() => {});
    } catch (error) {
      // What waits in the database is taken up again by whoever reaches it first.
      const details = error instanceof Error ? { message: error.message, cause: error.cause } : error;
      log.error({ ...lease, error: details }, 'job interrupted');
      if (lease && !isConnectionLoss(error)) await giveUp(db, lease, log);
      await sleep(RETRY_MS, undefined, { signal }).catch(() => {});
    }
  }
}

/** Makes a function that does something again only after a while. */
function atIntervals(ms: number, run: () => Promise<void>): () => Promise<void> {
  let next = 0;
  return async () => {
    if (performance.now() < next) return;
    next = performance.now() + ms;
    await run();
  };
}

/** Ends a job that this program cannot run, so that it is not tried without end. */
async function giveUp(db: Database, lease: Lease, log: Logger): Promise<void> {
  const end =
    lease.kind !== 'crawl'
      ? endJob(db, lease)
      : endCrawl(db, lease, { state: 'failed', reason: { code: 'internal' }, limited: false });
  await end.catch((error: unknown) => {
    if (!isError(error, 'lease_lost')) log.error({ error }, 'the job could not be ended');
  });
}
