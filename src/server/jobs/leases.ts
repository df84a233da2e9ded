/**
 * Jobs are leased: a job waits, a worker leases it and renews the lease while it works. Whatever the holder of a lease
 * writes is fenced by the number of its lease: once another worker has leased the job, nothing that the earlier one
 * still writes has an effect.
 */
import { EdgeMapError } from '$core/errors';
import { and, eq, like, sql } from 'drizzle-orm';
import type { RowDataPacket } from 'mysql2';
import type { Message } from '$core/messages';
import { dismissAll } from '../crawls/workers';
import { inTransaction } from '../database';
import type { Database, Statement } from '../database';
import { crawl, job } from '../database/schema';
import { isOfCrawl, LEASE_SECONDS, leaseEnd } from './lease';

const now = sql`current_timestamp(3)`;

/** A leased job. */
export interface Lease {
  crawlId: number;
  kind: 'crawl' | 'analysis' | 'texts';
  owner: string;
  /** Counts the leases of the job. */
  number: number;
}

/** Workers that die with a job, one after the other and without storing a page, until it is set aside. */
export const MAX_LOSSES = 3;

/**
 * The oldest open job: one that waits, or whose worker has not renewed its lease in time, of a crawl that is not
 * deleted. Its row is locked.
 */
async function openJob(run: Statement): Promise<OpenJob | null> {
  const open = `select crawl_id as crawlId, kind, lease as number, losses, done_at_lease as doneAtLease, state from job
    where (state = 'waiting' or (state = 'leased' and lease_until < current_timestamp(3)))
      and not exists (select 1 from crawl where id = crawl_id and deleted_at is not null)
    order by kind = 'texts', crawl_id limit 1 for update skip locked`;
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
           lease_until = current_timestamp(3) + interval ${LEASE_SECONDS} second where crawl_id = ? and kind = ?`,
        [owner, losses, done, crawlId, kind],
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
  if (kind === 'texts') return void (await finish(run, { crawlId, kind }, 'done'));
  await dismissAll(run, crawlId);
  const reason = JSON.stringify({ code: 'workers_died', times: MAX_LOSSES, during: kind } satisfies Message);
  const ended = `update crawl set reason = ?, request = null, current = null, ended_at = current_timestamp(3)
    ${kind === 'crawl' ? ", state = 'failed'" : ''} where id = ?`;
  await run(ended, [reason, crawlId]);
  await finish(run, { crawlId, kind }, 'done');
}

export const isHeld = ({ crawlId, kind, owner, number }: Lease) =>
  and(
    eq(job.crawlId, crawlId),
    eq(job.kind, kind),
    eq(job.owner, owner),
    eq(job.lease, number),
    eq(job.state, 'leased'),
  );

/** Renews a lease. @returns false when another worker has taken the job over */
export async function renewLease(db: Database, lease: Lease): Promise<boolean> {
  const [result] = await db.update(job).set({ leaseUntil: leaseEnd }).where(isHeld(lease));
  return result.affectedRows > 0;
}

/** Locks the row of a leased job within a transaction. @throws lease_lost */
export async function lockLease(run: Statement, { crawlId, kind, owner, number }: Lease): Promise<void> {
  const held = `select crawl_id from job where crawl_id = ? and kind = ? and owner = ? and lease = ? and state = 'leased' for update`;
  const rows = await run<RowDataPacket[]>(held, [crawlId, kind, owner, number]);
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
    .where(and(isOfCrawl(crawlId), eq(job.state, 'leased'), sql`${job.leaseUntil} >= ${now}`));
  return row !== undefined;
}

/** Gives up the lease of a job, within a transaction. */
export const finish = (
  run: Statement,
  { crawlId, kind }: Pick<Lease, 'crawlId' | 'kind'>,
  state: 'waiting' | 'paused' | 'done',
) =>
  run(
    'update job set state = ?, owner = null, lease_until = null, step = null, steps_done = 0, steps = 0 where crawl_id = ? and kind = ?',
    [state, crawlId, kind],
  );
