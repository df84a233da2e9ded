/**
 * When hosts may be asked again: one table for all workers and crawls, read by the clock of the database.
 *
 * A host that answers 429 or 503 is backed off from once for each episode, however many requests were under way: its
 * delay between requests doubles. From then on its rate grows by a constant each second until the delay no longer
 * matters (additive increase, multiplicative decrease; Chiu and Jain, 1989).
 */
import type { RowDataPacket } from 'mysql2';
import { isMessage } from '$core/messages';
import type { Message } from '$core/messages';
import { hashOf, inTransaction } from '../database';
import type { Database } from '../database';

const MICROSECONDS = 1000;
/** Bounds of the delay after a complaint, in milliseconds. */
const LEAST_DELAY = 200;
const MOST_DELAY = 5000;
/** Complaints within so many milliseconds of the last change are of one episode. */
const EPISODE = 1000;
/** Requests a second that are added each second. */
const RECOVERY = 0.5;
/** A delay below this is none. */
const NO_DELAY = 10;

/**
 * The delay between requests to a host, some time after it was set.
 * @param delay milliseconds when it was set; 0 for none
 * @param since milliseconds that have passed
 * @returns milliseconds; 0 once the host has recovered
 */
export function recoveredDelay(delay: number, since: number): number {
  if (delay <= 0) return 0;
  const now = 1000 / (1000 / delay + (RECOVERY * Math.max(0, since)) / 1000);
  // Dividing twice may round up.
  return now < NO_DELAY ? 0 : Math.min(delay, now);
}

/**
 * Reserves the next moments at which a host may be asked.
 * @param every milliseconds between two requests
 * @returns for each reserved request, in how many milliseconds it may begin
 */
export const reserveRequests = (db: Database, host: string, every: number, count: number): Promise<number[]> =>
  inTransaction(db, async (run) => {
    const hash = hashOf(host);
    await run(
      `insert into host_limit (hash, host, next_at) values (?, ?, current_timestamp(3))
        on duplicate key update host = host`,
      [hash, host],
    );
    const read = `select greatest(0, timestampdiff(microsecond, current_timestamp(6), next_at)) / ${MICROSECONDS} as wait
                    from host_limit where hash = ? for update`;
    const [{ wait }] = (await run(read, [hash])) as { wait: number | string }[];
    const first = Number(wait);
    await run(
      `update host_limit set reason = if(next_at > current_timestamp(6), reason, null),
         next_at = greatest(next_at, current_timestamp(6)) + interval ? microsecond where hash = ?`,
      [Math.round(every * count * MICROSECONDS), hash],
    );
    return Array.from({ length: count }, (_, i) => first + i * every);
  });

interface LimitRow {
  host: string;
  reason: string | null;
  wait: number | string;
  delay: number;
  since: number | string | null;
}
const limitColumns = `host, reason, delay_ms as delay,
  timestampdiff(microsecond, current_timestamp(3), next_at) / ${MICROSECONDS} as wait,
  timestampdiff(microsecond, delay_at, current_timestamp(3)) / ${MICROSECONDS} as since`;

/**
 * Leaves a host that complained alone for a while, and slows requests to it down, for all workers.
 * @param hold milliseconds for which nothing is asked
 * @param every milliseconds between requests by the settings and robots.txt
 * @returns the delay between requests from now on, in milliseconds
 */
export const backOff = (db: Database, host: string, hold: number, every: number, reason: Message): Promise<number> =>
  inTransaction(db, async (run) => {
    const hash = hashOf(host);
    await run(
      `insert into host_limit (hash, host, next_at) values (?, ?, current_timestamp(3))
        on duplicate key update host = host`,
      [hash, host],
    );
    const [row] = (await run(`select ${limitColumns} from host_limit where hash = ? for update`, [hash])) as LimitRow[];
    const since = row.since === null ? Infinity : Number(row.since);
    const sameEpisode = (row.reason !== null && Number(row.wait) > 0) || since < EPISODE;
    const before = Math.max(every, recoveredDelay(row.delay, since));
    const delay = sameEpisode && row.delay > 0 ? row.delay : Math.min(MOST_DELAY, Math.max(LEAST_DELAY, 2 * before));
    await run(
      `update host_limit set next_at = greatest(next_at, current_timestamp(3) + interval ? microsecond), reason = ?,
         delay_ms = ?, delay_at = ${sameEpisode && row.delay > 0 ? 'delay_at' : 'current_timestamp(3)'} where hash = ?`,
      [Math.round(hold * MICROSECONDS), JSON.stringify(reason), Math.round(delay), hash],
    );
    return delay;
  });

/** How a host that complained is treated now. */
export interface HostLimit {
  host: string;
  /** Milliseconds until it may be asked again; 0 when it may. */
  wait: number;
  /** Why it is left alone; null when it is only asked more slowly. */
  reason: Message | null;
  /** Milliseconds between requests. */
  delay: number;
}

/** The hosts that are left alone or asked more slowly because they complained. */
export async function hostLimits(db: Database): Promise<HostLimit[]> {
  const [rows] = await db.$client.query<RowDataPacket[]>(
    `select ${limitColumns} from host_limit
      where (next_at > current_timestamp(3) and reason is not null) or delay_ms > 0`,
  );
  return (rows as LimitRow[])
    .map(({ host, reason, wait, delay, since }): HostLimit => {
      const held = reason !== null && Number(wait) > 0;
      return {
        host,
        wait: held ? Number(wait) : 0,
        reason: held ? reasonOf(reason) : null,
        delay: recoveredDelay(delay, Number(since ?? 0)),
      };
    })
    .filter(({ wait, delay }) => wait > 0 || delay > 0);
}

function reasonOf(text: string): Message {
  try {
    const value: unknown = JSON.parse(text);
    if (isMessage(value)) return value;
  } catch {
    // A sentence of an earlier version.
  }
  return { code: 'text', text };
}
