import { hostname } from 'node:os';
import { setTimeout as sleep } from 'node:timers/promises';
import type { Logger } from 'pino';
import { isConnectionLoss, leaseJob, markEnded } from '$server/index';
import type { Database } from '$server/index';
import { runJob } from './job';

const IDLE_MS = 500;
const AGAIN_MS = 2000;

/** A name for this process that no other has. */
export const ownerName = () => `${hostname()}:${process.pid}:${Date.now().toString(36)}`;

/** Takes jobs from the database and runs them, one at a time, until the signal comes. */
export async function work(db: Database, log: Logger, signal: AbortSignal): Promise<void> {
  const owner = ownerName();
  log.info({ owner }, 'worker ready');
  while (!signal.aborted) {
    let crawlId: number | null = null;
    try {
      crawlId = await leaseJob(db, owner);
      if (crawlId === null) await sleep(IDLE_MS, undefined, { signal }).catch(() => {});
      else {
        log.info({ crawlId }, 'crawl begins');
        const ending = await runJob({ db, crawlId, owner, signal });
        log.info({ crawlId, ...ending }, ending ? 'crawl ended' : 'crawl given back');
      }
    } catch (error) {
      // What waits in the database is taken up again by whoever reaches it first.
      log.error(
        { crawlId, error: error instanceof Error ? { message: error.message, cause: error.cause } : error },
        'crawl interrupted',
      );
      if (crawlId !== null && !isConnectionLoss(error)) await giveUp(db, crawlId, log);
      await sleep(AGAIN_MS, undefined, { signal }).catch(() => {});
    }
  }
}

/** Ends a crawl that this program cannot run, so that it is not tried without end. */
async function giveUp(db: Database, crawlId: number, log: Logger): Promise<void> {
  const reason =
    'Edge Map met a fault of its own; the worker’s log says more. What was fetched is kept: continue the crawl, or start it again.';
  await markEnded(db, crawlId, { state: 'failed', reason, limited: false }).catch((error) =>
    log.error({ error }, 'lost'),
  );
}
