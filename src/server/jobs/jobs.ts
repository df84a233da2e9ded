/**
 * The life cycle of a job: it waits, a worker leases it, renews the lease while it works, and ends it or gives it back.
 * Whatever the holder of a lease writes is fenced by the number of its lease: once another worker has leased the job,
 * nothing that the earlier one still writes has an effect.
 */
import { EdgeMapError } from '$core/errors';
import { and, eq, like, lt, sql } from 'drizzle-orm';
import type { RowDataPacket } from 'mysql2';
import type { Message } from '$core/messages';
import { dismissAll, freeOrphans } from '../crawls/workers';
import { inTransaction } from '../database';
import type { Database, Statement } from '../database';
import { crawl, job } from '../database/schema';
import { LEASE_SECONDS, leaseEnd } from './lease';

const now = sql`current_timestamp(3)`;

/** A leased job. */
export interface Lease {
  crawlId: number;
  kind: 'crawl' | 'analysis';
  owner: string;
  /** Counts the leases of the job. */
  number: number;
}

/** Workers that die with a job, one after the other and without storing a page, until it is set aside. */
const MAX_LOSSES = 3;

/** The oldest open job: one that waits, or whose worker has not renewed its lease in time. Its row is locked. */
async function openJob(run: Statement): Promise<OpenJob | null> {
  const open = `select crawl_id as crawlId, kind, lease as number, losses, done_at_lease as doneAtLease, state from job
    where state = 'waiting' or (state = 'leased' and lease_until < current_timestamp(3))
    order by crawl_id limit 1 for update skip locked`;
  return ((await run(open)) as OpenJob[])[0] ?? null;
}

interface OpenJob {
  crawlId: number;
  kind: Lease['kind'];
  number: number;
  losses: number;
  doneAtLease: number;
  state: 'waiting' | 'leased';
}

/** Leases the oldest open job; null when there is none. A job with which worker after worker has died is set aside. */
export async function leaseJob(db: Database, owner: string): Promise<Lease | null> {
  for (;;) {
    const tried = await inTransaction(db, async (run): Promise<Lease | 'aside' | null> => {
      const open = await openJob(run);
      if (!open) return null;
      const { crawlId, kind, number } = open;
      const [{ done }] = (await run('select done from crawl where id = ?', [crawlId])) as { done: number }[];
      const losses = open.state === 'waiting' ? 0 : done > open.doneAtLease ? 1 : open.losses + 1;
      await run(
        `update job set state = 'leased', owner = ?, lease = lease + 1, losses = ?, done_at_lease = ?,
           lease_until = current_timestamp(3) + interval ${LEASE_SECONDS} second where crawl_id = ?`,
        [owner, losses, done, crawlId],
      );
      if (losses < MAX_LOSSES) return { crawlId, kind, owner, number: number + 1 };
      await setAside(run, open);
      return 'aside';
    });
    if (tried !== 'aside') return tried;
  }
}

/** Ends a job with which worker after worker has died. What was stored is kept. */
async function setAside(run: Statement, { crawlId, kind }: OpenJob): Promise<void> {
  await dismissAll(run, crawlId);
  const reason = JSON.stringify({ code: 'workers_died', times: MAX_LOSSES, during: kind } satisfies Message);
  const ended = `update crawl set reason = ?, request = null, current = null, ended_at = current_timestamp(3)
    ${kind === 'crawl' ? ", state = 'failed'" : ''} where id = ?`;
  await run(ended, [reason, crawlId]);
  await finish(run, crawlId, 'done');
}

const isHeld = ({ crawlId, owner, number }: Lease) =>
  and(eq(job.crawlId, crawlId), eq(job.owner, owner), eq(job.lease, number), eq(job.state, 'leased'));

/** Renews a lease. @returns false when another worker has taken the job over */
export async function renewLease(db: Database, lease: Lease): Promise<boolean> {
  const [result] = await db.update(job).set({ leaseUntil: leaseEnd }).where(isHeld(lease));
  return result.affectedRows > 0;
}

