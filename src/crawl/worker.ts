import { hostname } from 'node:os';
import { setTimeout as sleep } from 'node:timers/promises';
import type { Logger } from 'pino';
import { endAnalysis, endCrawl, helpableCrawl, isConnectionLoss, leaseJob, LostLease } from '$server/index';
import type { Database, Lease } from '$server/index';
import { helpWith, runAnalysis, runCrawl } from './job';

const IDLE_MS = 500;
const RETRY_MS = 2000;

/** How the names of workers begin that others may help. A crawl at a terminal keeps to the settings of its terminal. */
const WORKER = 'worker:';
const nameOf = (kind: string) => `${kind}${hostname().slice(0, 40)}:${process.pid}:${Date.now().toString(36)}`;
/** A name for this process, which no other has. */
export const terminalName = () => nameOf('terminal:');

/** Takes jobs from the database and runs them, one at a time, or helps others with theirs, until the signal comes. */
export async function work(db: Database, log: Logger, allowPrivate: boolean, signal: AbortSignal): Promise<void> {
  const owner = nameOf(WORKER);
  const options = { db, owner, allowPrivate, signal };
  log.info({ owner }, 'worker ready');
  while (!signal.aborted) {
    let lease: Lease | null = null;
    try {
      lease = await leaseJob(db, owner);
      const helped = lease === null ? await helpableCrawl(db, WORKER) : null;
      if (lease?.kind === 'analysis') {
        log.info(lease, 'analysis begins');
        await runAnalysis({ db, lease });
      } else if (lease) {
        log.info(lease, 'crawl begins');
        const ending = await runCrawl({ ...options, lease });
        log.info({ ...lease, ...ending }, ending ? 'crawl ended' : 'crawl given back');
      } else if (helped !== null) {
        log.info({ crawlId: helped }, 'helps with a crawl');
        await helpWith(options, helped);
      }
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

/** Ends a job that this program cannot run, so that it is not tried without end. */
async function giveUp(db: Database, lease: Lease, log: Logger): Promise<void> {
  const end =
    lease.kind === 'analysis'
      ? endAnalysis(db, lease)
      : endCrawl(db, lease, { state: 'failed', reason: { code: 'internal' }, limited: false });
  await end.catch((error: unknown) => {
    if (!(error instanceof LostLease)) log.error({ error }, 'the job could not be ended');
  });
}
