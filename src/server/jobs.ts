import { and, eq, like, lt, or, sql } from 'drizzle-orm';
import type { Database } from './database';
import { crawl, crew, job } from './schema';
import { leaseEnd } from './sites';

const now = sql`current_timestamp(3)`;

/**
 * Leases the oldest open job: one that waits, or whose worker has not renewed its lease in time.
 * @returns the crawl to run, or null when there is nothing to do
 */
export async function leaseJob(db: Database, owner: string): Promise<number | null> {
  return db.transaction(async (tx) => {
    const [open] = await tx
      .select({ crawlId: job.crawlId })
      .from(job)
      .where(or(eq(job.state, 'waiting'), and(eq(job.state, 'leased'), lt(job.leaseUntil, now))))
      .orderBy(job.crawlId)
      .limit(1)
      .for('update', { skipLocked: true });
    if (!open) return null;
    await tx.update(job).set({ state: 'leased', owner, leaseUntil: leaseEnd }).where(eq(job.crawlId, open.crawlId));
    return open.crawlId;
  });
}

/**
 * A crawl that another worker leads and that can be helped with; null when there is none.
 * @param leaders how the names of such workers begin
 */
export async function helpableCrawl(db: Database, leaders: string): Promise<number | null> {
  const [row] = await db
    .select({ id: job.crawlId })
    .from(job)
    .innerJoin(crawl, eq(crawl.id, job.crawlId))
    .where(
      and(
        eq(crawl.state, 'running'),
        eq(job.state, 'leased'),
        like(job.owner, `${leaders}%`),
        sql`${job.leaseUntil} >= ${now}`,
      ),
    )
    .orderBy(job.crawlId)
    .limit(1);
  return row?.id ?? null;
}

/** Renews the lease of whoever leads a crawl. @returns false when another worker has taken it over */
export async function renewJob(db: Database, crawlId: number, owner: string, current: string | null, ranMs: number) {
  const [result] = await db
    .update(job)
    .set({ leaseUntil: leaseEnd })
    .where(and(eq(job.crawlId, crawlId), eq(job.owner, owner), eq(job.state, 'leased')));
  if (result.affectedRows === 0) return false;
  await db
    .update(crawl)
    .set({ current, ranMs: sql`${crawl.ranMs} + ${Math.round(ranMs)}` })
    .where(eq(crawl.id, crawlId));
  return true;
}

/** Whether whoever leads a crawl is alive. */
export async function isLed(db: Database, crawlId: number): Promise<boolean> {
  const [row] = await db
    .select({ id: job.crawlId })
    .from(job)
    .where(and(eq(job.crawlId, crawlId), eq(job.state, 'leased'), sql`${job.leaseUntil} >= ${now}`));
  return row !== undefined;
}

/** How far a crawl is. */
export interface Progress {
  known: number;
  done: number;
  unanswered: number;
  bytes: number;
  current: string | null;
}

/** Sets a crawl running. What was asked of an earlier run is no longer asked. */
export const markStarted = (db: Database, crawlId: number) =>
  db
    .update(crawl)
    .set({ state: 'running', startedAt: sql`coalesce(${crawl.startedAt}, current_timestamp(3))` })
    .where(eq(crawl.id, crawlId));

/** Tells the crew at which rank to work. */
export const setRank = (db: Database, crawlId: number, rank: number) =>
  db.update(crawl).set({ rank }).where(eq(crawl.id, crawlId));

export interface Ending {
  state: 'done' | 'stopped' | 'failed';
  reason: string | null;
  limited: boolean;
}

/** Records how a crawl ended and gives its job back as done. */
export async function markEnded(db: Database, crawlId: number, { state, reason, limited }: Ending): Promise<void> {
  await db.transaction(async (tx) => {
    await tx
      .update(crawl)
      .set({ state, reason, limited, request: null, current: null, cookies: null, endedAt: now })
      .where(eq(crawl.id, crawlId));
    await tx.update(job).set({ state: 'done', owner: null, leaseUntil: null }).where(eq(job.crawlId, crawlId));
    await tx.delete(crew).where(eq(crew.crawlId, crawlId));
  });
}

/**
 * Gives a job back unfinished.
 * @param state `waiting` for the next worker to go on with, `paused` until a person lets it go on
 */
export async function releaseJob(db: Database, crawlId: number, state: 'waiting' | 'paused'): Promise<void> {
  await db.update(crawl).set({ state, request: null, current: null }).where(eq(crawl.id, crawlId));
  await db.update(job).set({ state, owner: null, leaseUntil: null }).where(eq(job.crawlId, crawlId));
}
