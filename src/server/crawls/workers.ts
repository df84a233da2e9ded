/** The workers of a running crawl, which share its frontier. */
import type { ResultSetHeader, RowDataPacket } from 'mysql2';
import { inTransaction } from '../database';
import type { Database, Statement } from '../database';
import { LEASE_SECONDS } from '../jobs/lease';
import { RESOURCE_RANK } from './ranks';
import { failure } from '$core/errors';

const lease = `current_timestamp(3) + interval ${LEASE_SECONDS} second`;

/** Adds a worker to a crawl. @returns its number */
export async function joinCrawl(db: Database, crawlId: number, owner: string): Promise<number> {
  const insert = `insert into crawl_worker (crawl_id, owner, lease_until) values (?, ?, ${lease})`;
  const [result] = await db.$client.query<ResultSetHeader>(insert, [crawlId, owner]);
  return result.insertId;
}

/*
 * Whoever locks rows of several tables does it in one order: crawl_worker, crawl, frontier. Two workers then wait for
 * each other at most, and never in a circle.
 */

/**
 * Makes sure, within a transaction, that a worker still belongs to its crawl, and locks its row.
 * @throws membership_lost
 */
export async function lockWorker(run: Statement, workerId: number): Promise<void> {
  const rows = await run('select id from crawl_worker where id = ? for update', [workerId]);
  if (rows.length === 0) throw failure('membership_lost', 'Another worker has taken over what this one held.');
}

/**
 * Locks the row of a crawl.
 * @returns how many pages its workers have asked for, or are about to, and how many addresses are known
 */
export async function lockCrawl(run: Statement, crawlId: number): Promise<{ asked: number; known: number }> {
  const locked = 'select asked, known from crawl where id = ? for update';
  const [row] = (await run(locked, [crawlId])) as { asked: number; known: number }[];
  return row ?? { asked: 0, known: 0 };
}

/** Removes workers whose rows are locked; what they held is free again. */
async function dismiss(run: Statement, crawlId: number, workers: number[]): Promise<void> {
  if (workers.length === 0) return;
  await lockCrawl(run, crawlId);
  const held = 'crawl_id = ? and done = 0 and held_by in (?)';
  const counted = `select count(*) as pages from frontier where ${held} and rank < ${RESOURCE_RANK}`;
  const [{ pages }] = (await run(counted, [crawlId, workers])) as { pages: number }[];
  await run(`update frontier set held_by = null where ${held}`, [crawlId, workers]);
  await run('update crawl set asked = greatest(0, asked - ?) where id = ?', [pages, crawlId]);
  await run('delete from crawl_worker where id in (?)', [workers]);
}

const idsOf = (rows: RowDataPacket[]) => rows.map(({ id }) => id as number);

/** Takes a worker out of a crawl; what it holds is free again. */
export const leaveCrawl = (db: Database, crawlId: number, workerId: number) =>
  inTransaction(db, async (run) =>
    dismiss(run, crawlId, idsOf(await run('select id from crawl_worker where id = ? for update', [workerId]))),
  );

/** Within a transaction: takes all workers out of a crawl; what they hold is free again. */
export const dismissAll = async (run: Statement, crawlId: number) =>
  dismiss(run, crawlId, idsOf(await run('select id from crawl_worker where crawl_id = ? for update', [crawlId])));

/**
 * Renews a worker's lease and takes out the workers whose lease has run out.
 * @returns how many there are; 0 when it was taken out itself
 */
export async function renewWorker(db: Database, crawlId: number, workerId: number): Promise<number> {
  const renew = `update crawl_worker set lease_until = ${lease} where id = ? and crawl_id = ?`;
  const [result] = await db.$client.query<ResultSetHeader>(renew, [workerId, crawlId]);
  if (result.affectedRows === 0) return 0;
  const all = 'select id, lease_until < current_timestamp(3) as gone from crawl_worker where crawl_id = ?';
  const [rows] = await db.$client.query<RowDataPacket[]>(all, [crawlId]);
  const gone = idsOf(rows.filter((row) => row.gone));
  const expired = 'select id from crawl_worker where id in (?) and lease_until < current_timestamp(3) for update';
  if (gone.length) await inTransaction(db, async (run) => dismiss(run, crawlId, idsOf(await run(expired, [gone]))));
  return rows.length - gone.length;
}

/** Frees what is held by workers that no longer exist, within a transaction. */
export async function freeOrphans(run: Statement, crawlId: number): Promise<void> {
  await lockCrawl(run, crawlId);
  const orphaned = `crawl_id = ? and done = 0 and held_by is not null
    and not exists (select 1 from crawl_worker w where w.id = held_by)`;
  const counted = `select count(*) as pages from frontier where ${orphaned} and rank < ${RESOURCE_RANK}`;
  const [{ pages }] = (await run(counted, [crawlId])) as { pages: number }[];
  await run(`update frontier set held_by = null where ${orphaned}`, [crawlId]);
  if (pages) await run('update crawl set asked = greatest(0, asked - ?) where id = ?', [pages, crawlId]);
}

/** How many workers a crawl has. */
export async function workerCount(db: Database, crawlId: number): Promise<number> {
  const count = 'select count(*) as n from crawl_worker where crawl_id = ? and lease_until >= current_timestamp(3)';
  return ((await db.$client.query<RowDataPacket[]>(count, [crawlId]))[0] as { n: number }[])[0].n;
}
