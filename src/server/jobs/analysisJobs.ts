/** Analyses of ended crawls: asked for, leased, and how far they are. */
import { and, eq, lt } from 'drizzle-orm';
import { inTransaction } from '../database';
import type { Database } from '../database';
import { job } from '../database/schema';
import { LEASE_SECONDS } from './lease';
import { finish, isHeld, lockLease, MAX_LOSSES } from './leases';
import type { Lease } from './leases';

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

/** Notes how far an analysis is. */
export const noteStep = async (db: Database, lease: Lease, step: string, stepsDone: number, steps: number) =>
  void (await db.update(job).set({ step, stepsDone, steps }).where(isHeld(lease)));

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

/** Ends the job of an analysis. @throws lease_lost */
export const endAnalysis = (db: Database, lease: Lease): Promise<void> =>
  inTransaction(db, async (run) => {
    await lockLease(run, lease);
    await finish(run, lease.crawlId, 'done');
  });
