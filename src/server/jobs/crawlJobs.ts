/** What the worker that leads a crawl writes of its job, from the start to the end. */
import type { Message } from '$core/messages';
import { dismissAll, freeOrphans } from '../crawls/workers';
import { inTransaction } from '../database';
import type { Database } from '../database';
import { finish, lockLease } from './leases';
import type { Lease } from './leases';

/** Sets a crawl running. Whatever is held by workers that no longer exist is free again. */
export const markStarted = (db: Database, lease: Lease) =>
  inTransaction(db, async (run) => {
    await lockLease(run, lease);
    const start = `update crawl set state = 'running', started_at = coalesce(started_at, current_timestamp(3)) where id = ?`;
    await run(start, [lease.crawlId]);
    await freeOrphans(run, lease.crawlId);
  });

/** Tells the workers of a crawl at which rank to work. */
export const setRank = (db: Database, lease: Lease, rank: number) =>
  inTransaction(db, async (run) => {
    await lockLease(run, lease);
    await run('update crawl set rank = ? where id = ?', [rank, lease.crawlId]);
  });

export interface Ending {
  state: 'done' | 'stopped' | 'failed';
  reason: Message | null;
  limited: boolean;
}

/** Records how a crawl ended and ends its job; whatever workers still hold is free again. @throws lease_lost */
export const endCrawl = (db: Database, lease: Lease, { state, reason, limited }: Ending): Promise<void> =>
  inTransaction(db, async (run) => {
    await lockLease(run, lease);
    await dismissAll(run, lease.crawlId);
    await run(
      `update crawl set state = ?, reason = ?, limited = ?, request = null, current = null, cookies = null,
         ended_at = current_timestamp(3) where id = ?`,
      [state, reason && JSON.stringify(reason), limited, lease.crawlId],
    );
    await finish(run, lease, 'done');
  });

/**
 * Gives the job of a crawl back unfinished.
 * @param state `waiting` for the next worker, `paused` until a person resumes it
 * @throws lease_lost
 */
export const releaseCrawl = (db: Database, lease: Lease, state: 'waiting' | 'paused'): Promise<void> =>
  inTransaction(db, async (run) => {
    await lockLease(run, lease);
    await dismissAll(run, lease.crawlId);
    await run('update crawl set state = ?, request = null, current = null where id = ?', [state, lease.crawlId]);
    await finish(run, lease, state);
  });
