import { hostname } from 'node:os';
import { setTimeout as sleep } from 'node:timers/promises';
import type { Logger } from 'pino';
import { helpableCrawl, isConnectionLoss, leaseJob, markEnded } from '$server/index';
import type { Database } from '$server/index';
import { helpWith, runJob } from './job';

const IDLE_MS = 500;
const AGAIN_MS = 2000;

/** How the names of workers begin that others may help. A crawl at a terminal keeps to the settings of its terminal. */
const WORKER = 'worker:';
const nameOf = (kind: string) => `${kind}${hostname().slice(0, 40)}:${process.pid}:${Date.now().toString(36)}`;
/** A name for this process, which no other has. */
export const terminalName = () => nameOf('terminal:');

/** Takes jobs from the database and runs them, one at a time, or helps others with theirs, until the signal comes. */
export async function work(db: Database, log: Logger, allowPrivate: boolean, signal: AbortSignal): Promise<void> {
  const owner = nameOf(WORKER);
  log.info({ owner }, 'worker ready');
  while (!signal.aborted) {
    let crawlId: number | null = null;
    try {
      crawlId = await leaseJob(db, owner);
      const helped = crawlId === null ? await helpableCrawl(db, WORKER) : null;
      if (crawlId !== null) {
        log.info({ crawlId }, 'crawl begins');
        const ending = await runJob({ db, crawlId, owner, allowPrivate, signal });
        log.info({ crawlId, ...ending }, ending ? 'crawl ended' : 'crawl given back');
      } else if (helped !== null) {
        log.info({ crawlId: helped }, 'helps with a crawl');
        await helpWith({ db, crawlId: helped, owner, allowPrivate, signal });
      }
      if (crawlId === null) await sleep(IDLE_MS, undefined, { signal }).catch(() => {});
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