/** Locks the row of a leased job within a transaction. @throws lease_lost */
export async function lockLease(run: Statement, { crawlId, owner, number }: Lease): Promise<void> {
  const held = `select crawl_id from job where crawl_id = ? and owner = ? and lease = ? and state = 'leased' for update`;
  const rows = await run<RowDataPacket[]>(held, [crawlId, owner, number]);
  if (rows.length === 0)
    throw new EdgeMapError('lease_lost', `Another worker has taken over crawl ${crawlId}.`, { crawl: crawlId });
}

/** A crawl that another worker leads and that can be helped with; null when there is none. */
export async function helpableCrawl(db: Database, leaders: string): Promise<number | null> {
  const led = and(eq(job.kind, 'crawl'), eq(job.state, 'leased'), like(job.owner, `${leaders}%`));
  const [row] = await db
    .select({ id: job.crawlId })
    .from(job)
    .innerJoin(crawl, eq(crawl.id, job.crawlId))
    .where(and(eq(crawl.state, 'running'), led, sql`${job.leaseUntil} >= ${now}`))
    .orderBy(job.crawlId)
    .limit(1);
  return row?.id ?? null;
}

/** Whether the worker that leads a crawl is alive. */
export async function isLed(db: Database, crawlId: number): Promise<boolean> {
  const [row] = await db
    .select({ id: job.crawlId })
    .from(job)
    .where(and(eq(job.crawlId, crawlId), eq(job.state, 'leased'), sql`${job.leaseUntil} >= ${now}`));
  return row !== undefined;
}

/** Notes how far an analysis is. */
export const noteStep = async (db: Database, lease: Lease, step: string, stepsDone: number, steps: number) =>
  void (await db.update(job).set({ step, stepsDone, steps }).where(isHeld(lease)));

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
    await finish(run, lease.crawlId, 'done');
  });

/** Ends the job of an analysis. @throws lease_lost */
export const endAnalysis = (db: Database, lease: Lease): Promise<void> =>
  inTransaction(db, async (run) => {
    await lockLease(run, lease);
    await finish(run, lease.crawlId, 'done');
  });

const finish = (run: Statement, crawlId: number, state: 'waiting' | 'paused' | 'done') =>
  run(
    'update job set state = ?, owner = null, lease_until = null, step = null, steps_done = 0, steps = 0 where crawl_id = ?',
    [state, crawlId],
  );

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
    await finish(run, lease.crawlId, state);
  });

/**
 * Asks a worker to analyse an ended crawl anew. Does nothing while that is already asked for or under way, or when
 * workers have died of it.
 */
export async function requestAnalysis(db: Database, crawlId: number): Promise<void> {
  await db
    .update(job)
    .set({ kind: 'analysis', state: 'waiting', owner: null, leaseUntil: null })
    .where(and(eq(job.crawlId, crawlId), eq(job.state, 'done'), lt(job.losses, MAX_LOSSES)));
}

/** Leases the waiting analysis of one crawl; null when a worker has leased it already. */
export async function leaseAnalysis(db: Database, crawlId: number, owner: string): Promise<Lease | null> {
  return inTransaction(db, async (run) => {
    const waiting = `select lease from job where crawl_id = ? and kind = 'analysis' and state = 'waiting' for update`;
    const [row] = (await run(waiting, [crawlId])) as { lease: number }[];
    if (!row) return null;
    await run(
      `update job set state = 'leased', owner = ?, lease = lease + 1,
         lease_until = current_timestamp(3) + interval ${LEASE_SECONDS} second where crawl_id = ?`,
      [owner, crawlId],
    );
    return { crawlId, kind: 'analysis', owner, number: row.lease + 1 };
  });
}

/** How far an analysis is. */
export interface AnalysisProgress {
  step: string | null;
  stepsDone: number;
  steps: number;
}

/** How far the analysis of a crawl is; null when there is none under way or waiting. */
export async function analysisProgress(db: Database, crawlId: number): Promise<AnalysisProgress | null> {
  const [row] = await db
    .select({ kind: job.kind, state: job.state, step: job.step, stepsDone: job.stepsDone, steps: job.steps })
    .from(job)
    .where(eq(job.crawlId, crawlId));
  if (!row || row.state === 'done') return null;
  const { step, stepsDone, steps } = row;
  return row.kind === 'analysis' || step !== null ? { step, stepsDone, steps } : null;
}
