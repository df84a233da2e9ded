/** When hosts may be asked again: one table for all workers and crawls, read by the clock of the database. */
import { hashOf, inTransaction } from './database';
import type { Database } from './database';
import type { RowDataPacket } from 'mysql2';

const MICROSECONDS = 1000;

/**
 * Reserves the next moments at which a host may be asked.
 * @param every milliseconds between two requests
 * @returns for each reserved request, in how many milliseconds it may begin
 */
export const reserveRequests = (db: Database, host: string, every: number, count: number): Promise<number[]> =>
  inTransaction(db, async (run) => {
    const hash = hashOf(host);
    const make =
      'insert into host_pace (hash, host, next_at) values (?, ?, current_timestamp(3)) on duplicate key update host = host';
    await run(make, [hash, host]);
    const read = `select greatest(0, timestampdiff(microsecond, current_timestamp(6), next_at)) / ${MICROSECONDS} as wait
                    from host_pace where hash = ? for update`;
    const [{ wait }] = (await run(read, [hash])) as { wait: number | string }[];
    const first = Number(wait);
    const step = Math.round(every * count * MICROSECONDS);
    await run(
      'update host_pace set reason = if(next_at > current_timestamp(6), reason, null), next_at = greatest(next_at, current_timestamp(6)) + interval ? microsecond where hash = ?',
      [step, hash],
    );
    return Array.from({ length: count }, (_, i) => first + i * every);
  });

/** Leaves a host alone for a while, for all workers. */
export async function holdHost(db: Database, host: string, ms: number, reason: string): Promise<void> {
  const until = 'current_timestamp(3) + interval ? microsecond';
  await db.$client.query(
    `insert into host_pace (hash, host, next_at, reason) values (?, ?, ${until}, ?)
      on duplicate key update reason = if(values(next_at) > next_at, values(reason), reason), next_at = greatest(next_at, values(next_at))`,
    [hashOf(host), host, Math.round(ms * MICROSECONDS), reason],
  );
}

export interface HeldHost {
  host: string;
  /** Milliseconds until it may be asked again. */
  wait: number;
  reason: string;
}

/** The hosts that asked to be left alone, and still are. */
export async function heldHosts(db: Database): Promise<HeldHost[]> {
  const [rows] = await db.$client.query<RowDataPacket[]>(
    `select host, reason, timestampdiff(microsecond, current_timestamp(3), next_at) / ${MICROSECONDS} as wait
       from host_pace where next_at > current_timestamp(3) and reason is not null`,
  );
  return rows.map(({ host, reason, wait }) => ({ host, reason, wait: Number(wait) }));
}
