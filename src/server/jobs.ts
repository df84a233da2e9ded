import { and, eq, lt, or, sql } from 'drizzle-orm';
import type { Database } from './database';
import { crawl, job } from './schema';
import { leaseEnd } from './sites';

/**
 * Leases the oldest open job: one that waits, or whose worker has not renewed its lease in time.
 * @returns the crawl to run, or null when there is nothing to do
 */
export async function leaseJob(db: Database, owner: string): Promise<number | null> {
  return db.transaction(async (tx) => {
    const [open] = await tx
      .select({ crawlId: job.crawlId })
      .from(job)
      .where(or(eq(job.state, 'waiting'), and(eq(job.state, 'leased'), lt(job.leaseUntil, sql`current_timestamp(3)`))))
      .orderBy(job.crawlId)
      .limit(1)
      .for('update', { skipLocked: true });
    if (!open) return null;
    await tx.update(job).set({ state: 'leased', owner, leaseUntil: leaseEnd }).where(eq(job.crawlId, open.crawlId));
    return open.crawlId;
  });
}

export interface Heartbeat {
  /** False when another worker has taken the job over. */
  held: boolean;
  stopRequested: boolean;
}

export interface Progress {
  known: number;
  done: number;
  unanswered: number;
  bytes: number;
  current: string | null;
}

/** Renews a lease, tells how far the crawl is, and asks whether it is to go on. */
export async function heartbeat(db: Database, crawlId: number, owner: string, progress: Progress): Promise<Heartbeat> {
  const [result] = await db
    .update(job)
    .set({ leaseUntil: leaseEnd })
    .where(and(eq(job.crawlId, crawlId), eq(job.owner, owner), eq(job.state, 'leased')));
  if (result.affectedRows === 0) return { held: false, stopRequested: false };
  await db.update(crawl).set(progress).where(eq(crawl.id, crawlId));
  const [row] = await db.select({ stop: crawl.stopRequested }).from(crawl).where(eq(crawl.id, crawlId));
  return { held: true, stopRequested: row?.stop ?? true };
}

export const markStarted = (db: Database, crawlId: number) =>
  db
    .update(crawl)
    .set({ state: 'running', startedAt: sql`coalesce(${crawl.startedAt}, current_timestamp(3))` })
    .where(eq(crawl.id, crawlId));

export interface Ending {
  state: 'done' | 'stopped' | 'failed';
  reason: string | null;
  limited: boolean;
}

/** Records how a crawl ended and gives its job back as done. */
export async function markEnded(db: Database, crawlId: number, { state, reason, limited }: Ending): Promise<void> {
  await db.transaction(async (tx) => {
    const endedAt = sql`current_timestamp(3)`;
    await tx.update(crawl).set({ state, reason, limited, current: null, endedAt }).where(eq(crawl.id, crawlId));
    await tx.update(job).set({ state: 'done', owner: null, leaseUntil: null }).where(eq(job.crawlId, crawlId));
  });
}

/** Gives a job back unfinished, for the next worker to go on with. */
export async function releaseJob(db: Database, crawlId: number): Promise<void> {
  await db.update(crawl).set({ state: 'waiting', current: null }).where(eq(crawl.id, crawlId));
  await db.update(job).set({ state: 'waiting', owner: null, leaseUntil: null }).where(eq(job.crawlId, crawlId));
}
