/** Analyses of ended crawls and indexes of their texts: asked for, leased, and how far they are. */
import { and, eq, lt, ne } from 'drizzle-orm';
import { inTransaction } from '../database';
import type { Database } from '../database';
import { job } from '../database/schema';
import { isOfCrawl, LEASE_SECONDS } from './lease';
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
    .where(and(isOfCrawl(crawlId), eq(job.state, 'done'), lt(job.losses, MAX_LOSSES)));
}

/**
 * Asks a worker to index the texts of an ended crawl. Does nothing while that is already asked for or under way, or
 * when workers have died of it.
 */
export async function requestTexts(db: Database, crawlId: number): Promise<void> {
  await db.$client.query(
    `insert into job (crawl_id, kind) values (?, 'texts') on duplicate key update
       owner = if(state = 'done', null, owner), state = if(state = 'done' and losses < ${MAX_LOSSES}, 'waiting', state)`,
    [crawlId],
  );
}

/** Leases a job of one ended crawl that waits, or whose worker is gone; null when a worker is at it. */
export async function leaseWaiting(
  db: Database,
  crawlId: number,
  kind: 'analysis' | 'texts',
  owner: string,
): Promise<Lease | null> {
  return inTransaction(db, async (run) => {
    const open = `select lease from job where crawl_id = ? and kind = ?
      and (state = 'waiting' or (state = 'leased' and lease_until < current_timestamp(3))) for update`;
    const [row] = (await run(open, [crawlId, kind])) as { lease: number }[];
    if (!row) return null;
    await run(
      `update job set state = 'leased', owner = ?, lease = lease + 1,
         lease_until = current_timestamp(3) + interval ${LEASE_SECONDS} second where crawl_id = ? and kind = ?`,
      [owner, crawlId, kind],
    );
    return { crawlId, kind, owner, number: row.lease + 1 };
  });
}

/** Notes how far an analysis is. */
export const noteStep = async (db: Database, lease: Lease, step: string, stepsDone: number, steps: number) =>
  void (await db.update(job).set({ step, stepsDone, steps }).where(isHeld(lease)));

/** How far an analysis, or an index, is. */
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
    .where(isOfCrawl(crawlId));
  if (!row || row.state === 'done') return null;
  const { step, stepsDone, steps } = row;
  return row.kind === 'analysis' || step !== null ? { step, stepsDone, steps } : null;
}

/** How far the index of a crawl's texts is; null when none is under way or waiting. */
export async function textsProgress(db: Database, crawlId: number): Promise<AnalysisProgress | null> {
  const [row] = await db
    .select({ step: job.step, stepsDone: job.stepsDone, steps: job.steps })
    .from(job)
    .where(and(eq(job.crawlId, crawlId), eq(job.kind, 'texts'), ne(job.state, 'done')));
  return row ?? null;
}

/** Ends the job of an analysis or an index, or gives it back. @throws lease_lost */
export const endJob = (db: Database, lease: Lease, state: 'done' | 'waiting' = 'done'): Promise<void> =>
  inTransaction(db, async (run) => {
    await lockLease(run, lease);
    await finish(run, lease, state);
  });
