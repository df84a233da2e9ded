/** The workers that are alive, and what keeps a crawl from going on. */
import type { RowDataPacket } from 'mysql2';
import type { Message } from '$core/messages';
import type { Database } from '../database';
import { LEASE_SECONDS } from './lease';

/** How often a worker says that it is alive, and after how long a silence it counts as gone. */
export const BEAT_MS = 2000;
const SILENT_SECONDS = 6;
/** For how long it is told that a worker was started again. */
const RESTARTED_SECONDS = 60;
/** Workers that have been silent for so long are forgotten. */
const FORGOTTEN_SECONDS = 3600;

/** Says that a worker is alive. @param restarts how often it was started again because it had ended by itself */
export async function sayAlive(db: Database, owner: string, restarts: number): Promise<void> {
  await db.$client.query(
    `insert into worker (owner, started_at, seen_at, restarts) values (?, current_timestamp(3), current_timestamp(3), ?)
       on duplicate key update seen_at = current_timestamp(3)`,
    [owner, restarts],
  );
}

/** Takes a worker off the list that ends in good order, and those that have long been silent. */
export async function sayGone(db: Database, owner: string): Promise<void> {
  await db.$client.query(
    `delete from worker where owner = ? or seen_at < current_timestamp(3) - interval ${FORGOTTEN_SECONDS} second`,
    [owner],
  );
}

/**
 * Lets the leases of a worker that is known to be dead run out, so that nobody waits for it.
 * @param owner its name as far as it is known, from the beginning
 */
export async function releaseDead(db: Database, owner: string): Promise<void> {
  const beginning = `${owner.replace(/[\\%_]/g, '\\$&')}%`;
  const past = 'current_timestamp(3) - interval 1 second';
  await db.$client.query('delete from worker where owner like ?', [beginning]);
  await db.$client.query(`update crawl_worker set lease_until = ${past} where owner like ?`, [beginning]);
  await db.$client.query(`update job set lease_until = ${past} where state = 'leased' and owner like ?`, [beginning]);
}

/** Whether a worker is alive. */
export async function hasWorker(db: Database): Promise<boolean> {
  const [rows] = await db.$client.query<RowDataPacket[]>(
    `select owner from worker where seen_at > current_timestamp(3) - interval ${SILENT_SECONDS} second limit 1`,
  );
  return rows.length > 0;
}

/** What keeps a crawl that waits or runs from going on, or did a moment ago; null when nothing does. */
export async function crawlTrouble(db: Database, crawlId: number): Promise<Message | null> {
  const query = async <T>(sql: string, values: unknown[] = []) =>
    (await db.$client.query<RowDataPacket[]>(sql, values))[0] as unknown as T[];
  const [found] = await query<{ state: string; silent: number | null }>(
    `select state, timestampdiff(second, lease_until - interval ${LEASE_SECONDS} second, current_timestamp(3)) as silent
       from job where crawl_id = ? and kind <> 'texts' and state in ('waiting', 'leased')`,
    [crawlId],
  );
  if (!found) return null;
  const led = found.state === 'leased' && (found.silent ?? Infinity) < SILENT_SECONDS;
  const workers = await query<{ restarts: number; age: number }>(
    `select restarts, timestampdiff(second, started_at, current_timestamp(3)) as age from worker
      where seen_at > current_timestamp(3) - interval ${SILENT_SECONDS} second`,
  );
  if (!led && workers.length === 0) return { code: 'no_worker' };
  if (!led && found.state === 'leased')
    return { code: 'leader_gone', seconds: Math.max(1, LEASE_SECONDS - (found.silent ?? 0)) };
  const restarted = workers.find(({ restarts, age }) => restarts > 0 && age < RESTARTED_SECONDS);
  return restarted ? { code: 'worker_restarted', seconds: restarted.age } : null;
}
